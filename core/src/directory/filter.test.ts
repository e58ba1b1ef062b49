import fc from 'fast-check';
import { expect, it } from 'vitest';
import { ENTERPRISE, type Resource, readFilter, USER } from './index.ts';
import { DirectoryRefusal } from './refusal.ts';

const USER_ID = USER.schema.id;

/** A filter as it is meant: what it is written as, and the slow reading of it, share nothing. */
type Meant =
  | {
      readonly is: 'compare';
      readonly path: readonly string[];
      readonly op: string;
      readonly value: string | boolean | null;
    }
  | { readonly is: 'present'; readonly path: readonly string[] }
  | { readonly is: 'some'; readonly of: string; readonly meant: Meant }
  | { readonly is: 'not'; readonly meant: Meant }
  | { readonly is: 'and' | 'or'; readonly all: readonly Meant[] };

const WORDS = ['a', 'A', 'ab', 'b', 'B', '', 'é', 'a "b"', 'a\\b', 'or (x]', '3', 'true'] as const;
const word = fc.constantFrom(...WORDS);

const texts: readonly (readonly string[])[] = [
  ['userName'],
  ['externalId'],
  ['displayName'],
  ['name', 'familyName'],
  ['emails', 'value'],
  ['emails', 'type'],
  ['emails'],
  [ENTERPRISE, 'department'],
  [ENTERPRISE, 'manager', 'value'],
];
const compare: fc.Arbitrary<Meant> = fc.oneof(
  fc.record({
    is: fc.constant('compare' as const),
    path: fc.constantFrom(...texts),
    op: fc.constantFrom('eq', 'ne', 'co', 'sw', 'ew', 'gt', 'ge', 'lt', 'le'),
    value: word,
  }),
  fc.record({
    is: fc.constant('compare' as const),
    path: fc.constantFrom(['active'], ['emails', 'primary']),
    op: fc.constantFrom('eq', 'ne'),
    value: fc.boolean(),
  }),
  fc.record({
    is: fc.constant('compare' as const),
    path: fc.constantFrom(...texts.filter((path) => path.join() !== 'emails')),
    op: fc.constantFrom('eq', 'ne'),
    value: fc.constant(null),
  }),
);
const present: fc.Arbitrary<Meant> = fc.record({
  is: fc.constant('present' as const),
  path: fc.constantFrom(...texts, ['name'], ['active'], [ENTERPRISE, 'manager']),
});
const part = fc.oneof(
  fc.record({
    is: fc.constant('compare' as const),
    path: fc.constantFrom(['value'], ['type']),
    op: fc.constantFrom('eq', 'ne', 'co', 'sw', 'ew', 'gt', 'le'),
    value: word,
  }),
  fc.record({
    is: fc.constant('compare' as const),
    path: fc.constant(['primary']),
    op: fc.constant('eq'),
    value: fc.boolean(),
  }),
);
const joined = <T extends Meant>(of: fc.Arbitrary<Meant>): fc.Arbitrary<Meant> =>
  fc.oneof(
    of,
    fc.record({ is: fc.constant('not' as const), meant: of }),
    fc.record({
      is: fc.constantFrom('and' as const, 'or' as const),
      all: fc.array(of, { minLength: 2, maxLength: 3 }),
    }),
  ) as fc.Arbitrary<T>;
const meant: fc.Arbitrary<Meant> = joined(
  joined(
    fc.oneof(
      compare,
      present,
      fc.record({ is: fc.constant('some' as const), of: fc.constant('emails'), meant: joined(part) }),
    ),
  ),
);

const email = fc.record(
  { value: word, type: fc.constantFrom('work', 'home', 'a'), primary: fc.boolean() },
  { requiredKeys: [] },
);
const someone: fc.Arbitrary<Resource> = fc.record(
  {
    ...{ userName: word, externalId: word, displayName: word, active: fc.boolean() },
    name: fc.record({ familyName: word }, { requiredKeys: [] }),
    emails: fc.array(email, { maxLength: 3 }),
    [ENTERPRISE]: fc.record({ department: word, manager: fc.record({ value: word }) }, { requiredKeys: [] }),
  },
  { requiredKeys: ['userName'] },
) as fc.Arbitrary<Resource>;

/** Writes a filter as RFC 7644 has it; `turn` chooses between ways of writing the same. */
function written(each: Meant, turn: (ways: number) => number, inside = false): string {
  const nested = (one: Meant): string => written(one, turn, inside);
  switch (each.is) {
    case 'compare':
    case 'present': {
      const [first = '', ...rest] = each.path;
      const isUrn = first.startsWith('urn:');
      const plain = isUrn ? `${first}:${rest.join('.')}` : each.path.join('.');
      const named = isUrn || inside || turn(2) === 0 ? plain : `${USER_ID}:${plain}`;
      const path = turn(2) === 0 ? named : named.toUpperCase();
      if (each.is === 'present') return `${path} ${['pr', 'PR'][turn(2)]}`;
      const op = turn(2) === 0 ? each.op : each.op.toUpperCase();
      const value = JSON.stringify(each.value);
      return `${path} ${op} ${turn(2) === 0 ? value : value.replace('é', '\\u00e9')}`;
    }
    case 'some':
      return `${each.of}[${written(each.meant, turn, true)}]`;
    case 'not':
      return `${['not', 'NOT'][turn(2)]} (${nested(each.meant)})`;
    default:
      return each.all
        .map((one) => (one.is === 'compare' || one.is === 'present' ? nested(one) : `(${nested(one)})`))
        .join(` ${each.is} `);
  }
}

