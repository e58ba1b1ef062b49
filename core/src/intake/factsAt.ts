import { dateAt, type WorkingCalendar, wallClockAt, workingWeek } from '../deadline/index.ts';
import { type Around, NO_PROFILE, type Profile, type RequestFacts } from '../register/index.ts';

/** Who asks, as conditions may know them. */
export interface Asker {
  readonly id: string;
  readonly kind: 'staff' | 'contact';
  readonly groups: readonly string[];
  readonly department: string;
  readonly profile: Profile;
}

/**
 * What conditions may know besides the answers: who asks, at which door, at which moment of the
 * desk’s clock.
 */
export function factsAt(
  now: number,
  calendar: WorkingCalendar,
  door: RequestFacts['door'],
  asker: Asker | null,
  around: Pick<Around, 'people' | 'vocabularies'> & Partial<Pick<RequestFacts, 'files' | 'references' | 'numbers'>>,
): RequestFacts {
  return {
    requesterIsOutside: asker?.kind !== 'staff',
    requesterId: asker?.id ?? null,
    requesterGroups: asker?.groups ?? [],
    department: asker?.department ?? '',
    profile: asker?.profile ?? NO_PROFILE,
    door,
    today: dateAt(now, calendar.zone),
    now: wallClockAt(now, calendar.zone),
    calendar: workingWeek(calendar),
    files: [],
    references: [],
    numbers: {},
    ...around,
  };
}
