import { ASKING, type Edition } from '@tolvek/core/form';

/** Those who work at the station for a firm of their own, and one who is of the staff as well. */
export const CONTRACTORS: readonly string[] = [
  ...['Maud Ferriter', 'Odo Sprake', 'Runa Haldor', 'Jem Torrance', 'Katrin Vole', 'Lars Mabey', 'Nell Garrow'],
  'Jory Blackadder-Finn',
];

/** The teams that make up the station’s staff. */
const STATION = ['estates', 'boats', 'lab', 'dive-safety', 'stores', 'purchasing', 'outreach'];

/** Who is asked otherwise on the site access form. `contractors`: the key of their group. */
export const siteEditions = (contractors: string): readonly Edition[] => [
  {
    ...{ id: 'edition-1', name: 'Contractors', on: true, when: '' },
    audience: { in: { anyOf: [contractors] }, outOf: STATION },
    title: 'Come and work on site',
    intro: 'For firms that work here. Ask at least two days ahead, and send one request for each person.',
    differences: [
      {
        ...{ does: 'reword', part: 'reason', asks: 'Which works, and who ordered them?' },
        help: 'Name the order, and the tools or machines you bring.',
      },
      { does: 'require', part: 'fee' },
      { does: 'reword', part: 'fee', help: 'What you charge for the work, without tax.' },
      { does: 'offer', part: 'institute', offers: ['haldane', 'other'] },
      {
        ...{ does: 'add', after: 'reason' },
        adds: {
          ...{ part: 'instruction', id: 'own-words-1' },
          text: 'The gate opens at 07:30. Works on the roof or with open fire need a permit: write to Estates before you come.',
        },
      },
    ],
  },
  {
    ...{ id: 'edition-2', name: 'Visiting scientists', on: true, when: '' },
    audience: { in: { anyOf: ['?me.institute in ("corrin", "tarnbay", "merrow", "greysound")'] }, outOf: [] },
    differences: [
      {
        ...{ does: 'reword', part: 'reason', asks: 'Which project, and who here do you work with?' },
        help: 'Name the project and the instruments you bring.',
      },
      { does: 'move', part: 'works_on_water', after: 'reason' },
    ],
  },
  {
    ...{ id: 'edition-3', name: 'Station staff', on: true, when: '', stages: [ASKING] },
    audience: { in: { anyOf: STATION }, outOf: [] },
    intro:
      'For your guests. Ask at least two days ahead; you hear from us within the working days shown when you send it.',
    differences: [
      { does: 'reword', part: 'visitor', asks: 'Whom do you expect?' },
      { does: 'preset', part: 'institute', preset: { from: 'fixed', value: 'station' } },
    ],
  },
];
