import type { RawAnswers } from '@tolvek/core/register';

/**
 * A few requests for each of the scenario’s other forms, each so many days before the demo begins,
 * by whom.
 */
export interface AskedOnce {
  readonly form: string;
  readonly by: string;
  readonly daysAgo: number;
  /** Answers, with days counted from the demo’s first day, and things by what they are called. */
  readonly answers: (day: (offset: number) => string, thing: (name: string) => string) => RawAnswers;
}

const line = (what: string, count: number, price: string, vat = 'full') => ({ what, count, price, vat });

export const ASKED: readonly AskedOnce[] = [
  {
    form: 'purchase',
    by: 'Priya Nakamura-Lind',
    daysAgo: 9,
    answers: () => ({
      purpose: 'Nutrient lines, winter cruise',
      budget: 'MB2041',
      lines: [line('Filter discs, 100', 6, '38.50'), line('Sample bottles, 250 ml', 200, '1.15')],
    }),
  },
  {
    form: 'purchase',
    by: 'Ruadhan Pell',
    daysAgo: 4,
    answers: (day) => ({
      purpose: 'Camera vehicle repair',
      budget: 'RV1100',
      needed_by: day(20),
      lines: [line('Thruster', 2, '1,480.00'), line('Tether, 50 m', 1, '2,960.00')],
      offers: 'Three yards asked; this was the only one with stock before March.',
    }),
  },
  {
    form: 'purchase',
    by: 'Hanne Istvan',
    daysAgo: 1,
    answers: () => ({
      purpose: 'Field guides',
      budget: 'ED0300',
      lines: [line('Seaweeds of cold coasts', 4, '42.00', 'none')],
    }),
  },
  {
    form: 'vessel-time',
    by: 'Mireille Thorsby',
    daysAgo: 6,
    answers: (day, thing) => ({
      vessel: thing('Arctic Tern'),
      purpose: 'Kelp transects 3 to 7',
      leaves: `${day(8)}T08:00`,
      returns: `${day(8)}T17:30`,
      area: 'coast',
      persons: 6,
      sea_state: 20,
      gear: ['frame', 'ctd'],
      budget: thing('MB2041'),
    }),
  },
  {
    form: 'vessel-time',
    by: 'Declan Oyelaran',
    daysAgo: 3,
    answers: (day, thing) => ({
      vessel: thing('Skiff'),
      purpose: 'Tide gauge',
      leaves: `${day(3)}T09:00`,
      returns: `${day(3)}T11:00`,
      area: 'bay',
      persons: 2,
      sea_state: 10,
      budget: thing('OC1200'),
    }),
  },
  {
    form: 'sample-analysis',
    by: 'Saoirse Lindqvist',
    daysAgo: 5,
    answers: (day) => ({
      project: 'Outer bay, autumn',
      arrive: day(4),
      frozen: true,
      freezer: '12.5',
      samples: [
        { label: 'OB-1', matrix: 'sea_water', method: 'nutrients', runs: 2 },
        { label: 'OB-2', matrix: 'sea_water', method: 'nutrients', runs: 2 },
        { label: 'OB-S1', matrix: 'sediment', method: 'metals', runs: 3 },
      ],
    }),
  },
  {
    form: 'dive-plan',
    by: 'Ruadhan Pell',
    daysAgo: 2,
    answers: (day) => ({
      site: 'kelp',
      day: day(6),
      depth: '14',
      bottom_time: '45',
      gas: 'ean32',
      divers: [
        { name: 'Ruadhan Pell', grade: 30, checked: day(200) },
        { name: 'Mireille Thorsby', grade: 20, checked: day(90) },
      ],
      medical: 'Mild cold last week, cleared by the doctor.',
    }),
  },
  {
    form: 'field-kit-loan',
    by: 'Priya Nakamura-Lind',
    daysAgo: 7,
    answers: (day, thing) => ({
      tagged: [thing('LM-02'), thing('UC-03')],
      things: [
        { what: 'Quadrat, 50 cm', count: 4 },
        { what: 'Hand corer', count: 1 },
      ],
      out_on: day(2),
      due_back: day(16),
    }),
  },
  {
    form: 'concern-report',
    by: 'Saoirse Lindqvist',
    daysAgo: 8,
    answers: (day) => ({
      about: 'safety',
      what_happened: 'The gate of the winch deck did not close while the frame was lifted.',
      when: day(-9),
      reply: false,
    }),
  },
  {
    form: 'my-skills',
    by: 'Signe Halvard',
    daysAgo: 3,
    answers: () => ({ skill: 'skipper', level: '4', paper: 'Coastal master 2026' }),
  },
];
