import type { Field } from '@tolvek/core/register';
import { conditionFor, type Total } from '@tolvek/core/view';
import { VIEWS } from '@tolvek/demo';
import { allRegisters, keepViewIndexes } from '@tolvek/server';
import fc from 'fast-check';
import Papa from 'papaparse';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { often } from '../../core/laws/often.ts';
import { type Answer, type Caller, Desk, freshly, ok, onVersion } from './desk.ts';

// What somebody sees through a view is what they read, one sheet after the other, put together by hand.
let desk: Desk;
const PEOPLE = ['Maren Okafor', 'Ilse Brandvold', 'Bram Solheim', 'Oskar Veldhuis', 'Priya Nakamura-Lind'] as const;
const REGISTERS = ['site-access', 'purchase', 'vessel-time'] as const;
type Somebody = (typeof PEOPLE)[number];

/** A request as somebody reads it on its sheet. */
interface Read {
  readonly number: string;
  readonly register: string;
  readonly values: ReadonlyMap<string, unknown>;
  /** What its fields say in words, and those of them that are there for this reader. */
  readonly shown: ReadonlyMap<string, unknown>;
  readonly facts: Readonly<Record<string, string | null>>;
}
interface Reader {
  readonly who: Caller;
  readonly id: string;
  readonly reads: readonly Read[];
  readonly fields: ReadonlyMap<string, readonly Field[]>;
  /** Keys of the registers of which they read something. */
  readonly registers: readonly string[];
}
const readers = new Map<Somebody, Reader>();

async function everyRow(who: Caller): Promise<readonly Answer['body'][]> {
  const rows: Answer['body'][] = [];
  for (let after = ''; ; ) {
    const { body } = await who.call('ledger', { query: { tray: 'all', ...(after ? { after } : {}) } });
    rows.push(...body.rows);
    if (!body.next) return rows;
    after = body.next;
  }
}

async function readAll(name: Somebody): Promise<Reader> {
  const who = await desk.as(name);
  const ofPrefix = new Map(allRegisters(desk.running.house.db).map(({ prefix, key }) => [prefix, key]));
  const reads: Read[] = [];
  for (const row of await everyRow(who)) {
    const sheet = ok(await who.call('sheet', { params: { number: row.number } }));
    const fields = sheet.values.fields as readonly { key: string; value: unknown; shown: unknown }[];
    reads.push({
      number: row.number,
      register: ofPrefix.get(row.number.split('-')[0]) ?? '',
      values: new Map(fields.flatMap(({ key, value }) => (value === null ? [] : [[key, value] as const]))),
      shown: new Map(fields.map(({ key, shown }) => [key, shown])),
      facts: {
        'request.number': row.number,
        'request.stage': row.stage.label,
        'request.team': row.team || null,
        'request.handler': row.handler,
        'requester.person': row.requester || null,
        'request.due': row.due,
      },
    });
  }
  const fields = new Map<string, readonly Field[]>();
  for (const of of REGISTERS) fields.set(of, ok(await who.call('nameable', { query: { of } })).fields);
  const registers = ok(await who.call('views')).registers.map(({ key }: { key: string }) => key);
  return { who, id: desk.idOf(name), reads, fields, registers };
}

beforeAll(async () => {
  desk = await Desk.open(70);
  for (const name of PEOPLE) readers.set(name, await readAll(name));
});
afterAll(() => desk.close());

const view = (part: object): Answer['body'] => ({
  ...{ name: 'Some', of: ['site-access'], when: '', columns: [{ of: 'request.number' }], groups: [], orders: [] },
  ...{ marks: [], shapes: [{ is: 'table' }], audience: null, ...part },
});
const looked = async (who: Caller, part: object, more: object = {}): Promise<Answer['body']> =>
  ok(await who.call('lookThrough', { body: { view: view(part), ...more } }));

/** A condition in FEEL, and by hand: yes, no or neither. */
interface Condition {
  readonly feel: string;
  readonly names: readonly string[];
  readonly holds: (read: Read) => boolean | null;
}
type Known = number | string;
/** What a value is as it is compared: an amount by its minor units. */
const known = (value: unknown): Known | undefined =>
  typeof value === 'object' && value !== null && 'minor' in value ? Number(value.minor) : (value as Known | undefined);

