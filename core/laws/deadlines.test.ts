import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  type CourseAsked,
  type DeadlineRule,
  dueOf,
  prepareCourse,
  type RowSpan,
  type Running,
  type WorkingCalendar,
} from '../src/deadline/index.ts';
import { type Field, type Phase, requestScope, requestSlots, type Values } from '../src/register/index.ts';
import { FACTS } from './anyForm.ts';
import { often } from './often.ts';

const MINUTE = 60_000;
const HOUR = 60 * MINUTE;
const WEEKDAY = [
  ['08:00', '12:30'],
  ['13:15', '17:30'],
] as const;
const CLOSED = '2026-10-21';
const desk: WorkingCalendar = {
  ...{ key: 'desk', name: 'Desk', zone: 'Europe/Dublin', holidays: [{ date: CLOSED, name: 'Closed' }] },
  week: [WEEKDAY, WEEKDAY, WEEKDAY, WEEKDAY, WEEKDAY, [['10:00', '12:00']], []],
};

/** The slow reading: every minute of thirteen weeks, with a change of the clock among them, by what a wall clock shows. */
const START = Date.parse('2026-09-14T00:00:00Z');
const MINUTES = 90 * 24 * 60;
const clock = new Intl.DateTimeFormat('en-CA', {
  ...{ timeZone: 'Europe/Dublin', year: 'numeric', month: '2-digit', day: '2-digit', weekday: 'short' },
  ...{ hour: '2-digit', minute: '2-digit', hourCycle: 'h23' },
});
const OPEN: boolean[] = [];
const DATE: string[] = [];
for (let minute = 0; minute < MINUTES; minute += 1) {
  const at = Object.fromEntries(
    clock.formatToParts(START + minute * MINUTE).map(({ type, value }) => [type, value] as const),
  );
  const date = `${at.year}-${at.month}-${at.day}`;
  const time = `${at.hour}:${at.minute}`;
  const day = at.weekday?.slice(0, 3);
  DATE.push(date);
  OPEN.push(
    date !== CLOSED &&
      day !== 'Sun' &&
      (day === 'Sat'
        ? time >= '10:00' && time < '12:00'
        : (time >= '08:00' && time < '12:30') || (time >= '13:15' && time < '17:30')),
  );
}

const STAGES: Readonly<Record<string, Phase>> = {
  ...{ arrived: 'arrived', work: 'working', check: 'working', waiting: 'paused', done: 'finished' },
};
const FIELDS = [
  { key: 'wanted', label: 'Wanted', type: { kind: 'date' }, source: 'asked' },
  { key: 'many', label: 'Many', type: { kind: 'number', places: 0 }, source: 'asked' },
  { key: 'urgent', label: 'Urgent', type: { kind: 'yes-no' }, source: 'asked' },
] as unknown as readonly Field[];

/** In the place of a day within a life: a deadline applies from it on, or until it. */
const FROM_DAY = 'today >= date("DAY")';
const UNTIL_DAY = 'today < date("DAY")';

const stages = fc.uniqueArray(fc.constantFrom('arrived', 'work', 'check', 'waiting'), { minLength: 1, maxLength: 2 });
const inStages = stages.map((some) => ({ on: 'stages' as const, stages: some }));
const rule: fc.Arbitrary<DeadlineRule> = fc
  .record({
    begins: fc.oneof(fc.constant({ on: 'arrival' as const }), inStages, inStages),
    length: fc.oneof(
      fc.constant({ by: 'routing' as const }),
      fc.integer({ min: 0, max: 6 }).map((days) => ({ by: 'days' as const, days })),
      fc.integer({ min: 1, max: 40 * 60 }).map((minutes) => ({ by: 'time' as const, time: minutes * MINUTE })),
      fc
        .constantFrom('days' as const, 'hours' as const)
        .map((unit) => ({ by: 'formula' as const, formula: 'many', unit })),
      fc.record({
        by: fc.constant('field' as const),
        field: fc.constant('wanted'),
        days: fc.integer({ min: -4, max: 4 }),
        counted: fc.constantFrom('working' as const, 'any' as const),
      }),
    ),
    stands: fc.oneof(fc.constant({ on: 'paused' as const }), fc.constant({ on: 'never' as const }), inStages),
    ends: fc.oneof(
      fc.constant({ on: 'finished' as const }),
      fc.constant({ on: 'answered' as const }),
      fc.constant({ on: 'left' as const }),
      inStages,
    ),
    when: fc.constantFrom(undefined, undefined, 'urgent = true', FROM_DAY, UNTIL_DAY),
  })
  .map(({ when, ...each }) => ({ ...{ ...each, key: 'one', name: 'One', rings: [] }, ...(when ? { when } : {}) }));

