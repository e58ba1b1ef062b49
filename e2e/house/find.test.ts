import type { Field } from '@tolvek/core/register';
import { allRegisters } from '@tolvek/server';
import fc from 'fast-check';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { often as runs } from '../../core/laws/often.ts';
import { type Answer, type Caller, Desk, freshly, ok, onVersion } from './desk.ts';

// What somebody finds is what stands on the sheets that they read, gone through one after the other by hand.
let desk: Desk;
const PEOPLE = ['Maren Okafor', 'Ilse Brandvold', 'Bram Solheim', 'Oskar Veldhuis', 'Priya Nakamura-Lind'] as const;

interface Finder {
  readonly who: Caller;
  /** The words that stand on each sheet, by its number. */
  readonly reads: ReadonlyMap<string, ReadonlySet<string>>;
}
const finders = new Map<string, Finder>();
/** Every word that stands on a sheet of any of them. */
let vocabulary: readonly string[] = [];

/** Words of plain letters. */
const words = (text: unknown): readonly string[] =>
  String(text ?? '')
    .toLowerCase()
    .split(/[^\p{L}\p{N}]+/u);

const isWord = (word: string): boolean => /^[a-z]{3,}$/.test(word);

interface Known {
  readonly fields: ReadonlyMap<string, Field>;
  readonly terms: ReadonlyMap<string, string>;
}

/** What a value is called, where it is called something. */
function called({ type }: Pick<Field, 'type'>, value: unknown, shown: unknown, { terms }: Known): readonly unknown[] {
  const each = Array.isArray(value) ? value : [value];
  switch (type.kind) {
    case 'text':
    case 'long-text':
    case 'email':
    case 'phone':
    case 'link':
    case 'running-number':
      return each;
    case 'choice':
    case 'choices':
      return each.map((key) => type.options.find((option) => option.key === key)?.label ?? key);
    case 'level':
      return each.map((worth) => type.levels.find((level) => level.worth === worth)?.label);
    case 'term':
    case 'terms':
      return each.map((key) => terms.get(`${type.vocabulary}/${key}`));
    case 'person':
    case 'people':
      return [shown];
    case 'files':
      return each.map((ref) => String(ref).split('/').slice(1).join('/'));
    case 'line-items':
      return type.columns.flatMap((column) =>
        each.flatMap((row: Record<string, unknown>) =>
          row[column.key] === undefined ? [] : called(column, row[column.key], '', { fields: new Map(), terms }),
        ),
      );
    default:
      return [];
  }
}

async function everyNumber(who: Caller): Promise<readonly string[]> {
  const numbers = new Set<string>();
  for (const tray of ['all', 'things', 'shared'])
    for (let after: string | null = ''; after !== null; ) {
      const { rows, next }: Answer['body'] = ok(
        await who.call('ledger', { query: { tray, ...(after ? { after } : {}) } }),
      );
      for (const { number } of rows) numbers.add(number);
      after = next;
    }
  return [...numbers];
}

async function readAll(name: string): Promise<Finder> {
  const who = await desk.as(name);
  const registers = new Map<string, Known>();
  for (const { key, prefix } of allRegisters(desk.running.house.db)) {
    const answer = await who.call('nameable', { query: { of: key } });
    const { fields = [], vocabularies = [] } = answer.status === 200 ? answer.body : {};
    const terms = vocabularies.flatMap((each: { key: string; terms: { key: string; label: string }[] }) =>
      each.terms.map((term) => [`${each.key}/${term.key}`, term.label] as const),
    );
    registers.set(prefix, {
      fields: new Map(fields.map((field: Field) => [field.key, field])),
      terms: new Map(terms),
    });
  }
  const reads = new Map<string, ReadonlySet<string>>();
  for (const number of await everyNumber(who)) {
    const sheet = ok(await who.call('sheet', { params: { number } }));
    const known = registers.get(number.split('-')[0] ?? '') as Known;
    const told: unknown[] = [sheet.requester.name, sheet.onBehalf, sheet.handler?.name];
    for (const { key, value, shown } of sheet.values.fields) {
      const field = known.fields.get(key);
      if (field && value !== null) told.push(...called(field, value, shown, known));
    }
    for (const { comment } of sheet.history ?? [])
      if (comment) told.push(comment.text, ...comment.files.map((file: { name: string }) => file.name));
    reads.set(number, new Set(told.flatMap(words)));
  }
  return { who, reads };
}

const found = async (who: Caller, text: string): Promise<Answer['body']> =>
  ok(await who.call('find', { body: { text } }));
const exactly = ({ requests }: Answer['body']): readonly string[] =>
  requests.filter(({ nearly }: { nearly: boolean }) => !nearly).map(({ number }: { number: string }) => number);

beforeAll(async () => {
  desk = await Desk.open(70);
  const ilse = await desk.as('Ilse Brandvold');
  // Something is said to some of them, so that words stand there as well.
  for (const [at, number] of (await everyNumber(ilse)).slice(0, 12).entries()) {
    const { version } = await ilse.sheet(number);
    const text = `The ${['lantern', 'harpoon', 'sextant'][at % 3]} is left at the gate, number ${at}.`;
    const visibility = at % 2 === 0 ? 'internal' : 'requester';
    ok(
      await ilse.call('comment', {
        ...{ params: { number }, headers: { ...freshly(), ...onVersion(version) }, body: { text, visibility } },
      }),
    );
  }
  await desk.running.jobsDone();
  for (const name of PEOPLE) finders.set(name, await readAll(name));
  vocabulary = [
    ...new Set([...finders.values()].flatMap(({ reads }) => [...reads.values()].flatMap((each) => [...each]))),
  ].filter(isWord);
});
afterAll(() => desk.close());

