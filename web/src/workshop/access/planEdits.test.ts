import { ORDINARY, type PlanRules, planned } from '@tolvek/core/access';
import type { Field } from '@tolvek/core/register';
import { expect, test } from 'vitest';
import {
  addRule,
  changeRule,
  meaning,
  meantBy,
  place,
  placeLike,
  removeRule,
  switchRule,
  withRequester,
  wordsMeant,
} from './planEdits.ts';

const nothing: PlanRules = { rules: [], resting: [] };

test('a new rule is about nothing and for nobody', () => {
  const [rule] = addRule('r')(nothing).rules;
  expect([rule?.fields, rule && wordsMeant(rule.audience), rule?.level]).toEqual([[], [], 'hidden']);
});

test('a rule is changed, switched off and on, and deleted, wherever it stands; others stay as they are', () => {
  const two = addRule('b')(addRule('a')(nothing));
  const named = changeRule('a', (rule) => ({ ...rule, name: 'A' }))(two);
  const off = switchRule('a', false)(named);
  expect([off.rules.map(({ id }) => id), off.resting.map(({ name }) => name)]).toEqual([['b'], ['A']]);
  expect(changeRule('a', (rule) => ({ ...rule, level: 'read' }))(off).resting[0]?.level).toBe('read');
  expect(switchRule('a', true)(off).rules.map(({ id }) => id)).toEqual(['b', 'a']);
  expect(removeRule('a')(off)).toEqual({ rules: off.rules, resting: [] });
  expect(switchRule('none', false)(off)).toBe(off);
});

test('groups that were chosen stay chosen between one of them and all of them, and not for everyone', () => {
  const some = { in: { anyOf: ['x', 'y'] }, outOf: ['z'], requester: 'in' as const };
  const all = meaning(some, 'allOf');
  expect([meantBy(all), wordsMeant(all), all.outOf, all.requester]).toEqual(['allOf', ['x', 'y'], ['z'], 'in']);
  expect([meantBy(meaning(all, 'everyone')), wordsMeant(meaning(all, 'everyone'))]).toEqual(['everyone', []]);
  expect(withRequester(some, 'as-others')).toEqual({ in: some.in, outOf: ['z'] });
  expect(withRequester(some, 'out').requester).toBe('out');
});

test('a recipe does what its words say, by the rule that protects', () => {
  const field: Field = { key: 'note', label: 'Note', type: { kind: 'text' }, source: 'asked' };
  const level = (recipe: 'only-some' | 'staff-only' | 'requester-reads', groups: string[], isRequester: boolean) => {
    const made = addRule('r', recipe, { fields: ['note'] })(nothing);
    const some = changeRule('r', (rule) =>
      recipe === 'only-some' ? { ...rule, audience: { ...rule.audience, outOf: ['safety'] } } : rule,
    )(made);
    return planned(field, some, { groups }, { isDesk: !isRequester, isRequester }, ORDINARY).level;
  };
  expect([
    level('only-some', ['safety'], false),
    level('only-some', ['boats'], false),
    level('only-some', [], true),
  ]).toEqual(['write', 'hidden', 'read']);
  expect([level('staff-only', ['boats'], false), level('staff-only', [], true)]).toEqual(['write', 'hidden']);
  expect([level('requester-reads', ['boats'], false), level('requester-reads', [], true)]).toEqual(['write', 'read']);
});

test('a field gets its place as usual, or where the rules of another protect it as well', () => {
  const field: Field = { key: 'code', label: 'Code', type: { kind: 'text' }, source: 'asked' };
  const closed = addRule('r', 'only-some', { fields: ['note'] })(nothing);
  const level = (plan: PlanRules) =>
    planned(field, plan, { groups: ['boats'] }, { isDesk: true, isRequester: false }, ORDINARY).level;
  const plan = { ...closed, placed: ['note'] };
  expect([level(plan), level(place(['code'])(plan)), level(placeLike('code', 'note')(plan))]).toEqual([
    ...['hidden', 'write', 'hidden'],
  ]);
  expect(placeLike('code', 'note')(plan).rules[0]?.fields).toEqual(['note', 'code']);
  // Where a plan that is written says nothing of places, those in force stay.
  expect(place(['code'], ['note'])(closed).placed).toEqual(['note', 'code']);
  expect(place(['code'])(place(['code'])(plan)).placed).toEqual(['note', 'code']);
});