/** Conditions on a field, compared with something that some request holds, or nearly. */
function asking(field: Field, held: readonly unknown[]): readonly Condition[] {
  const { key, type } = field;
  const [value] = held;
  const has = known(value);
  if (value === undefined || has === undefined) return [];
  const by = (feel: string, test: (it: Known) => boolean, empty: boolean | null = null): Condition => ({
    ...{ feel, names: [key] },
    holds: ({ values }) => {
      const it = known(values.get(key));
      return it === undefined ? empty : test(it);
    },
  });
  switch (type.kind) {
    case 'choice':
    case 'person':
    case 'reference':
      return [by(`${key} = "${has}"`, (it) => it === has, false), by(`${key} != "${has}"`, (it) => it !== has, true)];
    case 'number':
    case 'level':
      return [by(`${key} > ${has}`, (it) => it > has), by(`${key} <= ${has}`, (it) => it <= has)];
    case 'money':
      return [by(`${key} >= ${Number(has) / 100}`, (it) => it >= has)];
    case 'yes-no':
      return [by(key, (it) => it as unknown as boolean)];
    case 'date':
      return [by(`${key} < date("${has}")`, (it) => it < has), by(`${key} >= date("${has}")`, (it) => it >= has)];
    case 'date-time':
      return [by(`${key} < date and time("${has}:00")`, (it) => it < has)];
    case 'text':
      return [
        by(`contains(${key}, "${String(has).slice(1, 3).replace(/["\\]/g, '')}")`, (it) =>
          String(it).includes(String(has).slice(1, 3).replace(/["\\]/g, '')),
        ),
        // The database can’t decide this one: it is asked in memory.
        by(
          `string length(${key}) > ${[...String(has)].length - 1}`,
          (it) => [...String(it)].length > [...String(has)].length - 1,
        ),
      ];
    default:
      return [];
  }
}

const both = (a: Condition, b: Condition): Condition => ({
  ...{ feel: `(${a.feel}) and (${b.feel})`, names: [...a.names, ...b.names] },
  holds: (read) => {
    const [x, y] = [a.holds(read), b.holds(read)];
    return x === false || y === false ? false : x && y;
  },
});
const either = (a: Condition, b: Condition): Condition => ({
  ...{ feel: `(${a.feel}) or (${b.feel})`, names: [...a.names, ...b.names] },
  holds: (read) => {
    const [x, y] = [a.holds(read), b.holds(read)];
    return x === true || y === true ? true : x === false && y === false ? false : null;
  },
});
const not = (a: Condition): Condition => ({
  ...{ feel: `not(${a.feel})`, names: a.names },
  holds: (read) => {
    const x = a.holds(read);
    return x === null ? null : !x;
  },
});

const GROUPS = ['choice', 'level', 'yes-no', 'person', 'reference', 'date'];
const ORDERS = ['choice', 'number', 'money', 'level', 'date', 'date-time', 'text'];

/** What a value is in order by: a choice by its place among the options, a text without capitals and accents. */
function placed(field: Field | undefined, value: unknown): Known | null {
  const it = known(value);
  if (it === undefined) return null;
  if (field?.type.kind === 'choice') {
    const place = field.type.options.findIndex(({ key }) => key === it);
    return place === -1 ? Number.POSITIVE_INFINITY : place;
  }
  if (field?.type.kind === 'text') return String(it).normalize('NFKD').replace(/\p{M}/gu, '').toLowerCase();
  return it;
}

const indexesThere = (): readonly string[] =>
  (
    desk.running.house.db.$client
      .prepare("select name from sqlite_schema where type = 'index' and name glob 'view_*'")
      .all() as { readonly name: string }[]
  ).map(({ name }) => name);

const covered = new Map<string, number>();
const count = (what: string): void => void covered.set(what, (covered.get(what) ?? 0) + 1);

describe('a view', () => {
  it('shows what a reading of the sheets finds: the same rows, in order, in groups, added up, in pages', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.constantFrom(...PEOPLE),
        fc.constantFrom(...REGISTERS),
        fc.infiniteStream(fc.nat()),
        async (name, of, choices) => {
          const one = <T>(list: readonly T[]): T | undefined => list[choices.next().value % Math.max(1, list.length)];
          const chance = (n: number): boolean => choices.next().value % n === 0;
          const { who, id, reads, fields: byRegister, registers } = readers.get(name) as Reader;
          if (!registers.includes(of)) {
            // Of a register that is none to them, nothing is there to read either.
            expect(reads.filter(({ register }) => register === of)).toEqual([]);
            count(name);
            return;
          }
          const fields = byRegister.get(of) ?? [];
          const rows = reads.filter(({ register }) => register === of);
          const atom = (): Condition | undefined => {
            const field = one(fields);
            const held = rows.flatMap(({ values }) => values.get(field?.key ?? '') ?? []);
            return field && one(asking(field, [one(held)]));
          };
          let when = chance(4) ? undefined : atom();
          const second = atom();
          if (when && second) when = one([both(when, second), either(when, second), when, not(when)]);
          const kindsOf = (kinds: readonly string[]): readonly string[] =>
            fields.filter(({ type }) => kinds.includes(type.kind)).map(({ key }) => key);
          const groups = [...new Set([one(kindsOf(GROUPS)), one(['request.stage', 'request.team', 'request.handler'])])]
            .filter((each) => each !== undefined)
            .slice(0, choices.next().value % 3);
          const orders = [...new Set([one(kindsOf(ORDERS)), one(kindsOf(ORDERS))])]
            .filter((each) => each !== undefined && !groups.includes(each))
            .slice(0, choices.next().value % 3)
            .map((subject) => ({ of: subject as string, down: chance(2) }));
          const columns = ['request.number', ...fields.map(({ key }) => key)].map((subject) => ({ of: subject }));
          const part = { of: [of], when: when?.feel ?? '', columns, groups, orders };

          const expected = rows.filter(
            (read) =>
              when === undefined || (when.names.every((key) => read.shown.has(key)) && when.holds(read) === true),
          );
          const shown: Answer['body'][] = [];
          let first: Answer['body'] | undefined;
          let end: { readonly until: string; readonly rows: number } | undefined;
          for (let after: string | undefined; ; ) {
            const page = await looked(who, part, {
              most: 1 + (choices.next().value % 20),
              ...(after ? { after } : {}),
            });
            first ??= page;
            shown.push(...page.rows);
            if (page.next && chance(2)) end = { until: page.next, rows: shown.length };
            if (page.next === null) break;
            after = page.next;
          }
          expect(first.findings, JSON.stringify(part)).toEqual([]);
          const saying = `${name} ${JSON.stringify(part)} ${id}`;
          const numbers = shown.map(({ number }) => number);
          expect(new Set(numbers).size, saying).toBe(numbers.length);
          expect(numbers.toSorted(), saying).toEqual(expected.map(({ number }) => number).toSorted());
          expect(first.total, saying).toBe(expected.length);

          // Some of them asked for again, with others: those that are in it, as they stand there, and what comes after an end.
          const some = [...shown, ...reads].map(({ number }) => number).filter(() => chance(6));
          const only = [...new Set([...some, 'XX-00001'])].slice(0, 100);
          const again = ok(await who.call('lookAgain', { body: { view: view(part), only, until: end?.until } }));
          // How much of a deadline is left goes on meanwhile.
          const byNumber = (rows: readonly Answer['body'][]): readonly Answer['body'][] =>
            rows.map((row) => ({ ...row, fuse: null })).toSorted((a, b) => (a.number < b.number ? -1 : 1));
          const stood = shown.filter(({ number }) => only.includes(number));
          expect(byNumber(again.rows), saying).toEqual(byNumber(stood));
          const after = end === undefined ? [] : shown.slice(end.rows).map(({ number }) => number);
          expect(again.later.toSorted(), saying).toEqual(after.filter((each) => only.includes(each)).toSorted());
          if (again.later.length > 0) count('rows after the end of what is there');
          if (again.rows.length > 0 && again.rows.length < only.length - 1) count('rows asked for that are not in it');

          // Looked through often, it is found by an index: by that it is the same, page by page, and added up.
          const summary = ({ groups, moreGroups, sums, total, more }: Answer['body']) => ({
            ...{ groups, moreGroups, sums, total, more },
          });
          expect(summary(ok(await who.call('addUpView', { body: { view: view(part) } }))), saying).toEqual(
            summary(first),
          );
          {
            for (let look = 0; look < 3; look += 1) await looked(who, part, { most: 1 });
            const before = indexesThere();
            await keepViewIndexes(desk.running.house, { rows: 1 });
            const isMade = indexesThere().some((name) => !before.includes(name));
            count(isMade ? 'found by an index' : 'without an index');
            if (isMade && shown.length > 0) count('pages by an index');
            if (isMade && groups.length === 2) count('two groups by an index');
            if (isMade && orders.some(({ down }) => down)) count('down by an index');
            const most = 1 + (choices.next().value % 5);
            const byIndex: Answer['body'][] = [];
            for (let after: string | undefined; ; ) {
              const page = await looked(who, part, { most, ...(after ? { after } : {}) });
              if (after === undefined) expect(summary(page), saying).toEqual(summary(first));
              byIndex.push(...page.rows);
              if (page.next === null) break;
              after = page.next;
            }
            const still = (rows: readonly Answer['body'][]) => rows.map((row) => ({ ...row, fuse: null }));
            expect(still(byIndex), saying).toEqual(still(shown));
          }

          const readOf = new Map(expected.map((read) => [read.number, read]));
          const fieldOf = (subject: string) => fields.find(({ key }) => key === subject);
          const cellOf = (read: Read, subject: string): unknown =>
            fieldOf(subject) ? read.values.get(subject) : (read.facts[subject] ?? undefined);
          // In order: what is empty last, what is the same the newest first.
          const compare = (a: Answer['body'], b: Answer['body']): number => {
            for (const { of: subject, down } of orders) {
              const [x, y] = [a, b].map((row) =>
                placed(fieldOf(subject), cellOf(readOf.get(row.number) as Read, subject)),
              );
              if (x === y || (x === undefined && y === undefined)) continue;
              if (x === null || x === undefined) return 1;
              if (y === null || y === undefined) return -1;
              return (x < y ? -1 : 1) * (down ? -1 : 1);
            }
            return a.arrived < b.arrived ? 1 : a.arrived > b.arrived ? -1 : 0;
          };
          for (const [at, row] of shown.entries()) {
            const before = shown[at - 1];
            if (before?.group === row.group) expect(compare(before, row), `${saying} ${at}`).toBeLessThanOrEqual(0);
          }
          // Cells are what the sheet says.
          for (const row of shown) {
            const read = readOf.get(row.number) as Read;
            const cells = fields.map(({ key }) => (read.values.has(key) ? read.shown.get(key) : ''));
            expect(row.cells, `${saying} ${row.number}`).toEqual(cells);
          }
          // Groups: each once, in the order of the rows, with as many as belong there.
          const inOrder = shown.map(({ group }) => group).filter((group, at, all) => group !== all[at - 1]);
          expect(new Set(inOrder).size, saying).toBe(inOrder.length);
          const keyOf = (read: Read): string =>
            JSON.stringify(groups.map((subject) => known(cellOf(read, subject as string)) ?? null));
          if (groups.length > 0) {
            expect(
              first.groups.map((group: { id: string }) => group.id),
              saying,
            ).toEqual(inOrder);
            const counts = expected.map(keyOf).toSorted();
            const byHand = [...new Set(counts)].map((key) => counts.filter((each) => each === key).length);
            expect(first.groups.map((group: { count: number }) => group.count).toSorted(), saying).toEqual(
              byHand.toSorted(),
            );
            const [outer] = groups;
            for (const row of shown) {
              const group = first.groups.find((each: { id: string }) => each.id === row.group);
              const read = readOf.get(row.number) as Read;
              const field = fieldOf(outer as string);
              const called = field
                ? read.values.has(field.key)
                  ? read.shown.get(field.key)
                  : ''
                : (read.facts[outer as string] ?? '');
              expect(group.path[0], saying).toEqual(called);
            }
          }
          // Sums of all rows and of groups.
          for (const [place, field] of fields.entries()) {
            if (!['number', 'money'].includes(field.type.kind)) continue;
            const held = expected.flatMap(({ values }) => known(values.get(field.key)) ?? []).map(Number);
            const sum = held.reduce((a, b) => a + b, 0);
            const found = first.sums.find(({ column }: { column: number }) => column === place + 1);
            const said = held.length === 0 ? '' : field.type.kind === 'money' ? sum / 100 : sum;
            const told = String(found?.sum).replace(/[^\d.-]/g, '');
            if (said === '') expect(found?.sum, `${saying} ${field.key}`).toBe('');
            else expect(Number(told), `${saying} ${field.key}`).toBeCloseTo(said, 6);
            count('sums');
          }
          if (when) count(expected.length > 0 ? 'conditions that hold of some' : 'conditions that hold of none');
          if (when?.feel.includes('string length')) count('conditions asked in memory');
          if (groups.length === 2) count('two groups');
          if (orders.length === 2) count('two orders');
          if (expected.length > 20) count('several pages');
          count(name);
        },
      ),
      { numRuns: often(500) },
    );
    console.log(`    views: ${[...covered].map(([what, n]) => `${what} ${n}`).join(', ')}`);
    for (const what of [
      'conditions that hold of some',
      'conditions asked in memory',
      'two groups',
      'rows after the end of what is there',
      'rows asked for that are not in it',
      'two orders',
      'found by an index',
      'without an index',
      'pages by an index',
      'two groups by an index',
      'down by an index',
      'several pages',
      'sums',
      ...PEOPLE,
    ])
      expect(covered.get(what), what).toBeGreaterThan(0);
  });
});

