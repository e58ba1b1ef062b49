import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  type Asked,
  type Candidate,
  chooseHandler,
  type Handled,
  type HandlerRule,
  type HandlerWay,
  loadOf,
} from './index.ts';

const PEOPLE = ['ana', 'ben', 'cy', 'dee'] as const;
const handled: fc.Arbitrary<Handled> = fc.record({
  priority: fc.constantFrom('high' as const, 'normal' as const, 'low' as const),
  phase: fc.constantFrom('arrived' as const, 'working' as const, 'paused' as const, 'finished' as const),
  isPressing: fc.boolean(),
  count: fc.integer({ min: 1, max: 3 }),
});
/** One by one. */
const oneByOne = (handles: readonly Handled[]): readonly Handled[] =>
  handles.flatMap((alike) => Array.from({ length: alike.count }, () => alike));
const openOf = (handles: readonly Handled[]): number =>
  oneByOne(handles).filter(({ phase }) => phase !== 'finished').length;
const candidates: fc.Arbitrary<readonly Candidate[]> = fc.tuple(
  ...PEOPLE.map((person) =>
    fc.record({
      person: fc.constant(person),
      isHere: fc.boolean(),
      isOfTeam: fc.boolean(),
      handles: fc.array(handled, { maxLength: 4 }),
      lastGiven: fc.option(fc.integer({ min: 1, max: 3 })),
    }),
  ),
);
const ways: fc.Arbitrary<HandlerWay> = fc.oneof(
  fc.constantFrom('last' as const, 'load' as const, 'turn' as const).map((by) => ({ by })),
  fc.record({ by: fc.constant('skill' as const), skill: fc.constantFrom('winch', 'diving'), least: fc.nat(3) }),
  fc.record({ by: fc.constant('duty' as const), roster: fc.constantFrom('boats', 'nights') }),
  fc.constantFrom('keeper', 'other').map((field) => ({ by: 'field' as const, field })),
  fc.constantFrom(...PEOPLE).map((person) => ({ by: 'person' as const, person })),
);
const rules: fc.Arbitrary<HandlerRule> = fc.record(
  { ways: fc.array(ways, { minLength: 1, maxLength: 4 }), most: fc.integer({ min: 1, max: 6 }) },
  { requiredKeys: ['ways'] },
);
const asking: fc.Arbitrary<Asked> = fc
  .record({
    candidates,
    whose: fc.subarray([...PEOPLE], { maxLength: 1 }),
    last: fc.option(fc.constantFrom(...PEOPLE)),
    keeper: fc.option(fc.constantFrom(...PEOPLE)),
    boats: fc.subarray([...PEOPLE], { maxLength: 2 }),
    levels: fc.tuple(...PEOPLE.map(() => fc.record({ winch: fc.nat(3), diving: fc.nat(3) }))),
  })
  .map(({ keeper, levels, boats, ...asked }) => ({
    ...asked,
    named: (field) => (field === 'keeper' ? keeper : null),
    onDuty: ({ roster }) => (roster === 'boats' ? boats : []),
    can: (person, { skill, least }) =>
      (levels[(PEOPLE as readonly string[]).indexOf(person)]?.[skill === 'winch' ? 'winch' : 'diving'] ?? -1) >= least,
  }));

/** What somebody has to do, in quarters, counted on fingers. */
const quarters = (handles: readonly Handled[]): number => {
  let sum = 0;
  for (const { priority, phase, isPressing } of oneByOne(handles)) {
    const worth = priority === 'high' ? 3 : priority === 'normal' ? 2 : 1;
    if (phase === 'paused') sum += worth;
    else if (phase !== 'finished') sum += worth * (isPressing ? 8 : 4);
  }
  return sum;
};

