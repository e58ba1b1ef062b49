import {
  COMPUTED,
  isComputed,
  LEAVABLE,
  type RoutingOutcome,
  type RoutingTable,
  withFormula,
} from '@tolvek/core/routing';
import * as fc from 'fast-check';
import { expect, it } from 'vitest';
import {
  beginningAt,
  firstFormula,
  followedBy,
  goingTogether,
  type How,
  howSet,
  type RowSaid,
  rowWith,
  setHow,
  wishedIn,
} from './rowEdits.ts';

const outcome: RoutingOutcome = { team: 'boats', priority: 'high', workingDays: 3, path: null };

it('remembers of everything a row sets where it came from last, and what stands in the row whatever came between', () => {
  const met: Record<How, number> = { here: 0, formula: 0, later: 0 };
  fc.assert(
    fc.property(
      fc.array(fc.tuple(fc.constantFrom(...LEAVABLE), fc.constantFrom<How>('here', 'formula', 'later'), fc.nat(9)), {
        maxLength: 25,
      }),
      (steps) => {
        let row: RowSaid = { outcome, leaves: [] };
        const is = new Map<string, How>();
        const formulas = new Map<string, string>();
        for (const [name, how, number] of steps) {
          if (how === 'formula' && !isComputed(name)) continue;
          row = setHow(row, name, how);
          is.set(name, how);
          if (how === 'here') formulas.delete(name);
          if (how === 'formula' && isComputed(name)) {
            const text = formulas.get(name) ?? firstFormula(outcome, name);
            expect(row.outcome.formulas?.[name]).toBe(text);
            row = { ...row, outcome: withFormula(row.outcome, name, `${text} + ${number}`) };
            formulas.set(name, `${text} + ${number}`);
          }
          met[how] += 1;
        }
        for (const name of LEAVABLE) expect([name, howSet(row, name)]).toEqual([name, is.get(name) ?? 'here']);
        // What stands in the row counts again the moment nothing else does.
        const { formulas: written = {}, ...plain } = row.outcome;
        expect(plain).toEqual(outcome);
        expect(new Map(COMPUTED.flatMap((name) => (written[name] ? [[name, written[name]] as const] : [])))).toEqual(
          formulas,
        );
        expect(row.leaves).toEqual(LEAVABLE.filter((name) => is.get(name) === 'later'));
      },
    ),
  );
  console.log('set', met);
  expect(Math.min(...Object.values(met))).toBeGreaterThan(100);
});

it('says nothing where nothing is said: no stage, no followers, no rows left, the usual way', () => {
  const bare = { id: 'a', note: '', cells: {}, outcome };
  expect(beginningAt(beginningAt(outcome, 'waiting'), null)).toEqual(outcome);
  expect(followedBy(followedBy(outcome, [{ group: 'boats' }]), [])).toEqual(outcome);
  expect(firstFormula(outcome, 'path')).toBe('null');
  expect(firstFormula(outcome, 'team')).toBe('"boats"');
  expect(Object.keys(rowWith({ ...bare, leaves: ['team'] }, { outcome, leaves: [] }))).not.toContain('leaves');
  const table: RoutingTable = { columns: [], rows: [], otherwise: outcome };
  expect(goingTogether(goingTogether(table, 'each'), 'first')).toEqual(table);
  expect(goingTogether(table, 'only').hits).toBe('only');
  expect(wishedIn(wishedIn(wishedIn(table, 'due', 'until'), 'priority', 'how'), 'due', null).wishes).toEqual({
    priority: 'how',
  });
  expect(wishedIn(wishedIn(table, 'due', 'until'), 'due', null)).toEqual(table);
});
