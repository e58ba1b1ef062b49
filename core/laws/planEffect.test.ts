import fc from 'fast-check';
import { expect, test } from 'vitest';
import {
  type AccessLevel,
  type AccessRule,
  type Activity,
  type AskedAlike,
  gather,
  type Protection,
  type Protections,
  planEffect,
  type RequestReader,
  relationTo,
} from '../src/access/index.ts';
import { protectionOf } from '../src/form/index.ts';
import { FOR_EVERYONE, PACKAGES, type Right, type Viewer } from '../src/people/index.ts';
import type { Field } from '../src/register/index.ts';
import { anyPlaced, anyReaders, anyRules, CONDITIONS, type Look, PROFILES, slowLevel, slowReads } from './anyPlan.ts';
import { often } from './often.ts';

const PEOPLE = 20;
const REQUESTS = 500;
const GROUPS = ['g0', 'g1', 'g2', 'g3', 'g4'];
const FIELDS = Array.from({ length: 60 }, (_, n): Field => {
  const field = { key: `f${n}`, label: `F${n}`, type: { kind: 'text' } } as const;
  if (n === 58) return { ...field, source: 'computed', formula: 'f0 + f1' };
  return { ...field, source: n % 3 === 0 ? 'desk-only' : 'asked' };
});

const groups = fc.subarray(GROUPS, { maxLength: 3 });
const rules = anyRules(
  FIELDS.filter((_field, n) => n % 4 === 0).map(({ key }) => key),
  {
    most: 5,
    words: [...GROUPS, '@p3', '@p7', '~handler', '~decider', '~contact', ...PROFILES.map((each) => `?${each}`)],
  },
);
const placed = anyPlaced(FIELDS.filter((_field, n) => n % 5 < 2).map(({ key }) => key)).map(
  (some) => some && [...some, ...FIELDS.filter((_field, n) => n % 5 >= 2).map(({ key }) => key)],
);
const viewers = fc.array(
  fc.record({
    kind: fc.constantFrom('staff' as const, 'staff' as const, 'contact' as const),
    rights: fc.constantFrom<readonly Right[]>(FOR_EVERYONE, PACKAGES.coordinator, ['read:all'], []),
    groups,
    meets: fc.subarray(PROFILES),
  }),
  { minLength: PEOPLE, maxLength: PEOPLE },
);
const who = fc.nat({ max: PEOPLE + 5 }).map((n) => `p${n}`);
const requests = fc.array(
  fc.record({
    sort: fc.record({
      release: fc.constantFrom('one', 'two'),
      stage: fc.constantFrom('deciding', 'done', 'elsewhere'),
      holding: fc.subarray(CONDITIONS),
    }),
    requesterId: fc.option(who),
    handlerId: fc.option(who),
    team: fc.option(fc.constantFrom(...GROUPS)),
    onBehalfId: fc.option(who, { freq: 3 }),
    enteredById: fc.option(who, { freq: 3 }),
    followers: fc.uniqueArray(who, { maxLength: 3 }),
    deciders: fc.array(
      fc.oneof(
        fc.constantFrom(...GROUPS),
        who.map((id) => `@${id}`),
      ),
      { maxLength: 2 },
    ),
  }),
  { minLength: REQUESTS, maxLength: REQUESTS },
);

/** What of a request rules hang on, and the release it came by. */
interface Sort {
  readonly release: string;
  readonly stage: string;
  readonly holding: string[];
}
const DAY = '2026-03-02';

/** What of a plan decides, as far as it is looked at here. */
interface By {
  readonly rules: readonly AccessRule[];
  readonly placed: readonly string[] | undefined;
  readonly readers: readonly RequestReader[];
}

const plans: fc.Arbitrary<By> = fc.record({ rules, placed, readers: anyReaders([...GROUPS, '@p3']) });

function* changed(
  before: By,
  after: By,
  fields: readonly Field[],
  look: Omit<Look, 'activity'>,
  onlyReads: boolean,
): Iterable<string> {
  for (const field of fields) {
    const level = (by: By, activity: Activity): AccessLevel => {
      const along = !look.isDesk && slowReads(by.readers, { ...look, activity });
      const seen = { ...look, activity, isDesk: look.isDesk || along };
      const own = slowLevel(by.rules, field, seen, undefined, by.placed);
      const from = field.source === 'computed' ? ['f0', 'f1'] : [];
      const isClosed = FIELDS.some(
        (each) => from.includes(each.key) && slowLevel(by.rules, each, seen, undefined, by.placed) === 'hidden',
      );
      if (own === 'hidden' || isClosed) return 'hidden';
      return onlyReads || along || field.source === 'computed' ? 'read' : own;
    };
    const working = [level(before, 'working'), level(after, 'working')];
    for (const activity of ['working', 'browsing', 'taking-out'] as const) {
      const [had, has] = [level(before, activity), level(after, activity)];
      const isSame = activity !== 'working' && had === working[0] && has === working[1];
      if (had !== has && !isSame) yield `${activity} ${field.key} ${had} ${has}`;
    }
  }
}