type Event =
  | { readonly is: 'turn' }
  | { readonly is: 'move'; readonly to: string }
  | { readonly is: 'answer' }
  | { readonly is: 'values'; readonly values: Values };
const someValues: fc.Arbitrary<Values> = fc.record({
  wanted: fc.option(fc.integer({ min: 5, max: 30 }).map((day) => `2026-10-${String(day).padStart(2, '0')}`)),
  many: fc.option(fc.integer({ min: 0, max: 6 })),
  urgent: fc.option(fc.boolean()),
});
const event: fc.Arbitrary<Event> = fc.oneof(
  {
    weight: 5,
    arbitrary: fc.constantFrom('work', 'check', 'waiting', 'done').map((to) => ({ is: 'move' as const, to })),
  },
  { weight: 1, arbitrary: fc.constant({ is: 'answer' as const }) },
  { weight: 4, arbitrary: fc.constant({ is: 'turn' as const }) },
  { weight: 3, arbitrary: someValues.map((values) => ({ is: 'values' as const, values })) },
);
/** What a row of the routing table says of it; `none`: that there is no such deadline. */
const byRow = fc.oneof(
  fc.constant('none' as const),
  fc.integer({ min: 0, max: 6 }).map((days) => ({ by: 'days' as const, days })),
  fc.integer({ min: 1, max: 40 * 60 }).map((minutes) => ({ by: 'time' as const, time: minutes * MINUTE })),
  fc.constantFrom('days' as const, 'hours' as const).map((unit) => ({ by: 'formula' as const, formula: 'many', unit })),
);
const lives = fc
  .record({
    rule,
    arrives: fc.integer({ min: 21 * 24 * 60, max: 35 * 24 * 60 }),
    turns: fc.integer({ min: 0, max: 6 * 24 * 60 }),
    values: someValues,
    workingDays: fc.integer({ min: 0, max: 5 }),
    byRow: fc.oneof({ weight: 4, arbitrary: fc.constant(null) }, { weight: 1, arbitrary: byRow }),
    events: fc.array(fc.tuple(fc.integer({ min: 1, max: 3 * 24 * 60 }), event), { minLength: 2, maxLength: 9 }),
  })
  .map(({ rule: { when, ...each }, turns, ...life }) => {
    const day = DATE[life.arrives + turns] ?? '';
    return { ...life, day, rule: when === undefined ? each : { ...each, when: when.replace('DAY', day) } };
  });

/** Where a deadline is, read minute by minute: what it has used of its time stands in a list of minutes. */
interface Slow {
  readonly start: number;
  readonly used: number[];
  /** Minutes of working time; or the minute at which it is due. */
  allowed: { minutes: number } | { at: number };
  state: 'open' | 'over' | 'ended';
}

/** The end of so many working days after the first, as minutes of working time from a moment. */
function minutesOfDays(start: number, days: number): number {
  const dates = [...new Set(DATE.flatMap((date, minute) => (OPEN[minute] && minute >= start ? [date] : [])))];
  const last = dates[days];
  let count = 0;
  for (let minute = start; minute < MINUTES && (DATE[minute] ?? '') <= (last ?? ''); minute += 1)
    if (OPEN[minute]) count += 1;
  return count;
}

/** The minute at which it closes on a day some days from another, or on the last open day before that. */
function closing(date: string, days: number, counted: 'working' | 'any'): number {
  const noon = (day: string): number => Date.parse(`${day}T12:00:00Z`);
  let day = date;
  const isOpenOn = (one: string): boolean => DATE.some((each, minute) => each === one && OPEN[minute]);
  for (let left = Math.abs(days); left > 0; ) {
    day = new Date(noon(day) + Math.sign(days) * 24 * HOUR).toISOString().slice(0, 10);
    if (counted === 'any' || isOpenOn(day)) left -= 1;
  }
  let last = -1;
  for (let minute = 0; minute < MINUTES && (DATE[minute] ?? '') <= day; minute += 1) if (OPEN[minute]) last = minute;
  return last + 1;
}