/** Everybody whom one way may find, the best first, read slowly. */
function meantBy(
  way: HandlerWay,
  { most }: HandlerRule,
  { candidates: all, whose, last, named, can, onDuty }: Asked,
): readonly string[] {
  const free = all.filter(
    ({ person, isHere, handles }) =>
      isHere && !whose.includes(person) && (most === undefined || openOf(handles) < most),
  );
  if (way.by === 'person') return free.filter(({ person }) => person === way.person).map(({ person }) => person);
  if (way.by === 'field') return free.filter(({ person }) => person === named(way.field)).map(({ person }) => person);
  const team = free.filter(({ isOfTeam, person }) =>
    way.by === 'duty' ? onDuty(way).includes(person) : isOfTeam && (way.by !== 'skill' || can(person, way)),
  );
  if (way.by === 'last') return team.filter(({ person }) => person === last).map(({ person }) => person);
  const best: string[] = [];
  const left = [...team];
  while (left.length > 0) {
    let first = left[0] as Candidate;
    for (const each of left) {
      const more = way.by !== 'turn' ? quarters(each.handles) - quarters(first.handles) : 0;
      const sooner = (each.lastGiven ?? 0) - (first.lastGiven ?? 0);
      if (more < 0 || (more === 0 && (sooner < 0 || (sooner === 0 && each.person < first.person)))) first = each;
    }
    best.push(first.person);
    left.splice(left.indexOf(first), 1);
  }
  return best;
}

describe('who handles a request by a rule', () => {
  it('is the first who can by the first way that finds somebody, and says why nobody else', () => {
    const seen: Record<string, number> = { nobody: 0 };
    const passed: Record<string, number> = {};
    fc.assert(
      fc.property(rules, asking, (rule, asked) => {
        const chosen = chooseHandler(rule, asked);
        const found = rule.ways.map((way) => meantBy(way, rule, asked)[0]);
        const at = found.findIndex((person) => person !== undefined);
        expect(chosen?.person ?? null).toBe(at < 0 ? null : found[at]);
        if (!chosen) {
          seen.nobody = (seen.nobody ?? 0) + 1;
          return;
        }
        expect([chosen.by, chosen.tried]).toEqual([rule.ways[at]?.by, rule.ways.slice(0, at).map(({ by }) => by)]);
        seen[chosen.by] = (seen[chosen.by] ?? 0) + 1;
        const way = rule.ways[at];
        expect(chosen.roster).toBe(way?.by === 'duty' ? way.roster : undefined);
        // Whoever is passed over is somebody else, each once, for what is so of them.
        const of = new Map(asked.candidates.map((each) => [each.person, each]));
        expect(new Set([chosen.person, ...chosen.passed.map(({ person }) => person)]).size).toBe(
          chosen.passed.length + 1,
        );
        for (const { person, why } of chosen.passed) {
          passed[why] = (passed[why] ?? 0) + 1;
          const each = of.get(person) as Candidate;
          const holds = {
            away: !each.isHere,
            own: asked.whose.includes(person),
            full: openOf(each.handles) >= (rule.most ?? Number.POSITIVE_INFINITY),
            busier: quarters(each.handles) > quarters((of.get(chosen.person) as Candidate).handles),
            unskilled: rule.ways.some((way) => way.by === 'skill' && !asked.can(person, way)),
            'off-duty': rule.ways.some((way) => way.by === 'duty' && !asked.onDuty(way).includes(person)),
            sooner: true,
            stranger: !each.isOfTeam,
          };
          expect([why, holds[why]]).toEqual([why, true]);
        }
      }),
      { numRuns: 3_000 },
    );
    console.log('handlers chosen', seen, 'passed over', passed);
    for (const by of ['nobody', 'last', 'field', 'skill', 'duty', 'load', 'turn', 'person'])
      expect(seen[by]).toBeGreaterThan(30);
    for (const why of ['away', 'own', 'full', 'unskilled', 'off-duty', 'busier', 'sooner', 'stranger'])
      expect(passed[why]).toBeGreaterThan(10);
  });

  it('weighs what stands still little, what presses twice, and what is over nothing', () => {
    const one = (more: Partial<Handled>): number =>
      loadOf([{ count: 1, priority: 'normal', phase: 'working', isPressing: false, ...more }]);
    expect([one({}), one({ isPressing: true }), one({ phase: 'paused' }), one({ phase: 'finished' })]).toEqual([
      2, 4, 0.5, 0,
    ]);
    expect([one({ priority: 'high' }), one({ priority: 'low', phase: 'paused' })]).toEqual([3, 0.25]);
  });
});
