import { asking, designOf, type Edition } from '@tolvek/core/form';
import {
  calledSo,
  carried,
  coloured,
  computed,
  type DemoForm,
  deskOnly,
  ground,
  options,
  page,
  rule,
  withPreset,
  words,
} from './ground.ts';

const design = designOf(
  ground('Vessel time', 'boats'),
  '{vessel}, {leaves}',
  [
    page('trip', 'The trip'),
    asking(
      'vessel',
      'Vessel',
      {
        ...{ kind: 'reference', register: 'vessels', shows: ['name', 'what'], among: 'all' },
        offered: 'it.stage = "in_use"',
        cards: { picture: 'photo', facts: ['berths', 'rate', 'bay_only', 'place'], unavailable: 'grey' },
      },
      { asks: 'Which boat?' },
    ),
    asking('purpose', 'Purpose', { kind: 'text' }, { asks: 'What will you do out there?' }),
    asking('leaves', 'Leaves', { kind: 'date-time', notBeforeNow: true }, { asks: 'When do you want to leave?' }),
    asking('returns', 'Returns', { kind: 'date-time', notBefore: 'leaves' }, { asks: 'When are you back?' }),
    asking(
      'area',
      'Area',
      {
        kind: 'choice',
        options: coloured(options(['bay', 'In the bay'], ['coast', 'Along the coast'], ['open', 'Open sea']), [
          'moss',
          'sea',
          'clay',
        ]),
      },
      { asks: 'Where to?' },
    ),
    asking('lone', 'Reason for open sea', { kind: 'long-text' }, { asks: 'Why does it have to be the open sea?' }),
    page('people', 'Who goes along'),
    asking('leader', 'Trip leader', { kind: 'person', from: [] }, { asks: 'Who leads the trip?' }),
    asking(
      'persons',
      'Persons',
      { kind: 'number', places: 0, least: 1, most: 12 },
      { asks: 'How many persons, without the crew?' },
    ),
    asking(
      'sea_state',
      'Highest sea state',
      {
        kind: 'level',
        levels: [10, 20, 30, 40].map((worth, index) => ({
          worth,
          label: ['calm', 'slight', 'moderate', 'rough'][index] ?? '',
        })),
      },
      { asks: 'Up to which sea state does the work make sense?' },
    ),
    asking(
      'gear',
      'Gear',
      {
        kind: 'choices',
        options: options(
          ['winch', 'Winch'],
          ['frame', 'A-frame'],
          ['rov', 'Camera vehicle', 'with its own operator'],
          ['ctd', 'Water sampler'],
        ),
        other: true,
      },
      { asks: 'Which gear do you need?', required: false },
    ),
    page('cost', 'What it costs'),
    words('cost', 'With these times the boat costs {cost}. Trips above € 1,500 are decided by a duty manager.'),
    asking(
      'budget',
      'Budget code',
      {
        kind: 'reference',
        register: 'budget-codes',
        shows: ['code', 'name'],
        among: 'all',
        offered: 'it.open_until >= today',
      },
      { asks: 'Which budget code pays?', help: 'Codes that can be charged today.' },
    ),
  ],
  [
    ...[
      computed('hours', 'Hours', { kind: 'number', places: 1, unit: 'h' }, '(returns - leaves) / duration("PT1H")'),
      carried('rate', 'Rate an hour', { kind: 'money', currency: 'EUR' }, 'vessel', 'rate', false),
      carried('bay_only', 'In the bay only', { kind: 'yes-no' }, 'vessel', 'bay_only', false),
      carried(
        'berths',
        'Persons she carries',
        { kind: 'number', places: 0, unit: 'persons' },
        'vessel',
        'berths',
        true,
      ),
      carried('holder', 'Budget holder', { kind: 'person', from: [] }, 'budget', 'holder', true),
      computed('cost', 'Cost', { kind: 'money', currency: 'EUR' }, 'hours * rate'),
    ].map(calledSo),
    deskOnly('skipper', 'Skipper', { kind: 'person', from: ['boats'] }),
    deskOnly('aboard', 'Aboard', { kind: 'people', from: [], most: 6 }),
  ],
);

/** Whoever reads a trip without working on it can come along, or ask. */
const readingAlong: Edition = {
  ...{ id: 'edition-1', name: 'Those who read along', on: true, when: '' },
  audience: { in: { everyone: true }, outOf: ['boats'] },
  stages: ['arrived', 'deciding', 'in_hand'],
  differences: [
    {
      ...{ does: 'add', after: 'purpose' },
      adds: {
        ...{ part: 'instruction', id: 'own-words-1' },
        text: 'There may be room for more. Whoever comes along is at the pier half an hour before {leaves}.',
        actions: [
          {
            ...{ id: 'button-1', does: 'take-part', field: 'aboard' },
            ...{ label: 'I’ll be aboard', back: 'I can’t come after all' },
          },
          { id: 'button-2', does: 'ask', label: 'Ask the skipper', asks: 'skipper' },
        ],
      },
    },
  ],
};

export const vessel: DemoForm = {
  prefix: 'VT',
  desk: 'boats',
  doors: { staff: true, outside: true },
  design: {
    ...withPreset(design, 'leader', { from: 'me' }),
    intro: 'Half-days and days on the station’s boats. Crew and fuel are in the price.',
    rules: [
      rule('rule-open', 'Open sea is explained', 'area = "open"', [{ do: 'show', parts: ['lone'] }]),
      rule(
        'rule-full',
        'No more than she carries',
        'persons > berths',
        [
          {
            do: 'refuse',
            field: 'persons',
            text: 'She carries fewer persons.',
            fix: 'Take fewer along, or choose another boat.',
          },
        ],
        { runs: 'saving' },
      ),
      rule('rule-skiff', 'Small boats stay in the bay', 'bay_only = true', [
        { do: 'limit', field: 'area', options: ['bay'] },
        { do: 'hide', parts: ['gear'] },
      ]),
      rule('rule-long', 'Long trips need a second skipper', 'hours > 10', [
        { do: 'warn', field: 'returns', text: 'More than ten hours need a second skipper; we look for one.' },
      ]),
    ],
    editions: [readingAlong],
    unique: [{ id: 'unique-1', fields: ['vessel', 'leaves'], among: 'unfinished' }],
    routing: {
      columns: [
        { id: 'cost', label: 'Cost', input: 'cost' },
        { id: 'outside', label: 'From outside', input: 'requester.outside' },
      ],
      rows: [
        {
          id: 'costly',
          note: 'Dear trips are decided',
          cells: { cost: '> 1500' },
          outcome: { team: 'boats', priority: 'high', workingDays: 3, path: 'path' },
        },
        {
          id: 'guests',
          note: 'Other institutes are decided',
          cells: { outside: 'true' },
          outcome: { team: 'boats', priority: 'normal', workingDays: 5, path: 'path' },
        },
      ],
      otherwise: { team: 'boats', priority: 'normal', workingDays: 3, path: null },
    },
  },
};
