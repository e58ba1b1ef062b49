import { describe, expect, it } from 'vitest';
import type { Field } from '../register/index.ts';
import { standingScope } from '../register/index.ts';
import {
  canGroup,
  canOrder,
  canSum,
  fieldsShared,
  orderWay,
  VIEW,
  type ViewDesign,
  type ViewShape,
  viewInWords,
} from './index.ts';

const field = (key: string, type: Field['type'], more: object = {}): Field =>
  ({ key, label: key, help: '', required: false, source: 'asked', type, ...more }) as unknown as Field;
const option = (key: string) => ({ key, label: key.toUpperCase() });

const FIELDS = [
  field('area', { kind: 'choice', options: [option('bay'), option('sea')] }),
  field('leaves', { kind: 'date-time' }),
  field('cost', { kind: 'money', currency: 'EUR' }),
  field('lines', { kind: 'line-items', columns: [] }),
  field('notes', { kind: 'long-text' }),
  field('photo', { kind: 'files', only: 'pictures', most: 1, mostBytes: 1_000 }),
  field('papers', { kind: 'files', only: 'any', most: 1, mostBytes: 1_000 }),
];
const VIEWED: ViewDesign = {
  ...{ name: 'Boats', of: ['vessels'], when: '', audience: null },
  ...{ columns: [{ of: 'area' }], groups: [], orders: [], marks: [], shapes: [{ is: 'table' }] },
};
const scope = standingScope(FIELDS);
const around = {
  registers: ['vessels'],
  fields: FIELDS,
  closed: ['request.due'],
  unreadable: (text: string) => (text === 'bad' ? 'nonsense' : null),
};
const foundAt = (part: Partial<ViewDesign>): readonly string[] =>
  VIEW.findings({ ...VIEWED, ...part }, around).map(({ at }) => at);

describe('the fields that registers share', () => {
  it('are those of one key whose values are alike, with the options of all', () => {
    const other = [
      field('area', { kind: 'choice', options: [option('sea'), option('lake')] }),
      field('cost', { kind: 'money', currency: 'NOK' }),
      field('leaves', { kind: 'date' }),
      field('lines', { kind: 'line-items', columns: [] }),
      field('notes', { kind: 'long-text' }),
    ];
    const shared = fieldsShared([FIELDS, other]);
    expect(shared.map(({ key }) => key)).toEqual(['area', 'notes']);
    expect(shared[0]?.type).toMatchObject({ options: [{ key: 'bay' }, { key: 'sea' }, { key: 'lake' }] });
    expect(fieldsShared([FIELDS]).map(({ key }) => key)).toEqual(FIELDS.map(({ key }) => key));
    expect(fieldsShared([FIELDS, []])).toEqual([]);
    expect(fieldsShared([])).toEqual([]);
  });
});

describe('what a view can do with a field', () => {
  it('is said by its kind', () => {
    const can = (subject: string) => [canGroup(subject, FIELDS), canOrder(subject, FIELDS), canSum(subject, FIELDS)];
    expect(can('area')).toEqual([true, true, false]);
    expect(can('cost')).toEqual([false, true, true]);
    expect(can('leaves')).toEqual([true, true, false]);
    expect(can('lines')).toEqual([false, false, false]);
    expect(can('request.subject')).toEqual([false, false, false]);
    expect(can('request.stage')).toEqual([true, true, false]);
    expect(can('gone')).toEqual([false, false, false]);
  });

  it('has words that say what is true of the order', () => {
    const ways = ['area', 'leaves', 'cost', 'request.team', 'request.stage', 'request.arrived', 'requester.person'];
    expect(ways.map((subject) => orderWay(subject, FIELDS))).toEqual([
      ...['own', 'time', 'size', 'letters', 'own', 'time', 'letters'],
    ]);
  });
});

