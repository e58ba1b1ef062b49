import { english } from '@tolvek/words/english';
import { describe, expect, it } from 'vitest';
import { type DeadlineRule, finishRule, type Ring } from '../../deadline/index.ts';
import { requestScope } from '../../register/index.ts';
import type { FormDesign } from '../design.ts';
import { pathsBegun } from '../namedActions.ts';
import { RECIPES } from '../recipes/index.ts';
import { sinksOf } from '../sinks.ts';
import { deadlineFindings } from './deadlines.ts';

const [recipe] = RECIPES;
const base = recipe?.make({ told: english, title: 'Nets', team: 'boats', approvers: 'leads', calendar: 'desk' });
const fields = [
  { key: 'day', label: 'Day', type: { kind: 'date' }, source: 'asked' },
  { key: 'many', label: 'Many', type: { kind: 'number', places: 0 }, source: 'asked' },
  { key: 'keeper', label: 'Keeper', type: { kind: 'person', from: [] }, source: 'asked' },
] as unknown as FormDesign['fields'];
const HOUR = 3_600_000;
const ring = (more: Partial<Ring> = {}): Ring => ({ key: 'r', at: 0, tells: ['leads'], does: [], ...more });
const rule = (more: Partial<DeadlineRule> = {}): DeadlineRule => ({
  ...finishRule(HOUR, 0),
  ...{ key: 'one', name: 'One', length: { by: 'days', days: 1 }, rings: [] },
  ...more,
});

function found(...deadlines: readonly DeadlineRule[]): readonly string[] {
  if (!base) throw new Error('There is no recipe.');
  const design: FormDesign = { ...base, fields, deadline: { calendar: 'desk', leads: 'leads', deadlines } };
  const told: string[] = [];
  deadlineFindings(
    design,
    {
      scope: requestScope(fields),
      groups: new Map([
        ['boats', 'Boats'],
        ['leads', 'Leads'],
      ]),
      stages: [{ key: 'arrived' }, { key: 'in_hand' }],
      rosters: { watch: { name: 'Watch', gap: null } },
    },
    (severity, page, at, message) => void told.push(`${severity} ${page} ${at}: ${english(message)}`),
  );
  return told;
}

describe('what is found in deadlines', () => {
  it('is nothing in those that are sound', () => {
    expect(
      found(
        finishRule(4 * HOUR, 0),
        rule({ when: 'many > 3', length: { by: 'field', field: 'day', days: -2, counted: 'any' } }),
        rule({ key: 'two', name: 'Two', length: { by: 'formula', formula: 'many + 1', unit: 'hours' } }),
        rule({
          ...{ key: 'three', name: 'Three', begins: { on: 'stages', stages: ['in_hand'] }, ends: { on: 'left' } },
          rings: [ring({ tells: [{ field: 'keeper' }, { group: 'boats' }], does: [{ do: 'decide', path: 'path' }] })],
        }),
      ),
    ).toEqual([]);
  });

  it('names the deadline, what is wrong with it, and what to do', () => {
    const wrong: readonly (readonly [DeadlineRule, RegExp])[] = [
      [rule({ when: 'many >' }), /^error approval one: When the deadline “One” applies: /],
      [rule({ when: 'many' }), /^error approval one: When the deadline “One” applies: /],
      [rule({ length: { by: 'formula', formula: 'many +', unit: 'days' } }), /How long the deadline “One” is: /],
      [rule({ length: { by: 'formula', formula: '"a"', unit: 'days' } }), /does not give a number/],
      [rule({ length: { by: 'field', field: 'many', days: 0, counted: 'any' } }), /follows a field that is no date/],
      [rule({ length: { by: 'field', field: 'gone', days: 0, counted: 'any' } }), /follows a field that is no date/],
      [rule({ length: { by: 'time', time: 0 } }), /has no length/],
      [rule({ length: { by: 'time', time: 401 * 24 * HOUR } }), /more than 400 days/],
      [rule({ ends: { on: 'left' } }), /begins with the request/],
      [rule({ begins: { on: 'stages', stages: [] } }), /no stage is chosen/],
      [rule({ stands: { on: 'stages', stages: ['gone'] } }), /a stage that does not exist/],
      [rule({ rings: [ring({ does: [{ do: 'stage', stage: 'gone' }] })] }), /a stage that does not exist/],
      [rule({ rings: [ring({ at: -401 * 24 * HOUR })] }), /more than 400 days away/],
      [rule({ rings: [ring({ tells: [{ group: 'gone' }] })] }), /a group that does not exist/],
      [rule({ rings: [ring({ does: [{ do: 'team', team: 'gone' }] })] }), /a group that does not exist/],
      [rule({ rings: [ring({ tells: [{ field: 'day' }] })] }), /no field for a person/],
      [rule({ rings: [ring({ does: [{ do: 'decide', path: 'gone' }] })] }), /an approval path that does not exist/],
      [rule({ rings: [ring({ tells: [] })] }), /^caution approval one: .*tells nobody and does nothing/],
    ];
    for (const [each, words] of wrong)
      expect([words.source, found(each)]).toEqual([words.source, [expect.stringMatching(words)]]);
    expect(found(rule(), rule({ key: 'two', name: ' one ' }))).toEqual([
      'caution approval two: Two deadlines are called “ one ”. Give one another name.',
    ]);
  });

  it('is no doubt about a path that a deadline begins', () => {
    const deadline = {
      calendar: 'desk',
      leads: 'leads',
      deadlines: [rule({ rings: [ring({ does: [{ do: 'decide', path: 'late' }] })] })],
    };
    expect([...pathsBegun({ deadline })]).toEqual(['late']);
    if (!base) throw new Error('There is no recipe.');
    const step = { id: 's', label: 'S', seats: [{ group: 'leads' }], needed: 1, when: 'many > 3' };
    const approval = { paths: [{ id: 'late', label: 'Late', steps: [step] }] };
    const routing = { ...base.routing, rows: [], otherwise: { ...base.routing.otherwise, path: null } };
    const sinks = (some: Partial<FormDesign>) =>
      sinksOf({ fields, routing, approval, ...some }).flatMap(({ kind, id }) => (kind === 'step' ? [id] : []));
    expect([sinks({}), sinks({ deadline })]).toEqual([[], ['step s']]);
  });
});
