import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import {
  compareContents,
  type DesignKind,
  designFile,
  fromDesignFile,
  type MergeRules,
  mergeContents,
} from '@tolvek/core/design';
import { english } from '@tolvek/words/english';
import { afterAll, describe, expect, it } from 'vitest';
import { z } from 'zod';
import { openDatabase, type Transaction } from '../platform/database.ts';
import {
  changeAtOnce,
  dropFrozen,
  freezeDraft,
  goBackTo,
  keepDraft,
  makeDesign,
  makeInForce,
  putInForce,
} from './commands.ts';
import { type DesignRow, designByKey, designsOf, draftHistoryOf, referringTo, stateOf, statesOf } from './queries.ts';

/**
 * A kind of design made for this test alone: all it says is its own. Everything below it is what
 * any kind gets for that.
 */
const card = z.strictObject({
  title: z.string(),
  steps: z.array(z.strictObject({ id: z.string(), says: z.string(), ware: z.string() })).readonly(),
});
type Card = z.infer<typeof card>;
const rules: MergeRules = {
  lists: { steps: (item) => String(item.id) },
  nameOf: ([list, id, setting]) =>
    list === 'steps' ? `step ${id}${setting ? ` (${setting})` : ''}` : `the ${list ?? 'card'}`,
};
const CARD: DesignKind<Card> = {
  kind: 'card',
  titleOf: (content) => content.title,
  compare: (before, after) => compareContents(before, after, rules),
  merge: (base, mine, theirs) => mergeContents(base, mine, theirs, rules),
  findings: ({ steps }) =>
    steps.length === 0 ? [{ severity: 'error', page: 'steps', at: 'steps', message: 'There is no step.' }] : [],
  refersTo: ({ steps }) => steps.map(({ ware, says }) => ({ kind: 'ware', key: ware, at: says })),
};

const folder = mkdtempSync(join(tmpdir(), 'tolvek-design-'));
const db = openDatabase(folder);
afterAll(() => {
  db.$client.close();
  rmSync(folder, { recursive: true });
});

const MINUTE = 60_000;
const by = (personId: string, minute: number) => ({ viewer: { personId }, now: minute * MINUTE });
const soup = (...steps: readonly string[]): Card => ({
  title: 'Soup',
  steps: steps.map((ware) => ({ id: ware, says: `Add ${ware}`, ware })),
});
const write = <T>(work: (tx: Transaction) => T): T => db.transaction(work);
const at = (key: string): DesignRow<Card> => {
  const found = designByKey(db, CARD, key);
  if (!found) throw new Error(`There is a card ${key}.`);
  return found;
};
const keep = (key: string, content: Card, done: ReturnType<typeof by>, version = at(key).version): number =>
  write((tx) => keepDraft(tx, at(key), { version, content }, done));
const force = (key: string, note: string, done: ReturnType<typeof by>) =>
  write((tx) => putInForce(tx, at(key), { note, found: CARD.findings(at(key).draft, null) }, done));

