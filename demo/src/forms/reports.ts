import { asking, designOf } from '@tolvek/core/form';
import { type DemoForm, ground, options, rule } from './ground.ts';

/** What is asked of whoever had a boat, a day after the trip. */
export const tripReport: DemoForm = {
  prefix: 'TR',
  desk: 'boats',
  doors: { staff: false, outside: true },
  design: {
    ...designOf(ground('Trip report', 'boats'), '{trip}: {went}', [
      asking(
        'trip',
        'Trip',
        { kind: 'reference', register: 'vessel-time', shows: ['purpose'], among: 'mine' },
        { asks: 'Which trip is it about?' },
      ),
      asking(
        'went',
        'How it went',
        {
          kind: 'choice',
          options: options(['planned', 'As planned'], ['changed', 'Otherwise than planned'], ['not', 'Not at all']),
        },
        { asks: 'How did it go?' },
      ),
      asking(
        'at_sea',
        'Hours at sea',
        { kind: 'number', places: 1, least: 0, most: 48, unit: 'h' },
        { asks: 'How many hours were you out?', required: false },
      ),
      asking(
        'mark',
        'Mark',
        { kind: 'number', places: 0, least: 1, most: 5 },
        { asks: 'How well did we prepare it, from 1 (badly) to 5 (very well)?' },
      ),
      asking(
        'told',
        'What to do better',
        { kind: 'long-text' },
        { asks: 'What should we do better?', required: false },
      ),
    ]),
    intro: 'Five questions about your trip. Boats reads the answers before the next one.',
    rules: [
      rule('rule-went', 'Why it was otherwise is asked', 'went != "planned"', [{ do: 'require', fields: ['told'] }]),
    ],
  },
};

/** What whoever keeps a thing of the kit is asked each year. */
export const kitCheck: DemoForm = {
  prefix: 'KC',
  desk: 'stores',
  doors: { staff: true, outside: false },
  design: {
    ...designOf(ground('Kit check', 'stores'), '{thing}: {found}', [
      asking(
        'thing',
        'Thing',
        { kind: 'reference', register: 'kit', shows: ['name', 'tag'], among: 'all' },
        { asks: 'Which thing did you look at?' },
      ),
      asking(
        'found',
        'State',
        {
          kind: 'choice',
          options: options(['fine', 'In order'], ['repair', 'Needs a repair'], ['gone', 'Not to be found']),
        },
        { asks: 'In which state is it?' },
      ),
      asking(
        'shelf_is',
        'Lies on',
        { kind: 'text', most: 12 },
        { asks: 'On which shelf does it lie?', required: false },
      ),
      asking('wrong', 'What is wrong', { kind: 'long-text' }, { asks: 'What is wrong with it?', required: false }),
    ]),
    intro: 'Take it in your hand, look whether it is whole, and say where it lies.',
    rules: [rule('rule-wrong', 'What is wrong is said', 'found = "repair"', [{ do: 'require', fields: ['wrong'] }])],
  },
};