describe('a view', () => {
  it('is found wrong where it names what is not there, or can’t be done', () => {
    expect(foundAt({})).toEqual([]);
    expect(foundAt({ name: ' ' })).toEqual(['name']);
    expect(foundAt({ of: [] })).toEqual(['of']);
    expect(foundAt({ of: ['vessels', 'nothing'] })).toEqual(['of']);
    expect(foundAt({ columns: [] })).toEqual(['columns']);
    expect(foundAt({ when: 'bad' })).toEqual(['when']);
    expect(foundAt({ groups: ['cost'] })).toEqual(['groups']);
    expect(foundAt({ orders: [{ of: 'lines', down: false }] })).toEqual(['orders']);
    expect(foundAt({ columns: [{ of: 'gone' }] })).toEqual(['columns']);
    expect(foundAt({ groups: ['gone'] })).toEqual(['groups']);
    expect(foundAt({ groups: ['request.due'] })).toEqual(['groups']);
    expect(foundAt({ orders: [{ of: 'request.due', down: false }] })).toEqual(['orders']);
    expect(foundAt({ columns: [{ of: 'request.due' }] })).toEqual([]);
    expect(foundAt({ columns: [{ of: 'area' }, { of: 'area' }] })).toEqual(['columns']);
    expect(foundAt({ marks: [{ when: '', colour: 'sea', word: '' }] })).toEqual(['marks 0', 'marks 0']);
    expect(foundAt({ shapes: [] })).toEqual(['shapes']);
    expect(foundAt({ shapes: [{ is: 'board', by: 'area', lanes: 'request.stage' }] })).toEqual([]);
    expect(foundAt({ shapes: [{ is: 'board', by: 'area', lanes: 'area' }] })).toEqual(['shapes 0']);
    expect(foundAt({ shapes: [{ is: 'board', by: 'leaves', lanes: null }] })).toEqual(['shapes 0']);
    expect(foundAt({ shapes: [{ is: 'board', by: 'gone', lanes: null }] })).toEqual(['shapes']);
    const calendar = { is: 'calendar', from: 'leaves', to: null, lines: 'area' } as const;
    expect(foundAt({ shapes: [calendar] })).toEqual([]);
    expect(foundAt({ shapes: [{ is: 'table' }, { ...calendar, to: 'cost' }] })).toEqual(['shapes 1']);
    expect(foundAt({ shapes: [{ ...calendar, lines: 'leaves' }] })).toEqual(['shapes 0']);
    const matrix = { is: 'matrix', down: 'area', across: 'request.stage', cell: { is: 'count', of: null } } as const;
    const crossed = (part: object) => foundAt({ shapes: [{ ...matrix, wanted: null, fresh: null, ...part }] });
    expect([crossed({}), crossed({ cell: { is: 'most', of: 'cost' } })]).toEqual([[], []]);
    expect(crossed({ cell: { is: 'newest', of: 'notes' } })).toEqual([]);
    expect([crossed({ across: 'area' }), crossed({ down: 'leaves' })]).toEqual([['shapes 0'], ['shapes 0']]);
    expect([crossed({ cell: { is: 'most', of: 'notes' } }), crossed({ cell: { is: 'most', of: null } })]).toEqual([
      ...[['shapes 0'], ['shapes 0']],
    ]);
    expect(crossed({ fresh: { of: 'cost', days: 3 } })).toEqual(['shapes 0']);
    expect(crossed({ fresh: { of: 'request.due', days: 3 } })).toEqual(['shapes 0']);
    const totals = { is: 'totals', by: 'leaves', each: 'month', parts: 'area' } as const;
    const added = (part: object) =>
      foundAt({ shapes: [{ ...totals, totals: [{ is: 'count', of: null }], ...part } as ViewShape] });
    const share = { is: 'share', when: 'cost > 3', word: 'dear' };
    expect(added({ totals: [share, { is: 'sum', of: 'cost' }, { is: 'rate', of: 'cost', per: 'cost' }] })).toEqual([]);
    for (const wrong of [
      ...[{ totals: [] }, { by: 'notes' }, { parts: 'cost' }, { by: 'area' }, { totals: [{ is: 'sum', of: null }] }],
      ...[{ totals: [{ is: 'rate', of: 'cost', per: 'notes' }] }, { totals: [{ ...share, when: 'bad' }] }],
      ...[{ totals: [{ ...share, when: '' }] }, { totals: [{ ...share, word: ' ' }] }],
    ])
      expect(added(wrong), JSON.stringify(wrong)).toEqual(['shapes 0']);
    expect(added({ totals: [{ is: 'rate', of: 'cost', per: 'gone' }] })).toEqual(['shapes']);
    expect(['photo', 'papers', 'cost'].map((picture) => foundAt({ shapes: [{ is: 'gallery', picture }] }))).toEqual([
      ...[[], ['shapes 0'], ['shapes 0']],
    ]);
    // What a request is due by is closed here: where it would stand tells it.
    expect(foundAt({ shapes: [{ ...calendar, from: 'request.due' }] })).toEqual(['shapes 0']);
    expect(foundAt({ audience: { in: { anyOf: [] }, outOf: [] } })).toEqual(['audience']);
  });

  it('names the registers and the groups it depends on', () => {
    const named = VIEW.refersTo({ ...VIEWED, audience: { in: { anyOf: ['boats', '@p'] }, outOf: [] } });
    expect(named.map(({ kind, key }) => `${kind} ${key}`)).toEqual(['register vessels', 'group boats', 'person p']);
  });

  it('reads as one sentence, of the parts it has', () => {
    const names = { register: (key: string) => key, fields: FIELDS, scope };
    const partsOf = (view: ViewDesign): unknown =>
      (viewInWords(view, names) as unknown as { with: { parts: { say: string }[] } }).with.parts.map(({ say }) => say);
    expect(partsOf(VIEWED)).toEqual(['views:says.of']);
    expect(
      partsOf({
        ...VIEWED,
        when: 'cost > 3',
        groups: ['area', 'request.stage'],
        orders: [{ of: 'leaves', down: true }],
      }),
    ).toEqual(['views:says.of', 'views:says.when', 'views:says.groups', 'views:says.orders']);
  });
});
