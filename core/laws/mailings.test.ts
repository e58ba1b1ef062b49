import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type WorkingCalendar, wallClockAt } from '../src/deadline/index.ts';
import type { FormDesign } from '../src/form/index.ts';
import { prepareCompletion } from '../src/form/index.ts';
import {
  askedAbout,
  dueOf,
  goesAfter,
  type MailingDesign,
  meansOf,
  nextGoing,
  nextReminder,
  owedBy,
  type Recipient,
} from '../src/mailing/index.ts';
import type { Field, RequestFacts } from '../src/register/index.ts';
import { often } from './often.ts';
import { sentBy, workdaysOf } from './plainMailing.ts';

const GROUPS = ['divers', 'lab'];
const IDS = ['ana', 'ben', 'cy', 'dee'];
const WORDS = [...GROUPS, ...IDS.map((id) => `@${id}`)];

const anyPeople: fc.Arbitrary<readonly Recipient[]> = fc.uniqueArray(
  fc.record({
    personId: fc.constantFrom(...IDS),
    kind: fc.constantFrom('staff' as const, 'contact' as const),
    active: fc.boolean(),
    groups: fc.subarray(GROUPS),
  }),
  { selector: ({ personId }) => personId },
);
const anyAudience = fc.record({
  in: fc.oneof(
    fc.constant({ everyone: true as const }),
    fc.subarray(WORDS).map((anyOf) => ({ anyOf })),
    fc.subarray(WORDS, { maxLength: 2 }).map((allOf) => ({ allOf })),
  ),
  outOf: fc.subarray(WORDS, { maxLength: 2 }),
});
const anyMailing: fc.Arbitrary<Pick<MailingDesign, 'to' | 'about'>> = fc.oneof(
  anyAudience.map((audience) => ({ to: { audience }, about: { is: 'nothing' as const } })),
  anyAudience.map((audience) => ({ to: { audience }, about: { is: 'each-other' as const, field: 'who' } })),
  fc
    .oneof(
      anyAudience.map((audience) => ({ audience })),
      fc.constantFrom('~requester', '~handler', 'keeper').map((named) => ({ named })),
    )
    .map((to) => ({
      to,
      about: { is: 'requests' as const, register: 'kit', field: 'thing', stages: [], when: '' },
    })),
);
const anyNamed = fc.dictionary(
  fc.constantFrom('~requester', '~handler', 'keeper'),
  fc.array(fc.constantFrom(...IDS, 'gone'), { maxLength: 3 }),
);
const anyEntries = fc.uniqueArray(fc.record({ id: fc.constantFrom('k1', 'k2', 'k3'), named: anyNamed }), {
  selector: ({ id }) => id,
});

describe('whom a form is sent to', () => {
  it('is whom a plain reading sends it to, with the same reasons where it is not sent', () => {
    const seen = new Map<string, number>();
    const see = (what: string): void => void seen.set(what, (seen.get(what) ?? 0) + 1);
    fc.assert(
      fc.property(
        ...[anyMailing, fc.constantFrom('staff' as const, 'outside' as const), anyPeople, anyEntries],
        (mailing, door, people, entries) => {
          const { owed, notSent } = owedBy(mailing, door, people, entries);
          const about = (topic: (typeof owed)[number]['about']): string =>
            topic === null ? '-' : 'person' in topic ? `@${topic.person}` : topic.request;
          const lines = [
            ...owed.map((each) => `${each.person} ${about(each.about)}`),
            ...notSent.map((each) => `${each.person ?? 'nobody'} ${about(each.about)} ${each.why}`),
          ];
          expect([...lines].sort()).toEqual([...sentBy(mailing, door, people, entries)].sort());
          // Nobody is asked the same twice, and nobody about themselves.
          expect(new Set(lines).size).toBe(lines.length);
          expect(lines.some((line) => /^(\w+) @\1\b/.test(line))).toBe(false);
          see(mailing.about.is);
          for (const { why } of notSent) see(why);
          if (owed.length > 0) see(`sent ${mailing.about.is}`);
        },
      ),
      { numRuns: often(2_000) },
    );
    console.log('mailings', Object.fromEntries(seen));
    const wanted = [
      ...['nothing', 'each-other', 'requests'].flatMap((is) => [is, `sent ${is}`]),
      ...['nobody', 'unknown', 'inactive', 'door-for-staff', 'asks-outside'],
    ];
    expect(wanted.filter((each) => !seen.has(each))).toEqual([]);
  });
});