const cases = {
  paused: 0,
  over: 0,
  ended: 0,
  again: 0,
  dates: 0,
  formulas: 0,
  gone: 0,
  replanned: 0,
  late: 0,
  came: 0,
  went: 0,
  byRow: 0,
  noneByRow: 0,
};

type Life = { rule: DeadlineRule; values: Values; workingDays: number; day: string; byRow: RowSpan | 'none' | null };

function slowly(life: Life) {
  const { rule: each, workingDays } = life;
  let slow: Slow | undefined;
  let values = life.values;
  let today = '';
  const applies = (): boolean => {
    if (each.when?.startsWith('today >=')) return today >= life.day;
    if (each.when?.startsWith('today <')) return today < life.day;
    return each.when === undefined || values.urgent === true;
  };
  const isWithin = (stage: string): boolean => each.begins.on === 'arrival' || each.begins.stages.includes(stage);
  const allowedAt = (start: number): Slow['allowed'] | null => {
    if (!applies() || life.byRow === 'none') return null;
    const length = life.byRow ?? each.length;
    // Formulas read an empty number as none.
    const many = typeof values.many === 'number' ? values.many : 0;
    switch (length.by) {
      case 'routing':
        return { minutes: minutesOfDays(start, workingDays) };
      case 'days':
        return { minutes: minutesOfDays(start, length.days) };
      case 'time':
        return { minutes: length.time / MINUTE };
      case 'formula':
        return { minutes: length.unit === 'hours' ? many * 60 : minutesOfDays(start, many) };
      case 'field':
        return typeof values.wanted === 'string' ? { at: closing(values.wanted, length.days, length.counted) } : null;
    }
  };
  return {
    /** Time passes at a stage, to the end of a minute that is not included. */
    passes(from: number, to: number, stage: string): void {
      const stands =
        each.stands.on === 'never'
          ? false
          : each.stands.on === 'paused'
            ? STAGES[stage] === 'paused'
            : each.stands.stages.includes(stage);
      // What is finished goes on to count, should it be taken up again.
      if (!slow || slow.state === 'over' || stands) return;
      for (let minute = from; minute < to; minute += 1) if (OPEN[minute]) slow.used.push(minute);
    },
    happens(at: number, stage: string, before: string | null, what: Event | null): void {
      if (what?.is === 'values') values = what.values;
      today = DATE[at] ?? '';
      const isOver = STAGES[stage] === 'finished';
      const comes = isWithin(stage) && (before === null || !isWithin(before));
      const known = what === null || what.is === 'values';
      // With the day alone it comes or goes, and is as long as it was.
      if (what?.is === 'turn' && each.when?.startsWith('today')) {
        const allowed = allowedAt(at);
        if (slow?.state === 'open' && !applies()) {
          slow = undefined;
          cases.went += 1;
        } else if (!slow && allowed !== null && isWithin(stage)) {
          slow = { start: at, used: [], allowed, state: 'open' };
          cases.came += 1;
        }
      } else if ((comes || known) && (isWithin(stage) || slow?.state === 'open')) {
        const allowed = allowedAt(slow?.state === 'open' ? slow.start : at);
        if (allowed === null && slow?.state === 'open') slow = undefined;
        else if (allowed !== null && slow?.state === 'open') {
          if (JSON.stringify(slow.allowed) !== JSON.stringify(allowed)) cases.replanned += 1;
          slow.allowed = allowed;
        } else if (allowed !== null && isWithin(stage) && (!slow || comes)) {
          if (slow) cases.again += 1;
          slow = { start: at, used: [], allowed, state: 'open' };
        }
      }
      if (!slow || slow.state === 'over') return;
      const { ends } = each;
      const isMet =
        (ends.on === 'answered' && what?.is === 'answer') ||
        (ends.on === 'left' && !isWithin(stage)) ||
        (ends.on === 'stages' && ends.stages.includes(stage));
      slow.state = isMet ? 'over' : isOver ? 'ended' : 'open';
    },
    /** Where it is at a stage; due where its time would be used up if nothing else happened. */
    now(at: number) {
      if (!slow) return null;
      const { allowed, used, state } = slow;
      if ('at' in allowed) return { state, due: allowed.at };
      if (allowed.minutes === 0) return { state, due: null };
      const reached = used[allowed.minutes - 1];
      if (reached !== undefined) return { state, due: reached + 1 };
      let left = allowed.minutes - used.length;
      for (let minute = at; minute < MINUTES; minute += 1)
        if (OPEN[minute] && (left -= 1) === 0) return { state, due: minute + 1 };
      return { state, due: null };
    },
  };
}