describe('a kind of design that only says what is its own', () => {
  it('has a draft that is kept as one goes, on the version that was read', () => {
    write((tx) => makeDesign(tx, CARD, { key: 'soup', content: soup() }));
    expect(at('soup')).toMatchObject({ version: 1, number: 0, draft: soup() });
    expect(keep('soup', soup('kelp'), by('ada', 0))).toBe(2);
    expect(() => keep('soup', soup('salt'), by('bo', 1), 1)).toThrow(expect.objectContaining({ status: 412 }));
    expect(at('soup').draft).toEqual(soup('kelp'));
  });

  it('puts two people’s changes together, and names what both changed', () => {
    const theirs = { ...soup('kelp', 'barley'), title: 'Broth' };
    expect(CARD.merge(soup('kelp'), soup('kelp', 'salt'), theirs).content.steps.map((step) => step.id)).toEqual([
      'kelp',
      'salt',
      'barley',
    ]);
    expect(CARD.merge(soup(), { ...soup(), title: 'Stew' }, { ...soup(), title: 'Broth' }).clashes).toEqual([
      'the title',
    ]);
  });

  it('is in force under numbers, each with who, when and why', () => {
    force('soup', 'To begin with', by('ada', 2));
    keep('soup', soup('kelp', 'barley'), by('bo', 30));
    expect(force('soup', 'Richer', by('bo', 31))).toMatchObject({ number: 2, version: 5 });
    expect(
      statesOf<Card>(db, at('soup')).map(({ number, note, by: who, at: when }) => [number, note, who, when / MINUTE]),
    ).toEqual([
      [2, 'Richer', 'bo', 31],
      [1, 'To begin with', 'ada', 2],
    ]);
    expect(stateOf<Card>(db, at('soup'), 1)?.content).toEqual(soup('kelp'));
  });

  it('is not put in force with errors, and what is in force stays', () => {
    keep('soup', soup(), by('bo', 32));
    expect(() => force('soup', '', by('bo', 33))).toThrow(expect.objectContaining({ status: 422 }));
    expect(at('soup').number).toBe(2);
  });

  it('goes a step back, and back again', () => {
    write((tx) => goBackTo(tx, at('soup'), { version: at('soup').version, number: 1 }, by('ada', 60)));
    expect(at('soup').draft).toEqual(soup('kelp'));
    write((tx) => goBackTo(tx, at('soup'), { version: at('soup').version, number: 2 }, by('ada', 90)));
    expect(at('soup').draft).toEqual(soup('kelp', 'barley'));
    const never = () =>
      write((tx) => goBackTo(tx, at('soup'), { version: at('soup').version, number: 9 }, by('ada', 91)));
    expect(never).toThrow(expect.objectContaining({ status: 404 }));
  });

  it('has a history of its draft: a state for each stretch of work, with what it changed in words', async () => {
    const states = await draftHistoryOf(db, CARD, at('soup'));
    expect(
      english(states.map((state) => [state.by, state.at / MINUTE, state.changes.map((change) => change.words)])),
    ).toEqual([
      ['ada', 90, ['Step barley is new.']],
      ['ada', 60, ['Step kelp is new.']],
      ['bo', 32, ['Step kelp is removed.']],
      ['ada', 0, ['The card is new.']],
    ]);
  });

  it('says what refers to what', () => {
    write((tx) => makeDesign(tx, CARD, { key: 'stew', content: { ...soup('barley'), title: 'Stew' } }));
    expect(
      referringTo(db, CARD, { kind: 'ware', key: 'barley' }).map(({ title, at: where }) => [title, where]),
    ).toEqual([
      ['Soup', 'Add barley'],
      ['Stew', 'Add barley'],
    ]);
    expect(referringTo(db, CARD, { kind: 'ware', key: 'chalk' })).toEqual([]);
    expect(designsOf(db, CARD).map((each) => each.key)).toEqual(['soup', 'stew']);
  });

  it('is taken along as a file, and read back by its schema', () => {
    const file = JSON.parse(JSON.stringify(designFile(CARD, at('soup').draft)));
    expect(fromDesignFile(CARD, card, file)).toEqual({ content: at('soup').draft });
    expect(fromDesignFile(CARD, card, { ...file, content: { title: 7 } })).toHaveProperty('wrong');
  });

  it('can be in force at once, and tried as a draft that leaves nothing behind', () => {
    write((tx) => makeInForce(tx, CARD, { key: 'tea', content: soup('mint'), note: '' }, by('ada', 1)));
    const next = { version: 1, content: soup('mint', 'honey'), note: 'Sweeter' };
    expect(write((tx) => changeAtOnce(tx, at('tea'), next, by('bo', 2)))).toBe(2);
    expect([at('tea').number, stateOf<Card>(db, at('tea'), 2)?.note]).toEqual([2, 'Sweeter']);
    const frozen = () => write((tx) => freezeDraft(tx, at('tea'), 'Tried', by('ada', 3)));
    expect(frozen()).toBe(frozen());
    expect([statesOf(db, at('tea')).length, stateOf(db, at('tea'), -2)]).toEqual([
      2,
      expect.objectContaining({ note: 'Tried' }),
    ]);
    write((tx) => dropFrozen(tx, at('tea').id));
    expect(stateOf(db, at('tea'), -2)).toBe(undefined);
  });
});
