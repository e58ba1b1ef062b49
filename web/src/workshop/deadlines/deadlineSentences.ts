import { pathName } from '@tolvek/core/approval';
import {
  type DeadlineRule,
  doesInWords,
  FINISH,
  lengthInWords,
  type Ring,
  type RingNames,
} from '@tolvek/core/deadline';
import { conditionOf, type Scope } from '@tolvek/core/expression';
import { partName, whenInWords } from '@tolvek/core/form';
import { allRows, type RoutingTable } from '@tolvek/core/routing';
import type { RecipientNames } from '@tolvek/core/telling';
import { type Said, said } from '@tolvek/words';
import { say, told } from '../../wire/words.ts';
import { useBinder } from '../binder.ts';

interface Named {
  readonly names: RingNames;
  readonly scope: Scope;
  /** What a calendar is called. */
  readonly calendar: (key: string) => string;
}

/** What a deadline says, in sentences: how long it is and from when, until when, and what happens on the way. */
export function deadlineInSentences(rule: DeadlineRule, { names, scope, calendar }: Named): readonly Said[] {
  const { key, begins, length, stands, ends, rings } = rule;
  const stages = (keys: readonly string[]): readonly string[] => keys.map(names.stage);
  const when = conditionOf(rule);
  const long = lengthInWords(rule, names.field);
  const from =
    length.by === 'field'
      ? said('workshop:due.isDue', { length: long })
      : begins.on === 'arrival'
        ? said('workshop:due.fromArrival', { length: long })
        : said('workshop:due.fromStages', { length: long, stages: stages(begins.stages) });
  const until =
    ends.on === 'stages'
      ? [said('workshop:due.untilStages', { stages: stages(ends.stages) })]
      : ends.on === 'finished'
        ? key === FINISH
          ? []
          : [said('workshop:due.untilFinished')]
        : [said(`workshop:due.until.${ends.on}`)];
  const still =
    length.by === 'field' || stands.on === 'never'
      ? []
      : [
          stands.on === 'paused'
            ? said('workshop:due.standsPaused')
            : said('workshop:due.standsIn', { stages: stages(stands.stages) }),
        ];
  const first = said('common:sentences', {
    sentences: [
      from,
      ...until,
      ...still,
      ...(when === null ? [] : [said('workshop:due.when', { when: whenInWords(when, scope) })]),
      ...(rule.calendar === undefined ? [] : [said('workshop:due.by', { calendar: calendar(rule.calendar) })]),
    ],
  });
  return [
    first,
    ...rings.map((ring) => {
      const does = doesInWords(ring, names);
      const happens = { when: whenOf(ring), does: does.length > 0 ? [...does] : [said('workshop:due.nothing')] };
      return ring.again === undefined
        ? said('workshop:due.ring', happens)
        : said('workshop:due.ringAgain', { ...happens, again: { minutes: Math.round(ring.again / 60_000) } });
    }),
  ];
}

/** Which rows of a routing table say how long a deadline is, as they are numbered. */
export const rowsSayingOf = (table: RoutingTable, key: string): readonly number[] =>
  allRows(table).flatMap(({ outcome: { deadlines = [] } }, at) =>
    deadlines.some(({ deadline }) => deadline === key) ? [at + 1] : [],
  );

/** When something happens, as a sentence begins with it. */
const whenOf = ({ at, days }: Pick<Ring, 'at' | 'days'>): Said =>
  days !== undefined
    ? days === 0
      ? said('workshop:due.onDay')
      : said(`workshop:due.${days < 0 ? 'daysBefore' : 'daysAfter'}`, { count: Math.abs(days) })
    : at === 0
      ? said('workshop:due.whenDue')
      : said(`workshop:due.${at < 0 ? 'before' : 'after'}`, { length: { minutes: Math.round(Math.abs(at) / 60_000) } });

/** How the words of a ring name what is in the draft that is being worked on. */
export function useRingNames(): RecipientNames {
  const { editing, form } = useBinder();
  const { draft } = editing;
  return {
    group: (key) => form.groups.find((group) => group.key === key)?.name ?? key,
    person: (id) => form.people.find(({ key }) => key === id)?.label ?? say('workshop:personGone'),
    stage: (key) => form.stages.find((stage) => stage.key === key)?.label ?? say('workshop:stageGone'),
    path: (id) => {
      const path = draft.approval.paths.find((each) => each.id === id);
      return path ? pathName(path) : said('workshop:pathGone');
    },
    field: (key) => partName(draft, key),
    roster: (key) => form.rosters.find((each) => each.key === key)?.name ?? say('workshop:rosterGone'),
    program: (key) => form.programs.find((each) => each.key === key)?.name ?? say('programs:programGone'),
  };
}

/** The sentences of a deadline of the draft that is being worked on. */
export function useDeadlineSentences(rule: DeadlineRule): readonly string[] {
  const { editing, form } = useBinder();
  const names = useRingNames();
  const calendar = (key: string): string => form.calendars.find((each) => each.key === key)?.name ?? key;
  const rows = rowsSayingOf(editing.draft.routing, rule.key);
  return [
    ...deadlineInSentences(rule, { names, scope: editing.proof.scope, calendar }).map((each) => told(each)),
    ...(rows.length > 0 ? [say('workshop:due.rowsSay', { rows: rows.map(String), count: rows.length })] : []),
  ];
}
