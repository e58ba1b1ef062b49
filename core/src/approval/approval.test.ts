import { english } from '@tolvek/words/english';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { FOR_EVERYONE } from '../people/index.ts';
import { leadsTo, mayNotDecide, type StepSoFar, type Verdict, verdictProblem, whatNow } from './index.ts';

/** Every way in which those who have not said anything yet could still decide. */
function endings(verdicts: readonly (Verdict | null)[]): readonly (readonly Verdict[])[] {
  const [first, ...rest] = verdicts;
  if (first === undefined) return [[]];
  const heads: readonly Verdict[] = first === null ? ['approve', 'refuse'] : [first];
  return endings(rest).flatMap((tail) => heads.map((head) => [head, ...tail]));
}

/** What a step comes to, told by all that could still happen: certain either way, or open. */
function certain({ needed, verdicts }: StepSoFar): 'open' | 'approved' | 'refused' {
  const enough = endings(verdicts).map((all) => all.filter((verdict) => verdict === 'approve').length >= needed);
  if (enough.every(Boolean)) return 'approved';
  return enough.some(Boolean) ? 'open' : 'refused';
}

const step = fc
  .array(fc.constantFrom<Verdict | null>('approve', 'refuse', null), { minLength: 1, maxLength: 5 })
  .chain((verdicts) => fc.integer({ min: 1, max: verdicts.length }).map((needed) => ({ needed, verdicts })));

describe('a round of approval', () => {
  it('ends as soon as nothing that could still be said would change it, and no sooner', () => {
    const seen = { open: 0, approved: 0, refused: 0, later: 0 };
    fc.assert(
      fc.property(fc.array(step, { minLength: 1, maxLength: 4 }), (steps) => {
        const now = whatNow(steps);
        const each = steps.map(certain);
        // All before it is approved; where it ended approved, nothing is left.
        expect(each.slice(0, now.step).every((state) => state === 'approved')).toBe(true);
        expect(now.state).toBe(each[now.step]);
        if (now.state === 'approved') expect(now.step).toBe(steps.length - 1);
        seen[now.state] += 1;
        if (now.step > 0) seen.later += 1;
      }),
      { numRuns: 500 },
    );
    console.log('rounds of approval', seen);
    for (const times of Object.values(seen)) expect(times).toBeGreaterThan(20);
  });

  it('says what each verdict leads to', () => {
    const round = (...verdicts: readonly (readonly (Verdict | null)[])[]) =>
      whatNow(verdicts.map((each) => ({ needed: 2, verdicts: each })));
    const fresh = round([null, null, null], [null, null]);
    const one = round(['approve', null, null], [null, null]);
    const next = round(['approve', 'refuse', 'approve'], [null, null]);
    const refused = round(['approve', 'refuse', 'approve'], ['refuse', null]);
    const done = round(['approve', 'refuse', 'approve'], ['approve', 'approve']);
    expect([leadsTo(fresh, one), leadsTo(one, next), leadsTo(next, refused), leadsTo(next, done)]).toEqual([
      ...['same-step', 'next-step', 'refused', 'approved'],
    ]);
    expect(() => whatNow([])).toThrow(RangeError);
  });
});

describe('who may decide', () => {
  const seat = { state: 'open', holder: 'leads', decidedBeside: [] } as const;
  const lead = { personId: 'ana', kind: 'staff', rights: FOR_EVERYONE, groups: ['leads'] } as const;

  it.each([
    ['a member of the group', seat, lead, 'ben', null],
    ['nobody their own', seat, lead, 'ana', 'Nobody can decide their own request.'],
    ['nobody else', seat, { ...lead, groups: ['deck'] }, 'ben', 'Only members of the approval group can decide this.'],
    ['the person who is asked', { ...seat, holder: '@ana' }, { ...lead, groups: [] }, 'ben', null],
    [
      'nobody else than that person',
      { ...seat, holder: '@ben' },
      lead,
      'cy',
      'Only the person who was asked can decide this.',
    ],
    ['nobody twice', { ...seat, decidedBeside: ['ana'] }, lead, 'ben', 'You have already decided at this step.'],
    [
      'nobody too early',
      { ...seat, state: 'ahead' },
      lead,
      'ben',
      'It is too early to decide this. Another step comes first.',
    ],
    ['nobody again', { ...seat, state: 'refused' }, lead, 'ben', 'This was already refused.'],
    ['nobody too late', { ...seat, state: 'closed' }, lead, 'ben', 'This no longer needs a decision.'],
  ] as const)('%s', (_, at, viewer, requester, reason) =>
    expect(english(mayNotDecide(at, viewer, [requester])?.reason ?? null)).toBe(reason),
  );

  it('a refusal needs a reason, an approval none', () => {
    expect(verdictProblem('refuse', ' ')?.field).toBe('comment');
    expect([verdictProblem('refuse', 'Too late.'), verdictProblem('approve', '')]).toEqual([null, null]);
  });
});
