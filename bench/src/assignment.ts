import { type Candidate, chooseHandler, type Handled } from '@tolvek/core/assignment';
import { seeded } from '@tolvek/demo';
import { type Figure, figure, interleaved, ROUNDS } from './figure.ts';

const REQUESTS = 10_000;
const PEOPLE = 40;
const OPEN = 25;

const random = seeded(17);
const handled = (): Handled => ({
  count: 1,
  priority: (['high', 'normal', 'low'] as const)[Math.floor(random() * 3)] ?? 'normal',
  phase: random() < 0.2 ? 'paused' : 'working',
  isPressing: random() < 0.3,
});
const team = Array.from(
  { length: PEOPLE },
  (_, n): Candidate => ({
    ...{ person: `p${n}`, isHere: n % 9 !== 0, isOfTeam: true, lastGiven: n * 1_000 },
    handles: Array.from({ length: OPEN + (n % 5) }, handled),
  }),
);
/** Of those with the skill whoever has the least to do: every third has not. */
const SKILL = { by: 'skill' as const, skill: 'sampling', least: 3 };
const RULE = { ways: [{ by: 'last' as const }, SKILL], most: OPEN + 3 };
const can = (person: string): boolean => Number(person.slice(1)) % 3 !== 0;

/** The same by hand, for this rule alone: whom the last request names, else the least to do, and one word for each other. */
function byHand(last: string | null, whose: string): { person: string; passed: number } | null {
  const passed: { readonly person: string; readonly why: string }[] = [];
  const free: { readonly each: Candidate; readonly load: number }[] = [];
  for (const each of team) {
    const open = each.handles.filter(({ phase }) => phase !== 'finished').length;
    if (each.person === whose) passed.push({ person: each.person, why: 'own' });
    else if (!each.isHere) passed.push({ person: each.person, why: 'away' });
    else if (open >= RULE.most) passed.push({ person: each.person, why: 'full' });
    else if (each.person !== last && !can(each.person)) passed.push({ person: each.person, why: 'unskilled' });
    else {
      let load = 0;
      for (const { priority, phase, isPressing } of each.handles) {
        const weight = priority === 'high' ? 3 : priority === 'normal' ? 2 : 1;
        load += phase === 'paused' ? weight / 4 : isPressing ? weight * 2 : weight;
      }
      free.push({ each, load });
    }
  }
  const before = free.find(({ each }) => each.person === last);
  if (before) return { person: before.each.person, passed: 0 };
  free.sort((a, b) => a.load - b.load || (a.each.lastGiven ?? 0) - (b.each.lastGiven ?? 0));
  const first = free[0];
  if (!first) return null;
  for (const { each, load } of free.slice(1))
    passed.push({ person: each.person, why: load > first.load ? 'busier' : 'sooner' });
  return { person: first.each.person, passed: passed.length };
}

const ASKED = Array.from({ length: REQUESTS }, (_, n) => ({
  last: n % 4 === 0 ? `p${n % PEOPLE}` : null,
  whose: `p${(n * 7) % PEOPLE}`,
}));

/** No rule here asks an answer or a roster. */
const NOBODY = { named: () => null, onDuty: () => [] };

/** Choosing who handles ten thousand requests, with why nobody else: beside a second, and beside a loop by hand. */
export async function measureAssignment(): Promise<readonly Figure[]> {
  const took = (): number => {
    const before = performance.now();
    for (const { last, whose } of ASKED)
      if (!chooseHandler(RULE, { candidates: team, whose: [whose], last, ...NOBODY, can }))
        throw new Error('Nobody was chosen.');
    return performance.now() - before;
  };
  const hand = (): number => {
    const before = performance.now();
    for (const { last, whose } of ASKED) byHand(last, whose);
    return performance.now() - before;
  };
  for (const { last, whose } of ASKED.slice(0, 500)) {
    const ours = chooseHandler(RULE, { candidates: team, whose: [whose], last, ...NOBODY, can });
    if (ours?.person !== byHand(last, whose)?.person) throw new Error('They do not agree.');
  }
  const name = `${REQUESTS} handlers chosen by skill and load among ${PEOPLE} with ${OPEN} requests each, ms`;
  const beside = await interleaved(`${name} beside a loop by hand`, 3, took, hand);
  const rounds = Array.from({ length: ROUNDS }, took);
  return [figure(name, rounds, [1_000], 1), beside];
}
