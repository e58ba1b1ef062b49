import fc from 'fast-check';
import type {
  AccessLevel,
  AccessRule,
  Activity,
  BaseLevels,
  Relation,
  RequestReader,
  RuleException,
} from '../src/access/index.ts';
import type { Audience, Right, Viewer } from '../src/people/index.ts';
import type { Field, PartyRelation } from '../src/register/index.ts';

export const GROUPS = ['x', 'y', 'z'];
const STAGES = ['deciding', 'done'];
export const CONDITIONS = ['a = "1"', 'today > date("2026-01-01")'];
const DAYS = ['2026-03-01', '2026-03-02', '2026-03-05'];
const DOING: readonly Activity[] = ['working', 'browsing', 'searching', 'taking-out', 'letters'];
const AS: readonly PartyRelation[] = ['handler', 'team', 'decider', 'entered', 'behalf', 'follower'];
const PEOPLE = ['p1', 'p2'];
/** Conditions on profiles that audiences name. */
export const PROFILES = ['me.site = "pier"', 'me.badge'];
/** Rights that audiences name, and that somebody may have: one that is apart from others, and one in its three reaches. */
const ENTITLED = ['configure', 'move:own', 'move:team', 'move:all'] as const;

/** Somebody who looks at a request of which some things hold. */
export interface Look {
  readonly personId: string;
  readonly groups: readonly string[];
  readonly isDesk: boolean;
  readonly isRequester: boolean;
  readonly as: readonly PartyRelation[];
  readonly activity: Activity;
  readonly stage: string;
  readonly day: string;
  /** The conditions that hold. */
  readonly holding: readonly string[];
  /** Whether they come from outside, and what of two things stands in their profile. */
  readonly kind?: 'staff' | 'contact';
  readonly meets?: readonly string[];
  readonly rights?: readonly Right[];
  /** May build the forms of the register. */
  readonly builds?: boolean;
  /** From outside, and asked to handle it or to decide. */
  readonly calledIn?: boolean;
}

export const anyLook: fc.Arbitrary<Look> = fc
  .record({
    personId: fc.constantFrom(...PEOPLE, 'p3'),
    groups: fc.subarray(GROUPS),
    how: fc.constantFrom([true, false], [false, true], [true, true], [false, false]),
    as: fc.subarray([...AS]),
    activity: fc.constantFrom(...DOING),
    stage: fc.constantFrom(...STAGES, 'elsewhere'),
    day: fc.constantFrom('2026-02-28', ...DAYS, '2026-03-03', '2026-03-09'),
    holding: fc.subarray(CONDITIONS),
    builds: fc.boolean(),
    meets: fc.subarray(PROFILES),
    rights: fc.subarray<Right>([...ENTITLED]),
    outside: fc.boolean(),
  })
  .map(({ how: [isDesk = false, isRequester = false], builds, outside, ...look }) => ({
    ...{ ...look, isDesk, isRequester, kind: outside && !isDesk ? ('contact' as const) : ('staff' as const) },
    ...(builds && isDesk ? { builds } : {}),
    ...(builds && outside && !isDesk && !isRequester ? { calledIn: true } : {}),
  }));

const WORDS = [
  ...GROUPS,
  ...PEOPLE.map((id) => `@${id}`),
  ...AS.map((each) => `~${each}`),
  ...PROFILES.map((each) => `?${each}`),
  '~contact',
];

/** What editions and doors may name. */
export const WORDS_WITH_RIGHTS = [...WORDS, ...ENTITLED.map((each) => `+${each}`)];

/** `words`: what audiences may name; groups alone where nothing else is wanted. */
export const anyAudience = (words: readonly string[] = WORDS): fc.Arbitrary<Audience> =>
  fc
    .record({
      in: fc.oneof(
        fc.constant({ everyone: true as const }),
        fc.subarray([...words], { maxLength: 3 }).map((anyOf) => ({ anyOf })),
        fc.subarray([...words], { maxLength: 2 }).map((allOf) => ({ allOf })),
      ),
      outOf: fc.subarray([...words], { maxLength: 1 }),
      requester: fc.constantFrom(undefined, 'in' as const, 'out' as const),
    })
    .map(({ requester, ...rest }) => (requester ? { ...rest, requester } : rest));

const anyLevel = fc.constantFrom<AccessLevel>('hidden', 'read', 'write');
const anyException: fc.Arbitrary<Omit<RuleException, 'id'>> = fc
  .record({
    level: fc.oneof(anyLevel, fc.constant('none' as const)),
    activities: fc.option(fc.subarray([...DOING], { minLength: 1, maxLength: 2 })),
    stages: fc.option(fc.subarray(STAGES, { minLength: 1 })),
    when: fc.option(fc.constantFrom(...CONDITIONS)),
  })
  .map(({ level, activities, stages, when }) => ({
    level,
    ...(activities ? { activities } : {}),
    ...(stages ? { stages } : {}),
    ...(when ? { when } : {}),
  }));

