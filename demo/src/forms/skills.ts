import { asking, designOf } from '@tolvek/core/form';
import type { RawAnswers } from '@tolvek/core/register';
import { type DemoForm, ground, options, rule } from './ground.ts';

/** Who can do what, as they say themselves: what somebody sends changes their own entry once Boats has accepted it. */
export const skills: DemoForm = {
  prefix: 'SK',
  desk: 'boats',
  doors: { staff: true, outside: false },
  holds: 'things',
  design: {
    ...designOf(
      ground('My skills', 'boats'),
      '{skill}: {person}',
      [
        asking('person', 'Person', { kind: 'person', from: [] }, { asks: 'Whose skill is it?' }),
        asking(
          'skill',
          'Skill',
          {
            kind: 'choice',
            options: options(
              ['skipper', 'Skipper'],
              ['winch', 'Winch and crane'],
              ['sampling', 'Sampling at sea'],
              ['rescue', 'Rescue boat'],
              ['first_aid', 'First aid'],
            ),
          },
          { asks: 'Which skill is it about?' },
        ),
        asking(
          'level',
          'Level',
          { kind: 'number', places: 0, least: 1, most: 5 },
          { asks: 'How well can you do it, from 1 (with help) to 5 (I can teach it)?' },
        ),
        asking('since', 'Course on', { kind: 'date' }, { asks: 'When was your last course?', required: false }),
        asking(
          'paper',
          'Certificate',
          { kind: 'text', most: 40 },
          { asks: 'Which certificate do you hold?', required: false },
        ),
      ],
      [{ key: 'checked', label: 'Last checked', type: { kind: 'date' }, source: 'desk-only' }],
    ),
    intro: 'Boats plans the crews by this. Say what has changed, or that all of it is still right.',
    unique: [{ id: 'unique-skill', fields: ['person', 'skill'], among: 'all' }],
    rules: [
      rule('rule-skipper', 'Skippers hold a certificate', 'skill = "skipper"', [{ do: 'require', fields: ['paper'] }]),
    ],
    notices: {
      usual: [],
      rules: [
        {
          ...{ key: 'too-few', name: 'Too few can do it', when: 'level >= 3', to: [{ group: 'boats' }] },
          on: { is: 'group', by: 'skill', counts: 'fewer', than: 2 },
          ...{ subject: 'Too few for {group.name}', answers: false, goes: { goes: 'at-once' } },
          text: 'Only {group.count} can do {group.name} at level 3 or above now. Please plan a course.',
        },
      ],
    },
    updates: { whose: 'person', by: ['skill'], none: 'add', waits: true, stamps: 'checked' },
  },
};

/** What people said of themselves. */
export const SKILLED: readonly (readonly [string, RawAnswers])[] = [
  ['Bram Solheim', { skill: 'skipper', level: '5', paper: 'Coastal master 2019', since: '2024-04-11' }],
  ['Bram Solheim', { skill: 'winch', level: '4', since: '2023-10-02' }],
  ['Signe Halvard', { skill: 'skipper', level: '3', paper: 'Coastal mate 2022', since: '2025-03-18' }],
  ['Signe Halvard', { skill: 'rescue', level: '2', since: '2025-05-06' }],
  ['Yusuf Marchetti', { skill: 'winch', level: '2' }],
  ['Yusuf Marchetti', { skill: 'first_aid', level: '3', since: '2026-01-20' }],
  ['Saoirse Lindqvist', { skill: 'sampling', level: '4' }],
  ['Emeric Vantongeren', { skill: 'sampling', level: '3' }],
];
