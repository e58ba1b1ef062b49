import type { Audience } from '@tolvek/core/people';
import type { ReportDesign } from '@tolvek/core/report';
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
        {
          ...{ is: 'totals', by: 'leaves', each: 'week', parts: 'vessel' },
          totals: [
            { is: 'count', of: null },
            { is: 'sum', of: 'hours' },
            { is: 'sum', of: 'cost' },
            { is: 'rate', of: 'cost', per: 'hours' },
            { is: 'share', when: 'area = "open"', word: 'in open sea' },
          ],
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
  {
    by: 'Maren Okafor',
    view: {
      ...{ name: 'Kit there is', of: ['kit'], when: '' },
      columns: columns('request.subject', 'grade', 'shelf', 'worth', 'keeper'),
      ...{ groups: ['grade'], orders: [{ of: 'worth', down: true }] },
      marks: [{ when: 'worth > 3000', colour: 'clay', word: 'handle with care' }],
      shapes: [{ is: 'gallery', picture: 'photo' }, { is: 'table' }],
      audience: { in: { anyOf: ['stores'] }, outOf: [] },
    },
  },
];

/** The report of the desk. `viewOf`: the id of a view by its name. */
export const reportOfDesk = (viewOf: (name: string) => string): ReportDesign => ({
  ...{ name: 'The month at the desk', over: 'month', sends: [], audience: FOR_ALL },
  parts: [
    {
      is: 'words',
      title: '',
      text: 'What came, what went, and who has how much. Written for the meeting on the first Monday of the month.',
    },
    {
      is: 'figures',
      title: '',
      figures: [
        {
          ...{ view: viewOf('Who is on site'), by: 'arrival', label: 'visitors on site' },
          measure: { is: 'count', of: null },
        },
        {
          ...{ view: viewOf('Who is on site'), by: 'arrival', label: 'fees asked' },
          measure: { is: 'sum', of: 'fee' },
        },
        {
          ...{ view: viewOf('Unfinished by handler'), by: null, label: 'not finished' },
          measure: { is: 'count', of: null },
        },
      ],
    },
    { is: 'times', title: 'How long it took', of: '', by: 'form', shown: 'lines' },
    { is: 'times', title: 'Who has how much', of: '', by: 'handler', shown: 'open' },
    {
      ...{ is: 'view', title: 'Visitors, week by week', view: viewOf('Who is on site'), by: 'arrival', rows: 10 },
      shape: {
        ...{ is: 'chart', as: 'bars', by: 'arrival', each: 'week', parts: null },
        measure: { is: 'count', of: null },
      },
    },
    {
      ...{ is: 'view', title: 'What waits longest', view: viewOf('Unfinished by handler'), by: null, rows: 8 },
      shape: { is: 'table' },
    },
  ],
});