/** Rules over some fields, with exceptions and days unless they are not wanted. */
export const anyRules = (
  keys: readonly string[],
  { most = 4, plain = false, words = WORDS }: { most?: number; plain?: boolean; words?: readonly string[] } = {},
): fc.Arbitrary<readonly AccessRule[]> =>
  fc
    .array(
      fc.record({
        fields: fc.oneof(fc.constant('all' as const), fc.subarray([...keys], { minLength: 1 })),
        audience: anyAudience(words),
        level: anyLevel,
        overriding: fc.boolean(),
        exceptions: fc.array(anyException, { maxLength: plain ? 0 : 2 }),
        from: plain ? fc.constant(null) : fc.option(fc.constantFrom(...DAYS), { freq: 4 }),
        until: plain ? fc.constant(null) : fc.option(fc.constantFrom(...DAYS), { freq: 4 }),
      }),
      { maxLength: most },
    )
    .map((made) =>
      made.map(
        ({ exceptions, from, until, ...rule }, index): AccessRule => ({
          ...{ ...rule, id: `r${index}`, name: `R${index}` },
          ...(exceptions.length > 0
            ? { exceptions: exceptions.map((each, place) => ({ ...each, id: `e${place}` })) }
            : {}),
          ...(from ? { from } : {}),
          ...(until ? { until } : {}),
        }),
      ),
    );

/** Who reads whole requests by one of two conditions; nobody, more often than not. */
export const anyReaders = (words: readonly string[] = WORDS): fc.Arbitrary<readonly RequestReader[]> =>
  fc
    .array(fc.record({ audience: anyAudience(words), when: fc.constantFrom(...CONDITIONS) }), { maxLength: 2 })
    .map((made) => made.map((reader, index) => ({ ...reader, id: `l${index}`, name: `L${index}` })));

/** Whether somebody of the staff reads a request by what stands in it, read slowly: what they are to it counts for nothing. */
export function slowReads(readers: readonly RequestReader[], look: Look): boolean {
  if (look.kind === 'contact') return false;
  const alone = { ...look, as: [], isRequester: false };
  return (
    readers.filter(({ audience, when }) => {
      if (look.holding.filter((condition) => condition === when).length === 0) return false;
      if (audience.outOf.filter((word) => isIt(word, alone)).length > 0) return false;
      if ('everyone' in audience.in) return true;
      if ('anyOf' in audience.in) return audience.in.anyOf.filter((word) => isIt(word, alone)).length > 0;
      const { allOf } = audience.in;
      return allOf.length > 0 && allOf.filter((word) => isIt(word, alone)).length === allOf.length;
    }).length > 0
  );
}

/** Which fields have their place in a plan; all, where nothing is said. */
export const anyPlaced = (keys: readonly string[]): fc.Arbitrary<readonly string[] | undefined> =>
  fc.option(fc.subarray([...keys])).map((placed) => placed ?? undefined);

const anyTold = fc.constantFrom('hidden' as const, 'read' as const);
/** What holds where no rule says otherwise; as usual more often than not. */
export const anyBase: fc.Arbitrary<BaseLevels | undefined> = fc
  .option(
    fc.record({
      desk: anyLevel,
      requester: fc.record({ answers: anyTold, made: anyTold, staffOnly: anyTold }),
      outside: fc.option(fc.record({ answers: anyLevel, made: anyTold, staffOnly: anyLevel })),
    }),
  )
  .map((made) => {
    if (!made) return undefined;
    const { outside, ...base } = made;
    return outside ? { ...base, outside } : base;
  });

/** Somebody who looks, as the code under test takes them: who they are, how they stand to the request, and where it stands. */
export function takenBy({ personId, groups, kind = 'staff', meets = [], stage, day, holding, ...look }: Look) {
  const { isDesk, isRequester, as, calledIn = false, builds } = look;
  return {
    viewer: { personId, kind, rights: [], groups, meets } satisfies Viewer,
    relation: { isDesk, isRequester, as, calledIn, ...(builds ? { builds } : {}) } satisfies Relation,
    at: { stage, day, holds: (condition: string) => holding.includes(condition) },
  };
}

/** Whether somebody is what a word of an audience says. */
function isIt(word: string, { personId, groups, as, kind, meets = [] }: Look): boolean {
  if (word === `@${personId}`) return true;
  if (word === '~contact') return kind === 'contact';
  if (meets.some((each) => word === `?${each}`)) return true;
  return groups.filter((group) => group === word).length + as.filter((each) => word === `~${each}`).length > 0;
}