describe('what a request is due by', () => {
  it('is what a reading minute by minute says, however it is paused, taken up again, changed and ended', () => {
    fc.assert(
      fc.property(lives, (life) => {
        const course = prepareCourse(
          { calendar: 'desk', leads: 'leads', deadlines: [life.rule] },
          requestScope(FIELDS),
        );
        const said = { deadline: 'one', length: life.byRow === 'none' ? null : life.byRow };
        const other = { deadline: 'another', length: null };
        const lengths = life.byRow === null ? [other] : [other, said];
        const slow = slowly(life);
        let running: ReadonlyMap<string, Running> = new Map();
        let values = life.values;
        let stage = 'arrived';
        let at = life.arrives;
        const ask = (before: string | null, what: Event | null): void => {
          const asked: CourseAsked = {
            now: START + at * MINUTE,
            at: { stage, phase: STAGES[stage] ?? 'arrived' },
            before: before === null ? null : { stage: before, phase: STAGES[before] ?? 'arrived' },
            changed: what === null || what.is === 'values',
            answered: what?.is === 'answer',
            turned: what?.is === 'turn',
            row: () => ({ workingDays: life.workingDays, deadlines: lengths }),
            values,
            slots: () => requestSlots(FIELDS, values, { ...FACTS, today: DATE[life.arrives] ?? '' }),
            slotsNow: () => requestSlots(FIELDS, values, { ...FACTS, today: DATE[at] ?? '' }),
            calendar: () => desk,
          };
          const next = course(running, asked);
          // Nothing that did not change is another object.
          for (const [key, each] of next)
            if (JSON.stringify(each) === JSON.stringify(running.get(key))) expect(each).toBe(running.get(key));
          running = next;
          slow.happens(at, stage, before, what);
        };
        const compare = (): void => {
          const is = running.get('one');
          const read = slow.now(at);
          expect(is?.state ?? null).toBe(read?.state ?? null);
          if (!is || !read) {
            cases.gone += 1;
            cases.noneByRow += Number(life.byRow === 'none');
            return;
          }
          cases.late += Number(read.due !== null && read.due < at);
          // What stands still is due later with each minute: what was left when it began to stand is compared.
          if (read.due !== null && is.state === 'open' && is.deadline.pauses.at(-1)?.to !== null)
            expect(new Date(is.deadline.due).toISOString()).toBe(new Date(START + read.due * MINUTE).toISOString());
          if (is.state === 'open') expect(dueOf(running)).toBe(is.deadline.due);
          expect(is.endedAt === null).toBe(is.state === 'open');
          cases.paused += Number(is.deadline.pauses.length > 0);
          cases.over += Number(is.state === 'over');
          cases.ended += Number(is.state === 'ended');
          cases.dates += Number(is.deadline.counted === 'date');
          cases.byRow += Number(life.byRow !== null);
          cases.formulas += Number(life.rule.length.by === 'formula');
        };
        ask(null, null);
        compare();
        for (const [later, what] of life.events) {
          slow.passes(at, at + later, stage);
          at += later;
          const before = stage;
          if (what.is === 'move') stage = what.to;
          if (what.is === 'values') values = what.values;
          if (what.is !== 'move' || what.to !== before) ask(before, what);
          compare();
        }
      }),
      { numRuns: often(1_000) },
    );
    console.log('deadlines read minute by minute', cases);
    expect(Math.min(...Object.values(cases))).toBeGreaterThan(often(10));
  });
});
