import { heldDuties } from '@tolvek/core/roster';
import { type DutyItem, dutyWeeks } from '../../ui/dutyWeeks.ts';
import { WeekPicture } from '../../ui/WeekPicture.tsx';
import { say } from '../../wire/words.ts';
import { WEEKDAYS } from '../groundwork/calendarDraft.ts';
import { type Ahead, WEEKS } from './useRosterAhead.ts';

interface RosterWeeksProps {
  readonly ahead: Ahead;
  readonly zone: string;
  /** ISO 8601. */
  readonly now: string;
  readonly nameOf: (id: string) => string;
}

/** The weeks ahead by a roster: who is on duty on each day, and when nobody is though somebody has to be. */
export function RosterWeeks({ ahead, zone, now, nameOf }: RosterWeeksProps) {
  const items: readonly DutyItem[] = [
    ...heldDuties(ahead.duties, ahead.gaps).map(({ person, from, to }) => ({
      ...{ key: person, from, to, look: 'plain' as const },
      words: (time: string) => (
        <>
          <span className="text-soft tabular-nums">{time}</span> {nameOf(person)}
        </>
      ),
    })),
    ...ahead.gaps.map(({ from, to, away }) => ({
      ...{ key: 'gap', from, to, look: 'gap' as const },
      words: (time: string) =>
        away.length === 0 ? say('rosters:gapAt', { time }) : say('rosters:awayAt', { time, names: away.map(nameOf) }),
    })),
  ];
  return (
    <WeekPicture
      label={say('rosters:weeksAhead', { count: WEEKS })}
      heads={WEEKDAYS.map((day) => say(`calendars:${day}`))}
      weeks={dutyWeeks(items, {
        ...{ now: Date.parse(now), zone, weeks: WEEKS, allDay: say('rosters:allDay') },
        nameDay: (day) => say('rosters:shortDay', { day }),
      })}
    />
  );
}