const BOARDED = ['choice', 'level', 'yes-no', 'person', 'reference'];
const FACTS = ['request.stage', 'request.team', 'request.handler'];

describe('the shapes of a view', () => {
  it('show on a board and in a calendar what a reading of the sheets finds there, and nothing else', async () => {
    const seen = new Map<string, number>();
    const saw = (what: string): void => void seen.set(what, (seen.get(what) ?? 0) + 1);
    await fc.assert(
      fc.asyncProperty(
        fc.constantFrom(...PEOPLE),
        fc.constantFrom(...REGISTERS),
        fc.infiniteStream(fc.nat()),
        async (name, of, choices) => {
          const one = <T>(list: readonly T[]): T | undefined => list[choices.next().value % Math.max(1, list.length)];
          const { who, reads, fields: byRegister, registers } = readers.get(name) as Reader;
          if (!registers.includes(of)) return;
          const fields = byRegister.get(of) ?? [];
          const rows = reads.filter(({ register }) => register === of);
          const asked = one(fields);
          const held = rows.flatMap(({ values }) => values.get(asked?.key ?? '') ?? []);
          const when = asked && choices.next().value % 2 === 0 ? one(asking(asked, [one(held)])) : undefined;
          const meant = rows.filter(
            (read) =>
              when === undefined || (when.names.every((key) => read.shown.has(key)) && when.holds(read) === true),
          );
          const kindsOf = (kinds: readonly string[]): readonly string[] =>
            fields.filter(({ type }) => kinds.includes(type.kind)).map(({ key }) => key);
          const valueIn = (read: Read, subject: string): unknown =>
            FACTS.includes(subject) ? read.facts[subject] : known(read.values.get(subject));
          const said = (value: unknown, subject: string): unknown =>
            FACTS.includes(subject) || value === undefined ? (value ?? null) : value;

          // A board: each stands in the place of what its sheet says, and each place has as many as stand there.
          const by = one([...kindsOf(BOARDED), ...FACTS]) ?? 'request.stage';
          const lanes = one([null, ...kindsOf(BOARDED), ...FACTS].filter((each) => each !== by)) ?? null;
          const body = view({ of: [of], when: when?.feel ?? '' });
          const shape = { is: 'board' as const, by, lanes };
          const board = ok(await who.call('lookAtBoard', { body: { view: body, shape } }));
          const saying = `${name} ${of} ${when?.feel} ${by} ${lanes}`;
          expect([board.findings, board.total, board.more], saying).toEqual([[], meant.length, false]);
          const named = (
            values: readonly { value: unknown; label: unknown }[],
            at: number,
            subject: string,
          ): unknown => {
            const found = values[at];
            if (FACTS.includes(subject)) return found?.label === '' ? null : found?.label;
            const yesNo = fields.find(({ key }) => key === subject)?.type.kind === 'yes-no';
            return yesNo && typeof found?.value === 'number' ? found.value === 1 : found?.value;
          };
          const standing = board.places.flatMap((place: Answer['body']) =>
            place.rows.map(({ number }: { number: string }) => [
              number,
              named(board.columns, place.column, by),
              lanes === null ? null : named(board.lanes, place.lane, lanes),
            ]),
          );
          const byHand = meant.map((read) => [
            read.number,
            said(valueIn(read, by), by) ?? null,
            lanes === null ? null : (said(valueIn(read, lanes), lanes) ?? null),
          ]);
          const sorted = (list: readonly unknown[]): readonly string[] =>
            list.map((each) => JSON.stringify(each)).toSorted();
          const isWhole = board.places.every(
            ({ count: n, rows: some }: { count: number; rows: readonly unknown[] }) => n === some.length,
          );
          if (isWhole) expect(sorted(standing), saying).toEqual(sorted(byHand));
          else {
            saw('places with more than are shown');
            for (const each of sorted(standing)) expect(sorted(byHand), saying).toContain(each);
          }
          for (const { count: n, rows: some } of board.places) expect(some.length, saying).toBe(Math.min(30, n));
          const counts = (values: readonly { count: number }[]): number =>
            values.reduce((n, each) => n + each.count, 0);
          expect([counts(board.columns), counts(board.places)], saying).toEqual([meant.length, meant.length]);
          if (lanes !== null) expect(counts(board.lanes), saying).toBe(meant.length);
          // Options stand in their order, whether anything has them or not.
          const field = fields.find(({ key }) => key === by);
          if (field?.type.kind === 'choice') {
            const options = field.type.options.filter(({ retired }) => !retired).map(({ key }) => key);
            expect(board.columns.slice(0, options.length).map(({ value }: { value: string }) => value)).toEqual(
              options,
            );
            saw('options');
          }
          saw(lanes === null ? 'boards' : 'boards with lanes');

          // A chart: what is measured of those that stand together, and the rows behind each figure.
          const figures = fields.filter(({ type }) => ['number', 'money'].includes(type.kind)).map(({ key }) => key);
          const days = kindsOf(['date', 'date-time']);
          const along = one([...kindsOf(BOARDED), ...days, 'request.stage']) ?? 'request.stage';
          const parted = one([null, ...kindsOf(BOARDED)].filter((each) => each !== along)) ?? null;
          const figure = one([null, ...figures]) ?? null;
          const is = figure === null ? 'count' : (one(['sum', 'mean', 'median', 'least', 'most'] as const) ?? 'sum');
          const each = one(['day', 'week', 'month', 'year'] as const) ?? 'day';
          const charted = {
            ...{ is: 'chart' as const, as: 'bars' as const, by: along, each, parts: parted },
            measure: { is, of: figure },
          };
          const chart = ok(await who.call('lookAtChart', { body: { view: body, shape: charted } }));
          const measuring = `${saying} ${JSON.stringify(charted)}`;
          const isTime = days.includes(along);
          /** The first day of the stretch that a day is in, by going back a day at a time. */
          const begin = (day: string): string => {
            const date = new Date(`${day}T00:00:00Z`);
            const isFirst = (): boolean =>
              each === 'day' ||
              (each === 'week' && date.getUTCDay() === 1) ||
              (each !== 'week' && date.getUTCDate() === 1 && (each === 'month' || date.getUTCMonth() === 0));
            while (!isFirst()) date.setUTCDate(date.getUTCDate() - 1);
            return date.toISOString().slice(0, 10);
          };
          const stepOf = (read: Read): unknown => {
            const value = valueIn(read, along);
            return (isTime && value !== undefined ? begin(String(value).slice(0, 10)) : value) ?? null;
          };
          const measuredBy = new Map<string, Read[]>();
          for (const read of meant) {
            if (isTime && stepOf(read) === null) continue;
            const key = JSON.stringify([stepOf(read), parted === null ? null : (valueIn(read, parted) ?? null)]);
            measuredBy.set(key, [...(measuredBy.get(key) ?? []), read]);
          }
          const ofThem = (some: readonly Read[], of = figure, what = is): number | null => {
            if (of === null) return some.length;
            const held = some.flatMap(({ values }) => known(values.get(of)) ?? []).map(Number);
            const sum = held.reduce((a, b) => a + b, 0);
            if (what === 'sum') return sum;
            if (held.length === 0) return null;
            if (what === 'mean') return sum / held.length;
            if (what === 'least') return Math.min(...held);
            if (what === 'most') return Math.max(...held);
            // The median by taking away the least and the greatest until one or two are left.
            const left = held.toSorted((a, b) => a - b);
            while (left.length > 2) {
              left.pop();
              left.shift();
            }
            return left.reduce((a, b) => a + b, 0) / left.length;
          };
          const points = chart.points.map((point: Answer['body']) => [
            JSON.stringify([
              isTime ? chart.steps[point.step].value : (named(chart.steps, point.step, along) ?? null),
              parted === null ? null : (named(chart.parts, point.part, parted) ?? null),
            ]),
            point.count,
            point.figure === null ? null : Math.round(point.figure * 1e6),
          ]);
          const pointsByHand = [...measuredBy].map(([key, some]) => {
            const it = ofThem(some);
            return [key, some.length, it === null ? null : Math.round(it * 1e6)];
          });
          expect(chart.findings, measuring).toEqual([]);
          expect(sorted(points), measuring).toEqual(sorted(pointsByHand));
          expect(chart.without, measuring).toBe(isTime ? meant.filter((read) => stepOf(read) === null).length : 0);
          if (isTime && chart.steps.length > 0) {
            const firsts = chart.steps.map(({ value }: { value: string }) => value);
            expect(
              firsts.every((value: string) => begin(value) === value),
              measuring,
            ).toBe(true);
            expect(firsts.toSorted(), measuring).toEqual(firsts);
            saw('charts over time');
          } else saw('charts by value');
          const point = one(chart.points as readonly Answer['body'][]);
          if (point) {
            const conditions = [
              ...(body.when === '' ? [] : [`(${body.when})`]),
              conditionFor(along, chart.steps[point.step].value, fields, each),
              ...(parted === null ? [] : [conditionFor(parted, chart.parts[point.part].value, fields)]),
            ];
            const behind = await looked(who, { of: [of], when: conditions.join(' and ') });
            expect([behind.findings, behind.total], `${measuring} ${conditions}`).toEqual([[], point.count]);
            saw('rows behind a figure');
          }

          // Totals: several of them for each value, for each other within it, and for all.
          const [told, per] = [one(figures), one(figures)];
          const other = one(fields);
          const meets = other && one(asking(other, [one(rows.flatMap(({ values }) => values.get(other.key) ?? []))]));
          const shareOf = meets ?? (asked && one(asking(asked, [one(held)])));
          const rate: Total | null = told === undefined || per === undefined ? null : { is: 'rate', of: told, per };
          const share: Total | null = shareOf ? { is: 'share', when: shareOf.feel, word: 'are so' } : null;
          const totals: readonly Total[] = [
            ...[{ is: 'count' as const, of: null }, figure === null ? null : ({ is, of: figure } as Total)],
            ...[rate, share],
          ].flatMap((total) => total ?? []);
          const added = { is: 'totals' as const, by: along, each, parts: parted, totals };
          const summed = ok(await who.call('lookAtTotals', { body: { view: body, shape: added } }));
          const adding = `${saying} ${JSON.stringify(added)}`;
          const totalByHand = (total: Total, some: readonly Read[]): number | null => {
            if (total.is === 'share') {
              const sayable = some.filter(({ shown }) => shareOf?.names.every((key) => shown.has(key)));
              const so = sayable.filter((read) => shareOf?.holds(read) === true).length;
              if (so > 0 && so < sayable.length) saw('shares of some');
              if (sayable.length < some.length) saw('shares of which something is hidden');
              return sayable.length === 0 ? null : so / sayable.length;
            }
            if (total.is === 'count') return some.length;
            if (total.is !== 'rate') return ofThem(some, total.of, total.is);
            let [all, of] = [0, 0];
            for (const { values } of some) {
              const [x, y] = [known(values.get(total.of)), known(values.get(total.per))];
              if (x === undefined || y === undefined) continue;
              all += Number(x);
              of += Number(y);
            }
            if (of !== 0) saw('rates');
            return of === 0 ? null : all / of;
          };
          const inLines = new Map<string, Read[]>();
          for (const read of meant) {
            const step = stepOf(read);
            const within = parted === null ? [] : [[step, valueIn(read, parted) ?? null]];
            for (const key of [['all'], [step], ...within].map((each) => JSON.stringify(each)))
              inLines.set(key, [...(inLines.get(key) ?? []), read]);
          }
          const rounded = (it: number | null): number | null => (it === null ? null : Math.round(it * 1e6));
          const linesByHand = [...inLines].map(([key, some]) => [
            ...[key, some.length, ...totals.map((total) => rounded(totalByHand(total, some)))],
          ]);
          const inStep = (step: number): unknown =>
            isTime ? (summed.steps[step]?.value ?? null) : (named(summed.steps, step, along) ?? null);
          const addedUp = summed.lines.map(({ step, part, count: n, totals: some }: Answer['body']) => [
            JSON.stringify(
              step === null
                ? ['all']
                : part === null
                  ? [inStep(step)]
                  : [inStep(step), named(summed.parts, part, parted ?? along) ?? null],
            ),
            ...[n, ...some.map((each: Answer['body']) => rounded(each.figure))],
          ]);
          expect(summed.findings, adding).toEqual([]);
          expect(sorted(addedUp.filter(([, n]: unknown[]) => n !== 0)), adding).toEqual(sorted(linesByHand));
          saw(parted === null ? 'totals' : 'totals within one another');

          // A matrix: what stands where two things meet.
          const down = one([...kindsOf(BOARDED), ...FACTS]) ?? 'request.stage';
          const across = one([...kindsOf(BOARDED), ...FACTS].filter((it) => it !== down)) ?? 'request.team';
          const levels = [...figures, ...kindsOf(['level'])];
          const measuredOf = one([null, ...levels]) ?? null;
          const tells = measuredOf === null ? 'count' : (one(['least', 'most'] as const) ?? 'most');
          const wanted = choices.next().value % 2 === 0 ? null : { figure: 1 + (choices.next().value % 30), cells: 2 };
          const freshBy = one([null, ...days]) ?? null;
          const fresh = freshBy === null ? null : { of: freshBy, days: 1 + (choices.next().value % 60) };
          const crossed = { is: 'matrix' as const, down, across, cell: { is: tells, of: measuredOf }, wanted, fresh };
          const matrix = ok(await who.call('lookAtMatrix', { body: { view: body, shape: crossed } }));
          const crossing = `${saying} ${JSON.stringify(crossed)}`;
          const meetings = new Map<string, Read[]>();
          for (const read of meant) {
            const key = JSON.stringify([valueIn(read, down) ?? null, valueIn(read, across) ?? null]);
            meetings.set(key, [...(meetings.get(key) ?? []), read]);
          }
          const today = ok(await who.call('me')).desk.now.slice(0, 10);
          const oldest = new Date(Date.parse(today) - (fresh?.days ?? 0) * 86_400_000).toISOString().slice(0, 10);
          const cellsByHand = [...meetings].map(([key, some]) => {
            const held = some.flatMap(({ values }) => known(values.get(measuredOf ?? '')) ?? []).map(Number);
            const it =
              measuredOf === null
                ? some.length
                : held.length === 0
                  ? null
                  : tells === 'least'
                    ? Math.min(...held)
                    : Math.max(...held);
            const [only] = some;
            const day = some.length === 1 && only ? String(only.values.get(freshBy ?? '') ?? '').slice(0, 10) : '';
            const stale = some.length > 1 ? '?' : day !== '' && day < oldest ? day : null;
            return [key, some.length, it, some.length === 1 ? only?.number : null, stale];
          });
          const cells = matrix.cells.map((cell: Answer['body']) => [
            JSON.stringify([
              named(matrix.down, cell.down, down) ?? null,
              named(matrix.across, cell.across, across) ?? null,
            ]),
            ...[cell.count, cell.figure, cell.number, cell.count > 1 ? '?' : cell.stale],
          ]);
          expect(matrix.findings, crossing).toEqual([]);
          expect(sorted(cells), crossing).toEqual(sorted(cellsByHand));
          for (const [at, column] of matrix.across.entries()) {
            const high = matrix.cells.filter(
              (cell: Answer['body']) =>
                cell.across === at && cell.figure !== null && cell.figure >= (wanted?.figure ?? 0),
            );
            expect(column.enough, crossing).toBe(wanted === null ? null : high.length);
          }
          saw(wanted === null ? 'matrices' : 'matrices in which something is wanted');
          if (cells.some(([, , , , stale]: unknown[]) => stale !== null && stale !== '?')) saw('stale cells');

          // A calendar: what lasts into the days that are looked at, and beside it what has no day.
          const dates = kindsOf(['date', 'date-time']);
          const from = one(dates);
          if (from === undefined) return;
          const to = one([null, ...dates.filter((each) => each !== from)]) ?? null;
          const held2 = rows.flatMap(({ values }) => values.get(from) ?? []).map((it) => String(it).slice(0, 10));
          const first = one(held2) ?? '2026-11-23';
          const last = new Date(Date.parse(first) + (choices.next().value % 30) * 86_400_000)
            .toISOString()
            .slice(0, 10);
          const lines = one([null, ...kindsOf(BOARDED)]) ?? null;
          const calendar = ok(
            await who.call('lookAtCalendar', {
              body: { view: body, shape: { is: 'calendar', from, to, lines }, first, last },
            }),
          );
          const lasting = `${saying} ${from} ${to} ${lines} ${first} ${last}`;
          const day = (read: Read, subject: string | null): string =>
            String(read.values.get(subject ?? '') ?? '').slice(0, 10);
          const dated = meant.filter((read) => day(read, from) !== '');
          const there = dated.filter((read) => {
            const [begins, ends] = [day(read, from), day(read, to)];
            return begins <= last && (ends > begins ? ends : begins) >= first;
          });
          expect(
            sorted(calendar.bars.map((bar: Answer['body']) => [bar.number, bar.begins, bar.ends])),
            lasting,
          ).toEqual(
            sorted(
              there.map((read) => [read.number, read.values.get(from), (to !== null && read.values.get(to)) || null]),
            ),
          );
          expect(calendar.undated.count, lasting).toBe(meant.length - dated.length);
          if (lines !== null)
            for (const bar of calendar.bars) {
              const read = there.find(({ number }) => number === bar.number) as Read;
              expect(named(calendar.lines, bar.line, lines), lasting).toEqual(valueIn(read, lines) ?? null);
            }
          saw(there.length > 0 ? 'calendars with something in view' : 'empty calendars');
          if (to !== null && there.some((read) => day(read, from) < first)) saw('what began before');
          if (calendar.undated.count > 0) saw('what has no day');
        },
      ),
      { numRuns: often(300) },
    );
    console.log(`    shapes: ${[...seen].map(([what, n]) => `${what} ${n}`).join(', ')}`);
    for (const what of [
      ...['boards', 'boards with lanes', 'options', 'charts over time', 'charts by value', 'rows behind a figure'],
      ...['totals', 'totals within one another', 'rates', 'shares of some'],
      ...['matrices', 'matrices in which something is wanted', 'stale cells'],
      ...['calendars with something in view', 'what began before', 'what has no day'],
    ])
      expect(seen.get(what), what).toBeGreaterThan(0);
  });

  it('tell nothing of a field that is hidden: one made by it is answered as by one that is not there', async () => {
    const hidden = {
      ...{
        id: 'hides-institute',
        name: 'Institute',
        fields: ['institute', 'arrival', 'fee'],
        level: 'hidden' as const,
      },
      audience: { in: { everyone: true as const }, outOf: [`@${desk.idOf('Maren Okafor')}`] },
    };
    const before = desk.register('site-access').access;
    desk.protect('site-access', { ...before, rules: [hidden, ...before.rules] });
    const ilse = await desk.as('Ilse Brandvold');
    const count = { is: 'count', of: null };
    type Shaped = 'lookAtBoard' | 'lookAtCalendar' | 'lookAtChart' | 'lookAtMatrix' | 'lookAtTotals' | 'lookThrough';
    const matrix = { is: 'matrix', cell: count, wanted: null, fresh: null };
    const chart = { is: 'chart', as: 'bars', each: 'week' };
    const totals = { is: 'totals', each: 'week', totals: [count] };
    const asked = (choice: string, date: string): readonly (readonly [Shaped, object])[] => [
      ['lookAtMatrix', { shape: { ...matrix, down: choice, across: 'request.stage' } }],
      ['lookAtMatrix', { shape: { ...matrix, down: 'request.team', across: choice } }],
      [
        'lookAtMatrix',
        { shape: { ...matrix, down: 'request.team', across: 'request.stage', fresh: { of: date, days: 9 } } },
      ],
      [
        'lookAtMatrix',
        { shape: { ...matrix, down: 'request.team', across: 'request.stage', cell: { is: 'newest', of: 'fee' } } },
      ],
      ['lookAtChart', { shape: { ...chart, by: choice, parts: null, measure: count } }],
      ['lookAtChart', { shape: { ...chart, by: date, parts: null, measure: count } }],
      ['lookAtChart', { shape: { ...chart, by: 'request.stage', parts: choice, measure: count } }],
      ['lookAtChart', { shape: { ...chart, by: 'request.stage', parts: null, measure: { is: 'least', of: 'fee' } } }],
      ['lookThrough', { view: view({ shapes: [{ is: 'gallery', picture: choice }] }), picture: choice }],
      ['lookAtTotals', { shape: { ...totals, by: choice, parts: null } }],
      ['lookAtTotals', { shape: { ...totals, by: 'request.stage', parts: choice } }],
      ...[
        { is: 'sum', of: 'fee' },
        { is: 'share', when: 'fee > 3', word: 'dear' },
      ].map(
        (total) =>
          ['lookAtTotals', { shape: { ...totals, by: 'request.stage', parts: null, totals: [total] } }] as const,
      ),
      ['lookAtBoard', { shape: { is: 'board', by: choice, lanes: null } }],
      ['lookAtBoard', { shape: { is: 'board', by: 'request.stage', lanes: choice } }],
      ...([
        { is: 'calendar', from: date, to: null, lines: null },
        { is: 'calendar', from: 'request.arrived', to: date, lines: null },
        { is: 'calendar', from: 'request.arrived', to: null, lines: choice },
      ].map((shape) => ['lookAtCalendar', { shape, first: '2026-11-23', last: '2026-12-06' }]) as never[]),
    ];
    const gone = JSON.parse(
      JSON.stringify(asked('instituta', 'arrivel')).replaceAll('"fee"', '"fea"').replaceAll('fee >', 'fea >'),
    ) as ReturnType<typeof asked>;
    for (const [at, [call, more]] of asked('institute', 'arrival').entries()) {
      const body = { view: view({}), ...more };
      const answer = ok(await ilse.call(call, { body }));
      const absent = ok(await ilse.call(call, { body: { view: view({}), ...gone[at]?.[1] } }));
      const alike = (text: string): string =>
        text
          .replaceAll('institute', 'instituta')
          .replaceAll('arrival', 'arrivel')
          .replaceAll('"fee"', '"fea"')
          .replaceAll('“fee”', '“fea”');
      expect(answer.findings).not.toEqual([]);
      expect(alike(JSON.stringify(answer))).toBe(JSON.stringify(absent));
    }
    desk.protect('site-access', before);
  });
});