/** All that stands at a path, read by steps. */
const at = (holder: unknown, path: readonly string[]): readonly unknown[] => {
  const [name, ...rest] = path;
  if (name === undefined) return holder === undefined || holder === null ? [] : [holder];
  if (Array.isArray(holder)) return holder.flatMap((each) => at(each, path));
  const found = (holder as Record<string, unknown> | undefined)?.[name];
  return Array.isArray(found) ? found.flatMap((each) => at(each, rest)) : at(found, rest);
};
const EXACT = new Set(['externalId']);
const fold = (value: unknown, path: readonly string[]): unknown =>
  typeof value === 'string' && !EXACT.has(path.at(-1) ?? '') ? value.toLowerCase() : value;
const said = (value: unknown): boolean =>
  typeof value === 'object' && value !== null ? Object.values(value).some(said) : value !== undefined && value !== '';

/** The slow reading: one value after the other, by what the standard says of each operator. */
function isTrue(each: Meant, of: unknown, note: (each: Meant, is: boolean) => void): boolean {
  const is = isTrueOf(each, of, (one, at) => isTrue(one, at, note));
  note(each, is);
  return is;
}

function isTrueOf(each: Meant, of: unknown, isTrue: (each: Meant, of: unknown) => boolean): boolean {
  if (each.is === 'not') return !isTrue(each.meant, of);
  if ('all' in each)
    return each.is === 'and' ? each.all.every((one) => isTrue(one, of)) : each.all.some((one) => isTrue(one, of));
  if (each.is === 'some') return at(of, [each.of]).some((one) => isTrue(each.meant, one));
  const whole = each.path.join() === 'emails' && each.is === 'compare' ? ['emails', 'value'] : each.path;
  const values = at(of, whole);
  if (each.is === 'present') return values.some(said);
  if (each.value === null) return values.some(said) === (each.op === 'ne');
  const wanted = fold(each.value, whole);
  const holds = (test: (value: string, with_: string) => boolean): boolean =>
    values.some((value) => typeof value === 'string' && test(String(fold(value, whole)), String(wanted)));
  switch (each.op) {
    case 'eq':
      return values.some((value) => fold(value, whole) === wanted);
    case 'ne':
      return !values.some((value) => fold(value, whole) === wanted);
    case 'co':
      return holds((value, with_) => value.split(with_).length > 1 || with_ === '');
    case 'sw':
      return holds((value, with_) => value.slice(0, with_.length) === with_);
    case 'ew':
      return holds((value, with_) => with_ === '' || value.slice(-with_.length) === with_);
    case 'gt':
      return holds((value, with_) => value > with_);
    case 'ge':
      return holds((value, with_) => value >= with_);
    case 'lt':
      return holds((value, with_) => value < with_);
    default:
      return holds((value, with_) => value <= with_);
  }
}

it('a filter matches whom its meaning says, however it is written', () => {
  const seen = new Map<string, [yes: number, no: number]>();
  const note = (each: Meant, is: boolean): void => {
    const name = each.is === 'compare' ? each.op : each.is;
    const counts = seen.get(name) ?? [0, 0];
    counts[is ? 0 : 1] += 1;
    seen.set(name, counts);
  };
  fc.assert(
    fc.property(
      meant,
      fc.array(someone, { minLength: 4, maxLength: 8 }),
      fc.infiniteStream(fc.nat(7)),
      (filter, people, turns) => {
        const turn = (ways: number): number => (turns.next().value ?? 0) % ways;
        const text = written(filter, turn);
        const { matches, certain } = readFilter(USER, text);
        for (const person of people) {
          const is = isTrue(filter, person, note);
          expect([text, person, matches(person)]).toEqual([text, person, is]);
          // What is looked up by finds everybody who matches.
          const name = certain.get('username');
          if (is && name !== undefined) expect(String(person.userName).toLowerCase()).toBe(name.toLowerCase());
        }
      },
    ),
    { numRuns: 3_000 },
  );
  console.log('filters that match, and that do not', Object.fromEntries([...seen].sort()));
  const all = ['eq', 'ne', 'co', 'sw', 'ew', 'gt', 'ge', 'lt', 'le', 'present', 'some', 'not', 'and', 'or'];
  expect(all.filter((name) => Math.min(...(seen.get(name) ?? [0])) === 0)).toEqual([]);
});

it('what is no filter, or asks what has no answer, is refused', () => {
  const refused = (text: string): string | null => {
    try {
      readFilter(USER, text);
      return null;
    } catch (error) {
      if (!(error instanceof DirectoryRefusal)) throw error;
      return error.scimType;
    }
  };
  for (const text of [
    ...['', 'userName', 'userName eq', 'userName eq x', 'userName zz "x"', '(userName pr', 'userName pr)', 'eq "x"'],
    ...['colour eq "red"', 'name.colour pr', 'name eq "x"', 'active co "x"', 'active gt true', 'userName eq 3'],
    ...['title[value eq "x"]', 'emails[colour eq "x"]', 'emails[value eq "x"', '__proto__ pr', 'name.constructor pr'],
    ...['userName eq "x" and', 'not userName', 'emails.value.more eq "x"', `urn:other:${USER_ID}:userName pr`],
  ])
    expect([text, refused(text)]).toEqual([text, 'invalidFilter']);
});