describe('finding', () => {
  it('gives what stands on the sheets that somebody reads, by how words begin', async () => {
    const seen = new Map<string, number>();
    const saw = (what: string): void => void seen.set(what, (seen.get(what) ?? 0) + 1);
    // Any words, or such as stand together somewhere: for the finder or for somebody else.
    const together = [...finders.values()]
      .flatMap(({ reads }) => [...reads.values()])
      .map((each) => [...each].filter(isWord))
      .filter((each) => each.length > 0);
    const often = (word: string): number => together.filter((each) => each.includes(word)).length;
    const common = [...vocabulary].sort((a, b) => often(b) - often(a)).slice(0, 4);
    const sought = fc.record({
      name: fc.constantFrom(...PEOPLE),
      some: fc.oneof(fc.constant(vocabulary), fc.constantFrom(...together), fc.constant(common)).chain((among) =>
        fc.array(fc.record({ word: fc.constantFrom(...among), cut: fc.integer({ min: 3, max: 12 }) }), {
          ...{ minLength: 1, maxLength: 2 },
        }),
      ),
    });
    await fc.assert(
      fc.asyncProperty(sought, async ({ name, some }) => {
        const { who, reads } = finders.get(name) as Finder;
        const typed = some.map(({ word, cut }) => word.slice(0, cut));
        const holds = (each: ReadonlySet<string>): boolean =>
          typed.every((start) => [...each].some((word) => word.startsWith(start)));
        const expected = [...reads].flatMap(([number, each]) => (holds(each) ? [number] : []));
        const answer = await found(who, typed.join(' '));
        const numbers = exactly(answer);
        const saying = `${name}: ${typed.join(' ')}`;
        if (answer.more) {
          saw('more than are told');
          expect(expected.length, saying).toBeGreaterThan(numbers.length);
          expect(expected, saying).toEqual(expect.arrayContaining([...numbers]));
        } else expect([...numbers].sort(), saying).toEqual([...expected].sort());
        for (const { number, nearly, places } of answer.requests) {
          if (nearly) saw('what is nearly written so');
          for (const { is } of places) saw(`as ${is}`);
          expect(reads.has(number), saying).toBe(true);
        }
        // No word is told that stands only where it may not be read.
        for (const word of answer.words)
          expect(
            [...reads.values()].some((each) => [...each].some((other) => other.startsWith(word))),
            `${saying}: ${word}`,
          ).toBe(true);
        saw(expected.length === 0 ? 'nothing' : typed.length > 1 ? 'by two words' : 'by one word');
        const others = [...finders.values()].some((each) => [...each.reads.values()].some(holds));
        if (expected.length === 0 && others) saw('nothing, where another finds something');
      }),
      { numRuns: runs(400) },
    );
    console.info('Found:', Object.fromEntries([...seen].sort()));
    for (const what of [
      ...['as field', 'as message', 'as requester', 'as handler', 'nothing', 'by one word', 'by two words'],
      ...['nothing, where another finds something', 'what is nearly written so', 'more than are told'],
    ])
      expect(seen.get(what) ?? 0, what).toBeGreaterThan(0);
  });

  it('finds by numbers of requests, days and amounts, and what is nearly so after what is so', async () => {
    const maren = await desk.as('Maren Okafor');
    const ids = desk.things();
    const [[number = '', day = ''] = []] = [...(finders.get('Maren Okafor') as Finder).reads.keys()]
      .filter((each) => each.startsWith('VT-'))
      .map((each) => [each, '']);
    expect(ids.size).toBeGreaterThan(0);
    expect(day).toBe('');
    expect(exactly(await found(maren, number))).toContain(number);
    expect(exactly(await found(maren, number.toLowerCase().replace(/-0+/, '-')))).toContain(number);
    const { values } = await maren.sheet(number);
    const on = values.fields.find(({ value }: { value: unknown }) => /^\d{4}-\d\d-\d\d/.test(String(value)));
    const date = String(on.value).slice(0, 10);
    const [year = '', month = '', dayOf = ''] = date.split('-');
    const later = new Date(Date.parse(date) + 2 * 86_400_000).toISOString().slice(0, 10);
    for (const typed of [date, `${Number(dayOf)}.${Number(month)}.${year}`, `${dayOf}/${month}/${year}`])
      expect(exactly(await found(maren, typed)), typed).toContain(number);
    const beside = await found(maren, later);
    const place = beside.requests.findIndex((each: { number: string }) => each.number === number);
    // Enough may stand on that day itself; else those on days near it come after.
    if (exactly(beside).length < 5) expect(place).toBeGreaterThanOrEqual(0);
    const nearly = beside.requests.map((each: { nearly: boolean }) => each.nearly);
    expect(nearly).toEqual([...nearly].sort());
  });

  it('follows what happens: a changed answer, another handler, what is deleted', async () => {
    const ilse = await desk.as('Ilse Brandvold');
    const [number = ''] = exactly(await found(ilse, 'lantern'));
    const sheet = await ilse.sheet(number);
    const text = sheet.values.fields.find(
      ({ value, writable }: { value: unknown; writable: boolean }) =>
        writable && typeof value === 'string' && /^[A-Z][a-z]+ /.test(value),
    );
    ok(
      await ilse.call('changeFields', {
        ...{ params: { number }, headers: { ...freshly(), ...onVersion(sheet.version) } },
        body: { changes: { [text.key]: 'Crossing with the quadrant' } },
      }),
    );
    await desk.running.jobsDone();
    expect(exactly(await found(ilse, 'quadrant'))).toEqual([number]);
    expect(exactly(await found(ilse, 'quadrnat'))).toEqual([]);
    expect((await found(ilse, 'quadrnat')).requests.map((each: { number: string }) => each.number)).toContain(number);
  });
});
