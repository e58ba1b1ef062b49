import { asking, designOf } from '@tolvek/core/form';
import { FIRST_LOOK, SAMPLES_HERE, withDeadlines } from './deadlines.ts';
import { computed, type DemoForm, deskOnly, ground, options, rule, section } from './ground.ts';

const design = designOf(
  ground('Sample analysis', 'lab'),
  '{project}, {how_many}',
  [
    asking('project', 'Project', { kind: 'text' }, { asks: 'For which project?' }),
    section('samples', 'The samples'),
    asking(
      'samples',
      'Samples',
      {
        kind: 'line-items',
        least: 1,
        most: 100,
        columns: [
          { key: 'label', label: 'Label on the tube', type: { kind: 'text', most: 30 }, required: true },
          { key: 'matrix', label: 'Matrix', type: { kind: 'term', vocabulary: 'matrices' }, required: true },
          {
            key: 'method',
            label: 'Method',
            type: {
              kind: 'choice',
              options: options(['nutrients', 'Nutrients'], ['metals', 'Trace metals'], ['chlorophyll', 'Chlorophyll']),
            },
            required: true,
          },
          { key: 'runs', label: 'Runs', type: { kind: 'number', places: 0, least: 1, most: 5 }, required: true },
          {
            key: 'minutes',
            label: 'Bench minutes',
            type: { kind: 'number', places: 0, unit: 'min' },
            required: false,
            formula: 'runs * (if method = "metals" then 40 else 15)',
          },
        ],
      },
      { asks: 'Which samples do you bring?', help: 'One line a tube; a list from a spreadsheet can be pasted.' },
    ),
    asking(
      'species',
      'Species',
      { kind: 'terms', vocabulary: 'species', most: 10 },
      { asks: 'Which species is the tissue from?', help: 'English or scientific names.' },
    ),
    asking('arrive', 'Samples arrive', { kind: 'date', notBeforeToday: true }, { asks: 'When do the samples arrive?' }),
    asking('frozen', 'Frozen', { kind: 'yes-no' }, { asks: 'Do they have to stay frozen?' }),
    asking(
      'freezer',
      'Freezer space',
      { kind: 'number', places: 1, least: 0, unit: 'l' },
      { asks: 'How much freezer space do they take?' },
    ),
    section('after', 'Afterwards'),
    asking(
      'return_by',
      'Keep until',
      { kind: 'date', notBefore: 'arrive' },
      { asks: 'Until when shall we keep what is left?', required: false },
    ),
  ],
  [
    {
      key: 'lab_number',
      label: 'Lab number',
      type: { kind: 'running-number', prefix: 'LAB-{year}-', digits: 4 },
      source: 'given',
    },
    computed('how_many', 'Number of samples', { kind: 'number', places: 0, unit: 'samples' }, 'count(samples)'),
    computed('bench_time', 'Bench time', { kind: 'number', places: 1, unit: 'h' }, 'sum(samples.minutes) / 60'),
    deskOnly('analyst', 'Analyst', { kind: 'person', from: ['lab'] }),
  ],
);

export const laboratory: DemoForm = {
  prefix: 'SA',
  desk: 'lab',
  doors: { staff: true, outside: false },
  design: {
    ...withDeadlines(design, [FIRST_LOOK, SAMPLES_HERE]),
    intro: 'The Analytical Lab measures nutrients, trace metals and chlorophyll.',
    rules: [
      rule(
        'rule-tissue',
        'Tissue is of a species',
        'some sample in samples satisfies is under(sample.matrix, "tissue")',
        [{ do: 'show', parts: ['species'] }],
      ),
      rule('rule-frozen', 'Frozen samples need space', 'frozen = true', [{ do: 'show', parts: ['freezer'] }]),
    ],
    routing: {
      columns: [{ id: 'time', label: 'Bench time', input: 'bench_time' }],
      rows: [
        {
          id: 'long',
          note: 'More than a day at the bench',
          cells: { time: '> 8' },
          outcome: {
            ...{ team: 'lab', priority: 'normal', workingDays: 15, path: 'path' },
            // Who has sampled at sea knows what came aboard; else whoever has the least to do.
            handler: { ways: [{ by: 'skill', skill: 'sampling', least: 3 }, { by: 'load' }] },
          },
        },
      ],
      otherwise: { team: 'lab', priority: 'normal', workingDays: 8, path: null },
    },
  },
};
