import type { AnswerOf } from '@tolvek/contract';
import { type DoorLimit, doorAt, placesLeft } from '@tolvek/core/door';
import { mailingText } from '@tolvek/core/mailing';
import type { Viewer } from '@tolvek/core/people';
import type { Language } from '@tolvek/words/speech';
import { type DoorRow, doorBySlug } from '../door/queries.ts';
import { aboutOwed } from '../mailing/about.ts';
import { mailingById } from '../mailing/queries.ts';
import { personById, viewerIn } from '../people/queries.ts';
import { iso } from '../platform/clock.ts';
import type { Reader } from '../platform/database.ts';
import { Problem } from '../platform/problem.ts';
import { askedAt } from '../request/askedAt.ts';
import { openRequest } from '../request/open.ts';
import { isOwnOf, type RequestRow, requestById } from '../request/queries.ts';
import { admissionOf, type countedAt, lastOf } from './admission.ts';
import type { SentTo } from './sentTo.ts';

interface At {
  readonly now: number;
  readonly refused: { readonly own?: DoorLimit } | null;
  readonly finishBy: number | null;
  /** What counts against its limits. */
  readonly counted: ReturnType<typeof countedAt>;
  /** The language they read. */
  readonly reads: Language;
}

type Beside = Pick<AnswerOf<'door'>, 'now' | 'closes' | 'finishing' | 'finishBy' | 'places' | 'earlier' | 'instead'>;

/** What stands beside a form: until when it can be sent and how often; or where to go for whom it is not. */
export function besideDoor(db: Reader, door: DoorRow, viewer: Viewer | null, at: At): Beside {
  const { design } = door;
  const { now, refused, finishBy, counted } = at;
  const isIn = refused === null;
  return {
    now: iso(now),
    closes: isIn && design.closesAt !== null && doorAt(design, now) === 'open' ? iso(design.closesAt) : null,
    finishing: design.finishing ?? 0,
    finishBy: finishBy === null ? null : iso(finishBy),
    // Not to whom it would tell of others: whoever may not come in.
    places: isIn && design.showsPlaces ? placesLeft(design, counted.used) : null,
    earlier: refused?.own && viewer ? earlierOf(db, door, viewer, refused.own, { now, zone: counted.zone }) : null,
    instead: isIn ? null : otherDoor(db, door, viewer, at),
  };
}

interface Day {
  readonly now: number;
  readonly zone: string;
}

/** What stands above a form that was sent to somebody: why, about what, by when; and the answer they gave, where it is closed. */
export function besideSent(
  db: Reader,
  { owed, viewer }: SentTo,
  spoken: Language | null,
): Pick<AnswerOf<'door'>, 'sent'> & Partial<Beside> {
  const design = mailingById(db, owed.mailingId)?.design;
  const answer = owed.answerId === null ? undefined : requestById(db, owed.answerId);
  return {
    sent: {
      ...{ id: owed.id, text: design ? mailingText(design, spoken) : '', about: aboutOwed(db, owed, viewer) },
      due: owed.due === null ? null : iso(owed.due),
      passesOn: owed.state === 'open' && viewer.kind === 'staff' && (design?.passesOn ?? false),
    },
    ...(answer && isOwnOf(answer, viewer.personId) ? { earlier: shortly(db, answer, viewer) } : {}),
  };
}

/** The last request of somebody that counts against a limit of each. */
function earlierOf(db: Reader, door: DoorRow, viewer: Viewer, limit: DoorLimit, at: Day): Beside['earlier'] {
  const person = personById(db, viewer.personId);
  const found = lastOf(db, door, limit, { personId: viewer.personId, ...at });
  if (!found || !person) return null;
  return shortly(db, found, viewerIn(db, person));
}

function shortly(db: Reader, request: RequestRow, viewer: Viewer): NonNullable<Beside['earlier']> {
  const open = openRequest(db, request, viewer, 'following');
  return { number: request.number, subject: open.subject, stage: open.publicStage };
}

/** The door to go to instead: only one that lets them in, as far as it is known who they are. */
function otherDoor(
  db: Reader,
  { design, slug }: DoorRow,
  viewer: Viewer | null,
  { now, reads }: Pick<At, 'now' | 'reads'>,
): Beside['instead'] {
  if (design.instead === undefined || design.instead === slug) return null;
  const found = leadingTo(db, design.instead);
  if (!found || !admissionOf(db, found.door, viewer, now).admitted) return null;
  const { door, release } = found;
  const asking = { kind: door.kind, id: door.design.unnamed ? null : (viewer?.personId ?? null), reads };
  return { slug: door.slug, title: askedAt(db, release, asking, now).release.design.title };
}

function leadingTo(db: Reader, slug: string): ReturnType<typeof doorBySlug> | null {
  try {
    return doorBySlug(db, slug);
  } catch (error) {
    // What was removed, or not released yet, leads nowhere.
    if (error instanceof Problem) return null;
    throw error;
  }
}
