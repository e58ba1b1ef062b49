import type { Audience } from '@tolvek/core/people';
import type { ViewDesign } from '@tolvek/core/view';

const columns = (...subjects: readonly string[]): ViewDesign['columns'] => subjects.map((of) => ({ of }));
const FOR_ALL: Audience = { in: { everyone: true }, outOf: [] };

/** Views that the desk made for itself, with whose they are. */
export const VIEWS: readonly { readonly by: string; readonly view: ViewDesign }[] = [
  {
    by: 'Bram Solheim',
    view: {
      ...{ name: 'Trips ahead', of: ['vessel-time'], when: 'request.phase != "finished"' },
      columns: columns(
        'request.subject',
        'purpose',
        'leaves',
        'returns',
        'persons',
        'request.stage',
        'request.due',
        'cost',
      ),
      ...{ groups: ['vessel'], orders: [{ of: 'leaves', down: false }] },
      marks: [{ when: 'area = "open"', colour: 'clay', word: 'open sea' }],
      shapes: [
        { is: 'calendar', from: 'leaves', to: 'returns', lines: 'vessel' },
        { is: 'board', by: 'request.stage', lanes: 'vessel' },
        { is: 'table' },
        {
          ...{ is: 'chart', as: 'bars', by: 'vessel', each: 'month', parts: 'area' },
          measure: { is: 'sum', of: 'hours' },
        },
      ],
      audience: { in: { anyOf: ['boats'] }, outOf: [] },
    },
  },
  {
    by: 'Maren Okafor',
    view: {
      ...{ name: 'Who is on site', of: ['site-access'], when: '' },
      columns: columns('request.subject', 'institute', 'arrival', 'departure', 'escort', 'request.stage'),
      ...{ groups: [], orders: [{ of: 'arrival', down: false }] },
      marks: [{ when: 'works_on_water', colour: 'sea', word: 'on water' }],
      shapes: [
        { is: 'calendar', from: 'arrival', to: 'departure', lines: null },
        { is: 'table' },
        {
          ...{ is: 'chart', as: 'bars', by: 'arrival', each: 'week', parts: null },
          measure: { is: 'count', of: null },
        },
      ],
      audience: FOR_ALL,
    },
  },
  {
    by: 'Maren Okafor',
    view: {
      ...{
        name: 'Unfinished by handler',
        of: ['site-access', 'purchase', 'vessel-time'],
        when: 'request.phase != "finished"',
      },
      columns: columns('request.subject', 'requester.person', 'request.due'),
      ...{ groups: ['request.handler'], orders: [{ of: 'request.due', down: false }] },
      ...{ marks: [], shapes: [{ is: 'board', by: 'request.handler', lanes: 'request.priority' }, { is: 'table' }] },
      audience: FOR_ALL,
    },
  },
  {
    by: 'Maren Okafor',
    view: {
      ...{ name: 'Who can do what', of: ['my-skills'], when: '' },
      columns: columns('person', 'skill', 'level', 'since', 'checked', 'paper'),
      ...{ groups: ['skill'], orders: [{ of: 'level', down: true }], marks: [] },
      shapes: [
        {
          ...{ is: 'matrix', down: 'person', across: 'skill', cell: { is: 'most', of: 'level' } },
          ...{ wanted: { figure: 3, cells: 2 }, fresh: { of: 'since', days: 730 } },
        },
        { is: 'table' },
      ],
      audience: FOR_ALL,
    },
  },
];