describe('what takes time', () => {
  it('is measured by the hour, in totals and in a spreadsheet', async () => {
    const { who: maren } = readers.get('Maren Okafor') as Reader;
    const methods = view({ of: ['methods'], columns: ['name', 'bench', 'price'].map((of) => ({ of })) });
    const shape = {
      ...{ is: 'totals' as const, by: 'request.stage', each: 'month' as const, parts: null },
      totals: [{ is: 'rate' as const, of: 'price', per: 'bench' }],
    };
    const { lines } = ok(await maren.call('lookAtTotals', { body: { view: methods, shape } }));
    // A quarter of an hour at 12, two thirds at 38, and a quarter at 9, in cents.
    expect(lines.at(-1).totals[0].figure).toBeCloseTo(5_900 / (70 / 60), 6);
    expect(lines.at(-1).totals[0].said).toBe('€50.57');
    const made = await maren.call('takeOutView', { body: { view: methods, as: 'xlsx' } });
    const [heads, ...rows] = JSON.parse(made.text);
    expect(heads.map(({ is }: { is: string }) => is)).toEqual(['text', 'duration', 'money']);
    const times = rows.map(([, , hours, price]: readonly unknown[]) => [hours, price]);
    expect(times.toSorted(([a]: [number], [b]: [number]) => a - b)).toEqual([
      ...[
        [0.25, expect.any(Number)],
        [0.25, expect.any(Number)],
        [40 / 60, 38],
      ],
    ]);
  });
});