test('what a plan would change is what each request says for each person, read one by one', () => {
  const counts = { changes: 0, people: 0, nobody: 0, working: 0, browsing: 0, 'taking-out': 0 };
  fc.assert(
    fc.property(plans, plans, viewers, requests, (before, after, made, asked) => {
      const people = made.map((each, n): Viewer => ({ ...each, personId: `p${n}` }));
      // What came by one release has all fields, by the other only half of them.
      const fields = (release: string) => (release === 'one' ? FIELDS : FIELDS.slice(0, 30));
      const known = new Map(
        ['one', 'two'].map((release) => [
          release,
          [before, after].map(({ rules: made, placed: those, readers }) =>
            protectionOf(
              { rules: made, readers, ...(those ? { placed: those } : {}) },
              { fields: fields(release), release: null },
            ),
          ),
        ]),
      );
      const of = (sort: string): Protections => {
        const { release, stage, holding } = JSON.parse(sort) as Sort;
        const [then, now] = known.get(release) as [Protection, Protection];
        const at = { stage, day: DAY, holds: (condition: string) => holding.includes(condition) };
        return { before: then, after: now, at };
      };
      const all = asked.map((each): AskedAlike => ({ ...each, sort: JSON.stringify(each.sort), n: 1 }));
      const told = planEffect(
        people.map((viewer) => ({ ...viewer, viewer: () => viewer })),
        gather({ register: 'r', deskGroups: ['g4'] }, all, true),
        of,
      );
      for (const viewer of people) {
        const wanted = new Map<string, number>();
        const read = new Map<string, readonly string[]>();
        // What somebody is to it besides counts where a rule names it.
        const words = JSON.stringify([before, after]);
        for (const request of all) {
          const relation = relationTo({ ...request, register: 'r', deskGroups: ['g4'] }, { ...viewer });
          const { release, stage, holding } = JSON.parse(request.sort) as Sort;
          const { isDesk, isRequester, onlyReads, as = [], calledIn = false } = relation;
          const isAsked = request.deciders.some(
            (word) => word === `@${viewer.personId}` || viewer.groups.includes(word),
          );
          expect(calledIn).toBe(
            viewer.kind === 'contact' && !isRequester && (isAsked || request.handlerId === viewer.personId),
          );
          // Whose it is, and what else they are to it, said by hand.
          expect([isRequester, as.includes('behalf'), as.includes('entered'), as.includes('follower')]).toEqual([
            [request.requesterId, request.onBehalfId].includes(viewer.personId),
            request.onBehalfId === viewer.personId,
            request.enteredById === viewer.personId,
            request.followers.includes(viewer.personId),
          ]);
          const builds = isDesk && viewer.rights.includes('configure');
          const look = { ...viewer, isDesk, isRequester, as, stage, day: DAY, holding, builds, calledIn };
          // What is read of one request is read of those that are like it.
          const told = as.filter((each) => words.includes(`"~${each}"`));
          const like = JSON.stringify([request.sort, { ...relation, as: told }]);
          const changes = read.get(like) ?? [...changed(before, after, fields(release), look, onlyReads ?? false)];
          read.set(like, changes);
          for (const key of changes) {
            wanted.set(key, (wanted.get(key) ?? 0) + 1);
            counts[key.split(' ')[0] as 'working'] += 1;
          }
        }
        const found = told.find(({ personId }) => personId === viewer.personId)?.changes ?? [];
        expect([
          viewer.personId,
          found
            .filter(({ activity }) => activity !== 'letters' && activity !== 'searching')
            .map(({ activity, field, before: had, after: has, requests: n }) => [
              `${activity} ${field.key} ${had} ${has}`,
              n,
            ])
            .sort(),
        ]).toEqual([viewer.personId, [...wanted].sort()]);
        counts.changes += wanted.size;
        counts[wanted.size > 0 ? 'people' : 'nobody'] += 1;
      }
    }),
    { numRuns: often(15) },
  );
  console.log('what plans would change:', counts);
  expect(Math.min(...Object.values(counts))).toBeGreaterThan(1);
});