const HOLIDAYS = ['2026-04-06', '2026-05-01', '2026-12-24', '2026-12-25', '2026-12-31'];
const HOURS = [['08:00', '17:30']] as const;
const calendar: WorkingCalendar = {
  ...{ key: 'any', name: 'Any', zone: 'Europe/Dublin' },
  week: [HOURS, HOURS, HOURS, HOURS, HOURS, [], []],
  holidays: HOLIDAYS.map((date) => ({ date, name: 'Closed' })),
};
const WORKDAYS = workdaysOf(2026, HOLIDAYS);
const anyMoment = fc.integer({ min: Date.UTC(2026, 1, 1), max: Date.UTC(2026, 9, 1) });
const clock = (at: number): string => wallClockAt(at, calendar.zone);
const dayOf = (at: number): string => clock(at).slice(0, 10);

describe('when a form is sent and due', () => {
  it('is the morning of a day on which somebody works, and the end of one', () => {
    let [periods, closed] = [0, 0];
    fc.assert(
      fc.property(
        ...[anyMoment, fc.constantFrom('week' as const, 'month' as const), fc.integer({ min: 0, max: 40 })],
        (at, period, days) => {
          const next = nextGoing({ is: 'every', period }, at, calendar);
          if (!next) throw new Error('It goes out every period.');
          const today = dayOf(at);
          const starts = (day: string): boolean =>
            period === 'week' ? new Date(`${day}T00:00Z`).getUTCDay() === 1 : day.endsWith('-01');
          // The first day after today that begins a period, by looking at one day after the other.
          const begins = new Date(`${today}T00:00Z`);
          do begins.setUTCDate(begins.getUTCDate() + 1);
          while (!starts(begins.toISOString().slice(0, 10)));
          const from = begins.toISOString().slice(0, 10);
          expect(next.period).toBe(from);
          expect(clock(next.at)).toBe(`${WORKDAYS.find((day) => day >= from)}T08:00`);
          // Due when the last working day before the next period ends.
          const due = dueOf({ dueIn: null, when: { is: 'every', period } }, next.at, calendar, next.period);
          const after = new Date(begins);
          do after.setUTCDate(after.getUTCDate() + 1);
          while (!starts(after.toISOString().slice(0, 10)));
          const until = after.toISOString().slice(0, 10);
          expect(clock(due ?? 0)).toBe(`${WORKDAYS.filter((day) => day < until).at(-1)}T17:30`);
          // So many days after something came to its stage: at once, or on a morning.
          const goes = goesAfter({ days }, at, calendar);
          const wanted = new Date(Date.parse(`${today}T00:00Z`) + days * 86_400_000).toISOString().slice(0, 10);
          if (days === 0) expect(goes).toBe(at);
          else expect(clock(goes)).toBe(`${WORKDAYS.find((day) => day >= wanted)}T08:00`);
          periods += 1;
          if (!WORKDAYS.includes(from)) closed += 1;
        },
      ),
      { numRuns: often(300) },
    );
    console.log('periods', periods, 'of which begin on a day off', closed);
    expect(closed).toBeGreaterThan(0);
  });

  it('is reminded of at each of its days, one after the other, and never before now', () => {
    let rung = 0;
    const anyReminder = fc.record({
      days: fc.integer({ min: 0, max: 9 }),
      side: fc.constantFrom('before' as const, 'after' as const),
    });
    fc.assert(
      fc.property(
        anyMoment,
        fc.integer({ min: 0, max: 8 }),
        fc.array(anyReminder, { maxLength: 4 }),
        (at, dueIn, reminders) => {
          const due = dueOf({ dueIn, when: { is: 'by-hand' } }, at, calendar, null) ?? 0;
          const rings: string[] = [];
          let now = at;
          for (let next = nextReminder({ reminders }, due, now, calendar); next !== null; ) {
            expect(next).toBeGreaterThan(now);
            rings.push(clock(next));
            now = next;
            next = nextReminder({ reminders }, due, now, calendar);
          }
          const wanted = reminders.map(({ days, side }) => {
            const day = Date.parse(`${dayOf(due)}T00:00Z`) + (side === 'before' ? -days : days) * 86_400_000;
            const date = new Date(day).toISOString().slice(0, 10);
            return `${WORKDAYS.find((each) => each >= date)}T08:00`;
          });
          expect(rings).toEqual([...new Set(wanted)].filter((moment) => moment > clock(at)).sort());
          rung += rings.length;
        },
      ),
      { numRuns: often(300) },
    );
    expect(rung).toBeGreaterThan(0);
    expect(nextReminder({ reminders: [{ days: 1, side: 'before' }] }, null, 0, calendar)).toBeNull();
  });
});