describe('a small picture', () => {
  it('is sent to whoever may read its field, and is nothing to anybody else', async () => {
    const { who: maren } = readers.get('Maren Okafor') as Reader;
    const body = { view: view({ of: ['kit'], columns: [{ of: 'name' }] }), picture: 'photo' };
    const { rows } = ok(await maren.call('lookThrough', { body }));
    const pictured = rows.find(({ picture }: { picture: string | null }) => picture !== null);
    const none = rows.find(({ picture }: { picture: string | null }) => picture === null);
    expect([typeof pictured?.picture, none?.picture]).toEqual(['string', null]);
    const small = (who: Caller, number: string) =>
      fetch(`${desk.running.url}/api/requests/${number}/files/${pictured?.picture}/small`, {
        headers: { cookie: who.cookie },
      });
    const sent = await small(maren, pictured?.number ?? '');
    expect([sent.status, sent.headers.get('content-type')]).toEqual([200, 'image/webp']);
    expect((await sent.arrayBuffer()).byteLength).toBeGreaterThan(500);
    const before = desk.register('kit').access;
    const rule = {
      ...{ id: 'hides-photo', name: 'Photo', fields: ['photo'], level: 'hidden' as const },
      audience: { in: { everyone: true as const }, outOf: [] },
    };
    desk.protect('kit', { ...before, rules: [rule, ...before.rules] });
    const hidden = ok(await maren.call('lookThrough', { body }));
    expect(hidden.rows.map(({ picture }: { picture: string | null }) => picture)).toEqual(rows.map(() => null));
    expect((await small(maren, pictured?.number ?? '')).status).toBe(404);
    desk.protect('kit', before);
    // It belongs to one thing, and is not at another.
    expect((await small(maren, none?.number ?? '')).status).toBe(404);
  });
});

