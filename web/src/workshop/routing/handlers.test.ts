import type { HandlerRule, HandlerWay } from '@tolvek/core/assignment';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { addWay, handledBy, moveWay, removeWay, setMost, setWay, wayOf } from './handlers.ts';

const ways: fc.Arbitrary<HandlerWay> = fc.oneof(
  fc.constantFrom('last' as const, 'load' as const, 'turn' as const).map((by) => ({ by })),
  fc.constantFrom('ana', 'ben').map((person) => ({ by: 'person' as const, person })),
);
type Rule = HandlerRule | undefined;
const EDITS: Readonly<Record<string, (rule: Rule, place: number, way: HandlerWay) => Rule>> = {
  add: (rule, _, way) => addWay(rule, way),
  set: (rule, place, way) => setWay(rule, place, way),
  remove: (rule, place) => removeWay(rule, place),
  earlier: (rule, place) => moveWay(rule, place, -1),
  later: (rule, place) => moveWay(rule, place, 1),
  most: (rule, place) => rule && setMost(rule, place === 0 ? null : place - 2),
};

describe('the ways in which a row finds its handler, as they are edited', () => {
  it('are what a list of them would be, and the limit stays until it is taken away; without a way the team takes it', () => {
    const seen: Record<string, number> = {};
    const edits = fc.array(fc.tuple(fc.constantFrom(...Object.keys(EDITS)), fc.nat(3), ways), { maxLength: 20 });
    fc.assert(
      fc.property(edits, (all) => {
        let rule: Rule = { ways: [{ by: 'last' }, { by: 'load' }] };
        let list: HandlerWay[] = [{ by: 'last' }, { by: 'load' }];
        let most: number | undefined;
        for (const [name, place, way] of all) {
          const before = JSON.stringify(rule);
          rule = EDITS[name]?.(rule, place, way);
          if (name === 'add') list = [...list, way];
          if (name === 'set' && list[place]) list[place] = way;
          if (name === 'remove') list.splice(place, 1);
          const to = place + (name === 'earlier' ? -1 : 1);
          const [one, other] = [list[place], list[to]];
          if ((name === 'earlier' || name === 'later') && one && other) [list[place], list[to]] = [other, one];
          if (list.length === 0) most = undefined;
          else if (name === 'most') most = place === 0 ? undefined : Math.max(1, place - 2);
          expect(rule).toEqual(list.length === 0 ? undefined : { ways: list, ...(most === undefined ? {} : { most }) });
          if (before !== JSON.stringify(rule)) seen[name] = (seen[name] ?? 0) + 1;
        }
      }),
      { numRuns: 1_500 },
    );
    console.log('edits of ways to a handler', seen);
    for (const name of Object.keys(EDITS)) expect(seen[name]).toBeGreaterThan(20);
  });

  it('name what there is to name, and leave the rest of an outcome as it is', () => {
    expect([wayOf('field', [], []), wayOf('person', [], []), wayOf('turn', [], [])]).toEqual([
      null,
      null,
      { by: 'turn' },
    ]);
    expect(wayOf('field', [{ key: 'keeper' }], [])).toEqual({ by: 'field', field: 'keeper' });
    expect(wayOf('person', [], [{ key: 'ana' }])).toEqual({ by: 'person', person: 'ana' });
    const outcome = { team: 'boats', priority: 'normal', workingDays: 2, path: null } as const;
    const rule: HandlerRule = { ways: [{ by: 'load' }] };
    expect(handledBy(outcome, rule)).toEqual({ ...outcome, handler: rule });
    expect(handledBy({ ...outcome, handler: rule }, undefined)).toEqual(outcome);
  });
});
