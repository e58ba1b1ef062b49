import { asking, designOf } from '@tolvek/core/form';
import { computed, type DemoForm, ground, options, rule, section } from './ground.ts';

const design = designOf(
  ground('Dive plan', 'dive-safety', 'dive-safety'),
  '{site}, {day}',
  [
    asking(
      'site',
      'Site',
      { kind: 'choice', options: options(['pier', 'Pier'], ['kelp', 'Kelp forest'], ['wreck', 'Wreck of the Hallow']) },
      { asks: 'Where will you dive?' },
    ),
    asking('day', 'Day', { kind: 'date', notBeforeToday: true }, { asks: 'On which day?' }),
    asking(
      'depth',
      'Greatest depth',
      { kind: 'number', places: 1, least: 0, most: 50, unit: 'm' },
      { asks: 'How deep at most?' },
    ),
    asking('bottom_time', 'Time on the bottom', { kind: 'duration', most: 180 }, { asks: 'How long on the bottom?' }),
    asking(
      'gas',
      'Gas',
      { kind: 'choice', options: options(['air', 'Air'], ['ean32', 'Nitrox 32'], ['ean36', 'Nitrox 36']) },
      { asks: 'Which gas?' },
    ),
    section('divers', 'The divers'),
    asking(
      'divers',
      'Divers',
      {
        kind: 'line-items',
        least: 2,
        most: 6,
        columns: [
          { key: 'name', label: 'Diver', type: { kind: 'text', most: 80 }, required: true },
          {
            key: 'grade',
            label: 'Grade',
            type: {
              kind: 'level',
              levels: [10, 20, 30].map((worth, index) => ({
                worth,
                label: ['trainee', 'scientific diver', 'dive leader'][index] ?? '',
              })),
            },
            required: true,
          },
          {
            key: 'checked',
            label: 'Medical valid until',
            type: { kind: 'date', notBeforeToday: true },
            required: true,
          },
        ],
      },
      { asks: 'Who dives?', help: 'At least two, one of them a dive leader.' },
    ),
    asking(
      'medical',
      'Medical',
      { kind: 'long-text', most: 1_000 },
      {
        asks: 'Anything medical the dive officer should know?',
        help: 'Only the dive officers and you can read this.',
        required: false,
      },
    ),
  ],
  [computed('leaders', 'Dive leaders', { kind: 'number', places: 0 }, 'count(divers[grade >= 30])')],
);

export const dive: DemoForm = {
  prefix: 'DP',
  desk: 'dive-safety',
  doors: { staff: true, outside: false },
  design: {
    ...design,
    intro: 'Every dive from the station needs a plan that a dive officer has agreed to.',
    rules: [
      rule(
        'rule-nitrox',
        'Nitrox has a floor',
        'gas = "ean36" and depth > 28',
        [
          {
            do: 'refuse',
            field: 'depth',
            text: 'Nitrox 36 is not breathed below 28 m.',
            fix: 'Choose a leaner gas or a lesser depth.',
          },
        ],
        { says: 'Partial pressure of oxygen at most 1.4 bar: (1.4 / 0.36 − 1) × 10 m.', runs: 'saving' },
      ),
      rule(
        'rule-leader',
        'A dive leader goes along',
        'count(divers) > 0 and leaders < 1',
        [
          {
            do: 'refuse',
            field: 'divers',
            text: 'None of the divers is a dive leader.',
            fix: 'Add one, or change a grade.',
          },
        ],
        { runs: 'saving' },
      ),
      rule('rule-deep', 'Deep dives are short', 'depth > 30 and bottom_time > duration("PT20M")', [
        {
          do: 'warn',
          field: 'bottom_time',
          text: 'More than 20 minutes below 30 m means stops on the way up; write them into the plan.',
        },
      ]),
    ],
    routing: {
      columns: [],
      rows: [],
      otherwise: { team: 'dive-safety', priority: 'high', workingDays: 2, path: 'path' },
    },
  },
};