describe('a view that is taken out', () => {
  const out = (who: Caller, part: object, as: 'csv' | 'json' | 'xlsx'): Promise<Answer> =>
    who.call('takeOutView', { body: { view: view(part), as } });

  it('has the rows of all its pages in their order, with its columns as they may be read', async () => {
    const { who: maren } = readers.get('Maren Okafor') as Reader;
    const part = {
      ...{ columns: ['request.number', 'visitor', 'arrival', 'escort'].map((of) => ({ of })) },
      ...{ groups: ['request.stage'], orders: [{ of: 'arrival', down: false }] },
      shapes: [{ is: 'calendar', from: 'arrival', to: 'departure', lines: null }],
    };
    const page = await looked(maren, part, { most: 200 });
    expect(page.next).toBeNull();
    const csv = await out(maren, part, 'csv');
    const lines = Papa.parse<string[]>(csv.text.replace(/^\uFEFF/, ''), { skipEmptyLines: true }).data;
    expect(lines[0]).toEqual(['Number', 'Visitor', 'Arrival', 'Escort']);
    expect(lines.slice(1).map(([number]) => number)).toEqual(page.rows.map(({ number }: { number: string }) => number));
    expect(lines.length).toBeGreaterThan(5);
    // Some of them, in the same order; what is not among them is not given.
    const [first, , third] = page.rows.map(({ number }: { number: string }) => number);
    const some = await maren.call('takeOutView', {
      body: { view: view(part), as: 'csv', only: [third, first, 'PU-00001', 'none'] },
    });
    const few = Papa.parse<string[]>(some.text.replace(/^\uFEFF/, ''), { skipEmptyLines: true }).data;
    expect(few).toEqual([lines[0], lines[1], lines[3]]);
    const held = JSON.parse((await out(maren, part, 'json')).text) as readonly Record<string, unknown>[];
    for (const { number, visitor, arrival, departure } of held) {
      const sheet = ok(await maren.call('sheet', { params: { number: String(number) } }));
      const read = new Map(
        sheet.values.fields.map(({ key, value }: { key: string; value: unknown }) => [key, value ?? null]),
      );
      expect([visitor, arrival, departure]).toEqual(['visitor', 'arrival', 'departure'].map((key) => read.get(key)));
    }
  });

  it('has for a spreadsheet what the plain texts say, each column of its kind, after the number of the row', async () => {
    const { who: maren } = readers.get('Maren Okafor') as Reader;
    const of = ['request.number', 'vessel', 'leaves', 'persons', 'cost', 'hours', 'request.arrived', 'crew'];
    const part = {
      of: ['vessel-time'],
      columns: of.map((each) => ({ of: each })),
      orders: [{ of: 'leaves', down: false }],
    };
    const { fields } = ok(await maren.call('nameable', { query: { of: 'vessel-time' } })) as {
      fields: readonly Field[];
    };
    const there = part.columns.filter(({ of: each }) => each.includes('.') || fields.some(({ key }) => key === each));
    const shown = { ...part, columns: there };
    const [heads, ...rows] = JSON.parse((await out(maren, shown, 'xlsx')).text) as [
      readonly { label: string; is: string }[],
      ...(readonly unknown[])[],
    ];
    const csv = await out(maren, shown, 'csv');
    const [labels, ...lines] = Papa.parse<string[]>(csv.text.replace(/^\uFEFF/, ''), { skipEmptyLines: true }).data;
    expect(heads.map(({ label }) => label)).toEqual(labels);
    expect(rows.map(([number]) => number)).toEqual(lines.map(([number]) => number));
    expect(rows.length).toBeGreaterThan(5);
    const kinds = new Map(heads.map(({ is }, at) => [is, at]));
    expect([...kinds.keys()].toSorted()).toEqual(['moment', 'money', 'number', 'text']);
    for (const [nth, [, ...cells]] of rows.entries())
      for (const [at, cell] of cells.entries()) {
        const [is, plain = ''] = [heads[at]?.is, lines[nth]?.[at]];
        const saying = `${labels?.[at]} of ${lines[nth]?.[0]}`;
        if (plain === '') expect(cell, saying).toBeNull();
        else if (is === 'text') expect(cell, saying).toBe(plain);
        else if (is === 'moment') expect(String(cell), saying).toMatch(/^\d{4}-\d\d-\d\dT\d\d:\d\d/);
        else expect(cell, saying).toBe(Number(plain));
      }
  });

  it('is nothing to who may take nothing out, or asks for what is not there for them', async () => {
    const { who: priya } = readers.get('Priya Nakamura-Lind') as Reader;
    const { who: maren } = readers.get('Maren Okafor') as Reader;
    expect((await out(priya, {}, 'csv')).status).toBe(403);
    const said = async (who: Caller): Promise<unknown> =>
      ok(await who.call('nameable', { query: { of: 'site-access' } })).exports;
    expect([await said(priya), await said(maren)]).toEqual([false, true]);
    const wrong = await out(maren, { columns: [{ of: 'nothing' }] }, 'csv');
    expect([wrong.status, wrong.body.problems.map(({ field }: { field: string }) => field)]).toEqual([
      422,
      ['columns'],
    ]);
    const inside = ok(await maren.call('views')).registers.map(({ key }: { key: string }) => key);
    for (const key of inside.filter((each: string) => desk.register(each).staysIn))
      expect((await out(maren, { of: [key] }, 'json')).status).toBe(403);
  });
});