/**
 * The level of a field that is made from nothing, read slowly out of the published words: who is out is out; the first
 * exception that holds speaks for its rule; of rules that apply, those that set aside the others, else all; the strictest
 * of them; where there is none, what everybody has.
 */
export function slowLevel(
  rules: readonly AccessRule[],
  field: Field,
  look: Look,
  base: BaseLevels | undefined = undefined,
  placed: readonly string[] | undefined = undefined,
): AccessLevel {
  // Who has nothing to do with it reads nothing of it.
  if (!look.isDesk && !look.isRequester && look.calledIn !== true) return 'hidden';
  const usual = slowPlaced(rules, field, look, base);
  if (placed === undefined || placed.filter((key) => key === field.key).length > 0) return usual;
  // Only who asked it knows what was asked, and only who makes forms what is new for staff.
  if (field.source === 'asked') return look.isRequester && usual !== 'hidden' ? 'read' : 'hidden';
  if (field.source === 'desk-only') return look.isDesk && look.builds === true ? usual : 'hidden';
  return usual;
}

/** The same, for a field that has its place. */
function slowPlaced(rules: readonly AccessRule[], field: Field, look: Look, base: BaseLevels | undefined): AccessLevel {
  const says: { level: AccessLevel; strong: boolean }[] = [];
  for (const { fields, audience, level, overriding, exceptions, from, until } of rules) {
    if (fields !== 'all' && !fields.includes(field.key)) continue;
    if (from !== undefined && Date.parse(look.day) < Date.parse(from)) continue;
    if (until !== undefined && Date.parse(look.day) > Date.parse(until)) continue;
    if (audience.outOf.filter((word) => isIt(word, look)).length > 0) continue;
    const { in: inside } = audience;
    let isIn = false;
    if ('everyone' in inside) isIn = true;
    else if ('anyOf' in inside) isIn = inside.anyOf.filter((word) => isIt(word, look)).length > 0;
    else isIn = inside.allOf.length > 0 && inside.allOf.filter((word) => !isIt(word, look)).length === 0;
    if (look.isRequester && audience.requester !== undefined) isIn = audience.requester === 'in';
    if (!isIn) continue;
    let said: AccessLevel | 'none' = level;
    for (const each of [...(exceptions ?? [])].reverse()) {
      if (each.activities && each.activities.filter((activity) => activity === look.activity).length === 0) continue;
      if (each.stages && each.stages.filter((stage) => stage === look.stage).length === 0) continue;
      if (each.when !== undefined && look.holding.filter((condition) => condition === each.when).length === 0) continue;
      said = each.level;
    }
    if (said !== 'none') says.push({ level: said, strong: overriding === true });
  }
  const strong = says.filter((each) => each.strong);
  const levels = (strong.length > 0 ? strong : says).map((each) => each.level);
  if (levels.length === 0 && look.isDesk) return base ? base.desk : 'write';
  if (levels.length === 0 && look.calledIn) {
    const part = field.source === 'asked' ? 'answers' : field.source === 'desk-only' ? 'staffOnly' : 'made';
    return base?.outside ? base.outside[part] : part === 'staffOnly' ? 'hidden' : 'read';
  }
  if (levels.length === 0 && base && field.source === 'asked') return base.requester.answers;
  if (levels.length === 0 && base) return base.requester[field.source === 'desk-only' ? 'staffOnly' : 'made'];
  if (levels.length === 0) return field.source === 'desk-only' ? 'hidden' : 'read';
  return levels.includes('hidden') ? 'hidden' : levels.includes('read') ? 'read' : 'write';
}

/** Everybody there could be, in all that there could be: for plans that name three groups, two people and three relations. */
export const everyLook = (activities: readonly Activity[] = DOING): readonly Look[] => {
  const subsets = <T>(of: readonly T[]): readonly (readonly T[])[] =>
    Array.from({ length: 2 ** of.length }, (_, bits) => of.filter((__, index) => (bits >> index) % 2 === 1));
  const looks: Look[] = [];
  for (const groups of subsets(GROUPS))
    for (const as of subsets(AS.slice(0, 3)))
      for (const personId of [...PEOPLE, 'p3'])
        for (const [isDesk, isRequester] of [
          [true, false],
          [false, true],
          [true, true],
          // Called in.
          [false, false],
        ] as const)
          for (const activity of activities)
            for (const stage of [...STAGES, 'elsewhere'])
              for (const day of ['2026-02-28', ...DAYS, '2026-03-03', '2026-03-09'])
                for (const holding of subsets(CONDITIONS))
                  looks.push({
                    ...{ groups, as, personId, isDesk, isRequester },
                    ...{ activity, stage, day, holding },
                    ...(isDesk || isRequester ? {} : { calledIn: true }),
                  });
  return looks;
};
