import fc from 'fast-check';
import { expect, it } from 'vitest';
import { calledApart, type KnownRecord, type Match, nameCompared, prepareMatching, toldApart } from './match.ts';

const NAMES = ['Ada Quill', 'ADA  QUILL', 'Bo Lind', 'Bo Línd', 'Cass O’Hara', 'Cass O Hara'];
const ADDRESSES = ['a@x.example', 'b@x.example', 'c@x.example', 'd@x.example', 'e@x.example'];

const known = fc
  .array(
    fc.record({
      kind: fc.constantFrom('staff' as const, 'contact' as const),
      name: fc.constantFrom(...NAMES),
      active: fc.boolean(),
      addresses: fc.subarray(ADDRESSES, { maxLength: 2 }),
    }),
    { maxLength: 6 },
  )
  .map((all) => {
    const had = new Set<string>();
    // An address finds one person.
    return all.map((each, place): KnownRecord => {
      const addresses = each.addresses.filter((address) => !had.has(address));
      for (const address of addresses) had.add(address);
      return { ...each, id: `p${place}`, addresses };
    });
  });
const rows = fc.array(
  fc.record({
    name: fc.constantFrom(...NAMES, ' ', 'Somebody New'),
    email: fc.constantFrom(...ADDRESSES, ' A@X.example ', '', 'new@x.example'),
  }),
  { maxLength: 8 },
);

/** Letters of a name alone, in small ones without their marks. */
const letters = (name: string): string =>
  [...name.toLowerCase()]
    .map((sign) => sign.normalize('NFD')[0] ?? '')
    .filter((sign) => /[a-z]/.test(sign))
    .join('');

/** The same question answered by looking through everybody for every row. */
function slowly(
  all: readonly KnownRecord[],
  row: { name: string; email: string },
  kind: KnownRecord['kind'],
  before: readonly { name: string; email: string; match: Match }[],
): string {
  const email = row.email.trim().toLowerCase();
  const same = all.filter((each) => each.kind === kind && letters(each.name) === letters(row.name));
  const holders = all.filter((each) => each.addresses.some((address) => address === email));
  const meansOne = (each: KnownRecord): string => {
    if (each.kind !== kind) return `other-kind ${each.id}`;
    if (before.some(({ match }) => match.is === 'known' && match.person === each.id)) return 'twice';
    return each.active ? `known ${each.id}` : `inactive ${each.id}`;
  };
  if (letters(row.name) === '') return 'no-name';
  // A row without a name is not counted as one that was there.
  if (email && before.some((each) => each.email.trim().toLowerCase() === email && letters(each.name) !== ''))
    return 'twice';
  for (const holder of holders) {
    if (letters(holder.name) === letters(row.name)) return meansOne(holder);
    const others = same.filter(({ active }) => active);
    return others.length === 0 ? `other-name ${holder.id}` : `several ${[holder, ...others].map(({ id }) => id)}`;
  }
  if (same.length > 1) return `several ${same.map(({ id }) => id)}`;
  for (const each of same) return email ? `other-address ${each.id}` : meansOne(each);
  return email ? 'new' : 'no-address';
}

const inWords = (match: Match): string => {
  if (match.is === 'known') return `known ${match.person}`;
  if (match.is === 'doubtful') return `${match.why} ${match.candidates}`;
  return match.is === 'wrong' ? match.why : 'new';
};

it('says whom rows mean as a slow reading of everybody does', () => {
  const seen: Record<string, number> = {};
  fc.assert(
    fc.property(known, rows, fc.constantFrom('staff' as const, 'contact' as const), (all, asked, kind) => {
      const match = prepareMatching(all, kind);
      const before: { name: string; email: string; match: Match }[] = [];
      for (const row of asked) {
        const found = match(row);
        const wanted = slowly(all, row, kind, before);
        expect([row, inWords(found)]).toEqual([row, wanted]);
        before.push({ ...row, match: found });
        const what = wanted.split(' ')[0] ?? '';
        seen[what] = (seen[what] ?? 0) + 1;
      }
    }),
    { numRuns: 3_000 },
  );
  console.log('rows of files', seen);
  const ways = [
    'known',
    'new',
    'other-address',
    'other-name',
    'several',
    'other-kind',
    'inactive',
    'twice',
    'no-name',
    'no-address',
  ];
  for (const way of ways) expect([way, (seen[way] ?? 0) > 20]).toEqual([way, true]);
});

it('tells namesakes apart by their addresses, and nobody else', () => {
  const all = ['Sam Alike', 'Bo Lind', 'SAM ALIKE'].map((name, place) => ({ name, email: `${place}@x.example` }));
  expect(toldApart(all).map(calledApart)).toEqual(['Sam Alike (0@x.example)', 'Bo Lind', 'SAM ALIKE (2@x.example)']);
});

it('compares names without their marks, signs and spaces', () => {
  expect(nameCompared('  Zoë  O’Hara-Löwe ')).toBe('zoe o hara lowe');
});