describe('what is hidden', () => {
  it('is to whoever may not read it as what does not exist: as a column, a group, an order, a condition, a mark', async () => {
    const { who: priya } = readers.get('Priya Nakamura-Lind') as Reader;
    const { who: maren, reads } = readers.get('Maren Okafor') as Reader;
    const hidden = {
      ...{ id: 'hides-fee', name: 'Fee', fields: ['fee'], level: 'hidden' as const },
      audience: { in: { everyone: true as const }, outOf: [`@${desk.idOf('Maren Okafor')}`] },
    };
    const before = desk.register('site-access').access;
    desk.protect('site-access', { ...before, rules: [hidden, ...before.rules] });
    const ilse = await desk.as('Ilse Brandvold');
    const asked = (key: string): readonly object[] => [
      { columns: [{ of: key }] },
      { orders: [{ of: key, down: false }] },
      { when: `${key} != null` },
      { marks: [{ when: `${key} != null`, colour: 'sea', word: 'there' }] },
    ];
    for (const who of [ilse, priya]) {
      const { fields } = ok(await who.call('nameable', { query: { of: 'site-access' } }));
      expect(fields.map(({ key }: Field) => key)).not.toContain('fee');
      for (const [at, part] of asked('fee').entries()) {
        const answer = await looked(who, part);
        const absent = await looked(who, asked('fea')[at] as object);
        expect(answer.findings).not.toEqual([]);
        expect(JSON.stringify(answer).replaceAll('fee', 'fea'), JSON.stringify(part)).toBe(JSON.stringify(absent));
        expect([answer.rows, answer.total, answer.groups, answer.sums]).toEqual([[], 0, [], []]);
      }
    }
    const all = await looked(maren, { columns: [{ of: 'fee' }] });
    expect(all.findings).toEqual([]);
    expect(all.rows.length).toBe(Math.min(100, reads.filter(({ register }) => register === 'site-access').length));
    desk.protect('site-access', before);
  });
});

describe('what a request is due by', () => {
  it('where it hangs on a hidden field, is asked for by nobody who may not read that', async () => {
    const register = 'sample-analysis';
    const maren = await desk.as('Maren Okafor');
    const rights = { params: { subject: `@${desk.idOf('Oskar Veldhuis')}` }, body: { give: ['read:all'], take: [] } };
    ok(await (await desk.as('Ada Quillfeather')).call('changeRights', rights));
    const another = await desk.as('Oskar Veldhuis');
    const before = desk.register(register).access;
    const hidden = {
      ...{ id: 'hides-arrive', name: 'Samples', fields: ['arrive'], level: 'hidden' as const },
      audience: { in: { everyone: true as const }, outOf: [`@${desk.idOf('Maren Okafor')}`] },
    };
    const of = { of: [register] };
    const asked = [
      { ...of, groups: ['request.due'] },
      { ...of, orders: [{ of: 'request.due', down: false }] },
      { ...of, when: 'request.due != null' },
      { ...of, marks: [{ when: 'request.due != null', colour: 'sea', word: 'due' }] },
    ];
    const found = async (who: Caller): Promise<readonly number[]> => {
      const counts: number[] = [];
      for (const part of asked) counts.push((await looked(who, part)).findings.length);
      return counts;
    };
    expect(await found(another)).toEqual([0, 0, 0, 0]);
    desk.protect(register, { ...before, rules: [hidden, ...before.rules] });
    expect(ok(await another.call('nameable', { query: { of: register } })).closed).toEqual(['request.due']);
    expect(await found(another)).toEqual([1, 1, 1, 1]);
    expect(await found(maren)).toEqual([0, 0, 0, 0]);
    desk.protect(register, before);
  });
});