describe('a form about something', () => {
  const fields: readonly Field[] = [
    {
      key: 'thing',
      label: 'Thing',
      type: { kind: 'reference', register: 'kit', shows: ['name'], among: 'mine', offered: 'it.name = "x"' },
      source: 'asked',
    },
    { key: 'found', label: 'Found', type: { kind: 'text' }, source: 'asked' },
  ];
  const question = (field: string) => ({ part: 'question' as const, field, asks: '', help: '', required: true });
  const form = { fields, parts: fields.map(({ key }) => question(key)), rules: [] } as unknown as FormDesign;
  const known = (id: string) => ({ id, register: 'kit', number: id, label: id, fields: {} });
  const facts = {
    ...{
      references: [known('k1'), known('k2')],
      people: [],
      vocabularies: [],
      files: [],
      numbers: {},
      requesterGroups: [],
    },
    ...{ today: '2026-11-28', now: '2026-11-28T10:00', requesterId: null, department: '', door: 'staff' },
    ...{ requesterIsOutside: false, profile: { fields: [], values: {} }, calendar: { open: [], closed: [] } },
  } as unknown as RequestFacts;

  it('takes no other answer to that, whatever is sent along, and asks all else as before', () => {
    const complete = prepareCompletion(askedAbout(form, [{ field: 'thing', value: 'k1' }]));
    fc.assert(
      fc.property(
        fc.constantFrom(undefined, null, '', 'k1', 'k2', 'gone'),
        fc.string({ minLength: 1 }),
        (thing, found) => {
          const { values, asked, strangers } = complete({ found, ...(thing === undefined ? {} : { thing }) }, facts);
          expect(values.thing).toBe('k1');
          expect(asked.map(({ field, locked }) => [field, locked])).toEqual([
            ['thing', true],
            ['found', false],
          ]);
          // What was typed where nothing is asked is refused, and not dropped in silence.
          expect(strangers.map(({ field }) => field)).toEqual(thing === undefined ? [] : ['thing']);
        },
      ),
      { numRuns: often(200) },
    );
    expect(prepareCompletion(form)({ found: 'x' }, facts).values.thing).toBeUndefined();
  });
});

describe('the mean of several answers', () => {
  const field = (kind: 'number' | 'money' | 'text'): Field =>
    ({ key: kind, label: kind, type: kind === 'number' ? { kind, places: 0 } : { kind }, source: 'asked' }) as Field;
  it('is that of their numbers, and of amounts of one currency', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: -1_000, max: 1_000 }), { minLength: 1, maxLength: 9 }), (numbers) => {
        const answers = numbers.map((n) => ({
          values: { number: n, money: { minor: n, currency: 'EUR' }, text: 'x' },
        }));
        const [number, money, ...more] = meansOf([field('number'), field('money'), field('text')], answers);
        let sum = 0;
        for (const n of numbers) sum += n;
        expect(Math.abs((number?.mean as number) - sum / numbers.length)).toBeLessThanOrEqual(0.005 + 1e-9);
        expect(
          Math.abs(((money?.mean ?? { minor: Number.NaN }) as { minor: number }).minor - sum / numbers.length),
        ).toBeLessThanOrEqual(0.5);
        expect([number?.count, money?.count, more]).toEqual([numbers.length, numbers.length, []]);
      }),
      { numRuns: often(200) },
    );
    const two = ['EUR', 'USD'].map((currency) => ({ values: { money: { minor: 1, currency } } }));
    expect(meansOf([field('money')], two)).toEqual([]);
    expect(meansOf([field('number')], [{ values: {} }])).toEqual([]);
  });
});