describe('registers of which somebody reads nothing', () => {
  it('are none to them: no view looks at one, and nothing of one can be named', async () => {
    const priya = await desk.as('Priya Nakamura-Lind');
    const { registers } = ok(await priya.call('views'));
    const all = ok(await (await desk.as('Maren Okafor')).call('views')).registers;
    const closed = all.filter(
      ({ key }: { key: string }) => !registers.some((each: { key: string }) => each.key === key),
    );
    expect(closed.length).toBeGreaterThan(0);
    for (const { key } of closed) {
      const { fields, stages } = ok(await priya.call('nameable', { query: { of: key } }));
      expect([fields, stages]).toEqual([[], []]);
      expect((await looked(priya, { of: [key] })).findings.map(({ at }: { at: string }) => at)).toContain('of');
    }
  });
});

describe('who finds a view', () => {
  // Those of the demo are not meant.
  const names = async (who: Caller): Promise<readonly string[]> =>
    ok(await who.call('views'))
      .views.map(({ name }: { name: string }) => name)
      .filter((name: string) => !VIEWS.some(({ view: { name: its } }) => its === name));
  const make = (who: Caller, part: object): Promise<Answer> =>
    who.call('makeView', { headers: freshly(), body: { view: view(part) } });

  it('is its owner, and those it is for; others are told that it does not exist', async () => {
    const [bram, ilse, priya] = await Promise.all(
      ['Bram Solheim', 'Ilse Brandvold', 'Priya Nakamura-Lind'].map((each) => desk.as(each)),
    );
    if (!bram || !ilse || !priya) throw new Error('nobody is there');
    const { id } = ok(await make(bram, { name: 'Mine' }));
    expect([await names(bram), await names(ilse)]).toEqual([['Mine'], []]);
    expect((await ilse.call('view', { params: { id } })).status).toBe(404);
    // What somebody has for themselves is theirs alone: whoever sets the register up changes it once it is shared.
    const maren = await desk.as('Maren Okafor');
    expect((await maren.call('view', { params: { id } })).status).toBe(404);
    const body = {
      view: view({ name: 'For two', audience: { in: { anyOf: [`@${desk.idOf('Ilse Brandvold')}`] }, outOf: [] } }),
    };
    const changing = { params: { id }, body };
    expect((await ilse.call('changeView', { ...changing, headers: onVersion(1) })).status).toBe(404);
    expect(ok(await bram.call('changeView', { ...changing, headers: onVersion(1) })).version).toBe(2);
    expect((await bram.call('changeView', { ...changing, headers: onVersion(1) })).status).toBe(412);
    expect([await names(ilse), await names(priya)]).toEqual([['For two'], []]);
    expect(ok(await maren.call('view', { params: { id } }))).toMatchObject({ mine: false, changes: true });
    // Whoever finds it looks through it, and changes it as little as they take it away.
    expect(ok(await ilse.call('view', { params: { id } }))).toMatchObject({
      by: 'Bram Solheim',
      mine: false,
      changes: false,
    });
    expect((await ilse.call('changeView', { ...changing, headers: onVersion(2) })).status).toBe(403);
    const removal = { params: { id }, body: { removed: true } };
    expect((await ilse.call('removeView', removal)).status).toBe(403);
    ok(await bram.call('removeView', removal));
    expect([await names(bram), await names(ilse)]).toEqual([[], []]);
    expect((await bram.call('view', { params: { id } })).status).toBe(404);
    ok(await bram.call('removeView', { params: { id }, body: { removed: false } }));
    expect([await names(bram), await names(ilse)]).toEqual([['For two'], ['For two']]);
  });

  it('are others than one’s own groups only where one sets the registers up', async () => {
    const [bram, maren, ilse] = await Promise.all(
      ['Bram Solheim', 'Maren Okafor', 'Ilse Brandvold'].map((each) => desk.as(each)),
    );
    if (!bram || !maren || !ilse) throw new Error('nobody is there');
    const everyone = { in: { everyone: true }, outOf: [] };
    const fieldsOf = ({ body }: Answer): readonly string[] =>
      (body.problems ?? []).map(({ field }: { field: string }) => field);
    expect(fieldsOf(await make(bram, { audience: everyone }))).toEqual(['audience']);
    expect(fieldsOf(await make(bram, { audience: { in: { anyOf: ['estates'] }, outOf: [] } }))).toEqual(['audience']);
    expect(fieldsOf(await make(bram, { audience: { in: { anyOf: [] }, outOf: [] } }))).toEqual(['audience']);
    ok(await make(bram, { name: 'Of Boats', audience: { in: { anyOf: ['boats'] }, outOf: [] } }));
    const { id } = ok(await make(maren, { name: 'Of all', audience: everyone }));
    expect(await names(ilse)).toContain('Of all');
    expect(await names(ilse)).not.toContain('Of Boats');
    ok(await maren.call('removeView', { params: { id }, body: { removed: true } }));
  });

  it('is, where somebody leaves, whoever takes over; and of two records, the one that stays', async () => {
    const maren = await desk.as('Maren Okafor');
    const idris = await desk.as('Oskar Veldhuis');
    const [from, to] = [desk.idOf('Oskar Veldhuis'), desk.idOf('Bram Solheim')];
    const audience = { in: { anyOf: [`@${to}`] }, outOf: [] };
    const { id } = ok(await make(idris, { name: 'Handed on', audience }));
    ok(await make(idris, { name: 'Alone' }));
    const bram = await desk.as('Bram Solheim');
    expect(ok(await bram.call('view', { params: { id } }))).toMatchObject({ mine: false, changes: false });
    ok(await maren.call('handOver', { params: { id: from }, body: { to } }));
    await desk.running.jobsDone();
    expect(ok(await bram.call('view', { params: { id } }))).toMatchObject({ by: 'Bram Solheim', mine: true });
    expect(await names(bram)).not.toContain('Alone');
  });

  it('is told field by field what keeps it from being saved', async () => {
    const maren = await desk.as('Maren Okafor');
    const wrong = await make(maren, {
      ...{ name: '', of: ['nowhere'], columns: [], groups: ['request.number'], when: 'fee >' },
      marks: [{ when: 'true', colour: 'sea', word: '' }],
    });
    expect(wrong.status).toBe(422);
    const fields = wrong.body.problems.map(({ field }: { field: string }) => field);
    expect([...new Set(fields)].toSorted()).toEqual(['columns', 'groups', 'marks 0', 'name', 'of', 'when']);
  });
});

describe('a view of several registers', () => {
  it('has the fields that all of them share, and shows the rows of each', async () => {
    const { who: maren, reads } = readers.get('Maren Okafor') as Reader;
    const of = ['site-access', 'purchase'];
    const { fields } = ok(await maren.call('nameable', { query: { of: of.join(',') } }));
    expect(fields).toEqual([]);
    const answer = await looked(
      maren,
      { of, groups: ['request.form'], columns: [{ of: 'request.subject' }] },
      { most: 200 },
    );
    const expected = reads.filter(({ register }) => of.includes(register));
    expect(answer.total).toBe(expected.length);
    const counts = of.map((key) => expected.filter(({ register }) => register === key).length);
    expect(answer.groups.map(({ count: n }: { count: number }) => n).toSorted()).toEqual(counts.toSorted());
    const { fields: boats } = ok(await maren.call('nameable', { query: { of: 'purchase,vessel-time' } }));
    expect(boats.map(({ key }: Field) => key)).toEqual(['purpose']);
  });
});
