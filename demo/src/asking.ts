import type { RawAnswers } from '@tolvek/core/register';

/**
 * What is known where an answer is made up: chance, the day it is asked, and the things that can be
 * chosen.
 */
export interface Asking {
  readonly random: () => number;
  /** Days since 1970. */
  readonly day: number;
  /** The id of a thing, by its name, tag or code. */
  readonly thing: (called: string) => string;
}

interface MadeUp {
  readonly form: string;
  /** How often it is asked, beside the others. */
  readonly share: number;
  readonly by: readonly string[];
  readonly answers: (asking: Asking) => RawAnswers;
}

const pickFrom =
  ({ random }: Asking) =>
  <T>(list: readonly T[]): T =>
    list[Math.floor(random() * list.length)] as T;
const between = ({ random }: Asking, least: number, most: number): number =>
  least + Math.floor(random() * (most - least + 1));
const dayAfter = ({ day }: Asking, offset: number): string =>
  new Date((day + offset) * 86_400_000).toISOString().slice(0, 10);
const clock = (hours: number): string => `${String(hours).padStart(2, '0')}:00`;

const BUYS = [
  ['Filter discs, 100', '38.50', 'full'],
  ['Sample bottles, 250 ml', '1.15', 'full'],
  ['Nitrile gloves, box', '11.90', 'full'],
  ['Mooring rope, 12 mm, 50 m', '96.00', 'full'],
  ['Shackles, stainless', '8.40', 'full'],
  ['Depth sensor', '890.00', 'full'],
  ['Wetsuit boots', '54.00', 'reduced'],
  ['Tide tables, next year', '18.00', 'none'],
  ['Camera housing', '1,340.00', 'full'],
  ['Freezer, 300 l', '720.00', 'full'],
] as const;

const VAT = { full: 1.23, reduced: 1.135, none: 1 } as const;

/** Requests of the scenario’s forms besides site access, each as somebody might ask it. */
export const MADE_UP: readonly MadeUp[] = [
  {
    form: 'purchase',
    share: 20,
    by: [
      'Priya Nakamura-Lind',
      'Ruadhan Pell',
      'Hanne Istvan',
      'Declan Oyelaran',
      'Saoirse Lindqvist',
      'Jory Blackadder-Finn',
    ],
    answers: (asking) => {
      const pick = pickFrom(asking);
      const lines = Array.from({ length: between(asking, 1, 4) }, () => {
        const [what, price, vat] = pick(BUYS);
        return { what, count: between(asking, 1, price.length > 5 ? 3 : 12), price, vat };
      });
      const dear =
        lines.reduce((sum, line) => sum + line.count * Number(line.price.replace(',', '')) * VAT[line.vat], 0) > 5_000;
      return {
        purpose: pick([
          'Nutrient lines',
          'Autumn transects',
          'Spare parts for the pier',
          'Teaching week',
          'Wet lab refill',
          'Buoy service',
          'Camera vehicle',
        ]),
        budget: pick(['MB2041', 'OC1200', 'RV1100', 'ED0300']),
        lines,
        ...(asking.random() < 0.4 ? { needed_by: dayAfter(asking, between(asking, 5, 40)) } : {}),
        ...(dear ? { offers: 'Three firms asked; this was the best of those that could deliver in time.' } : {}),
      };
    },
  },
  {
    form: 'vessel-time',
    share: 14,
    by: ['Mireille Thorsby', 'Declan Oyelaran', 'Priya Nakamura-Lind', 'Ruadhan Pell'],
    answers: (asking) => {
      const pick = pickFrom(asking);
      const [boat, most] = pick([
        ['Saithe', 8],
        ['Arctic Tern', 12],
        ['Skiff', 4],
        ['Guillemot', 6],
      ] as const);
      const [day, leaves] = [dayAfter(asking, between(asking, 2, 24)), between(asking, 7, 13)];
      const hours = between(asking, 2, 8);
      return {
        vessel: asking.thing(boat),
        purpose: pick([
          'Kelp transects',
          'Tide gauge',
          'Plankton nets',
          'Mooring service',
          'Seal count',
          'Sediment cores',
          'Class on the water',
        ]),
        leaves: `${day}T${clock(leaves)}`,
        returns: `${day}T${clock(leaves + hours)}`,
        area: boat === 'Skiff' ? 'bay' : pick(['bay', 'coast', 'coast']),
        persons: between(asking, 1, Math.min(most, 6)),
        sea_state: pick([10, 20, 20, 30]),
        ...(boat === 'Skiff' ? {} : { gear: pick([[], ['winch'], ['frame', 'ctd'], ['rov'], ['Two kayaks']]) }),
        budget: asking.thing(pick(['MB2041', 'OC1200', 'RV1100'])),
      };
    },
  },
  {
    form: 'sample-analysis',
    share: 12,
    by: ['Saoirse Lindqvist', 'Priya Nakamura-Lind', 'Mireille Thorsby'],
    answers: (asking) => {
      const pick = pickFrom(asking);
      const [matrix, methods] = pick([
        ['sea_water', ['nutrients', 'chlorophyll']],
        ['pore_water', ['nutrients']],
        ['sediment', ['metals']],
        ['muscle', ['metals']],
        ['liver', ['metals']],
      ] as const);
      const tissue = matrix === 'muscle' || matrix === 'liver';
      const frozen = tissue || asking.random() < 0.3;
      const project = pick(['Outer bay', 'River mouth', 'Seal diets', 'Seagrass beds', 'Harbour works']);
      return {
        project,
        samples: Array.from({ length: between(asking, 1, 9) }, (_, index) => ({
          label: `${project.slice(0, 2).toUpperCase()}-${index + 1}`,
          matrix,
          method: pick(methods),
          runs: between(asking, 1, 3),
        })),
        ...(tissue ? { species: pick([['grey_seal'], ['cod', 'saithe'], ['blue_mussel'], ['harbour_porpoise']]) } : {}),
        arrive: dayAfter(asking, between(asking, 1, 12)),
        frozen,
        ...(frozen ? { freezer: `${between(asking, 2, 30)}.5` } : {}),
      };
    },
  },
  {
    form: 'field-kit-loan',
    share: 11,
    by: ['Priya Nakamura-Lind', 'Mireille Thorsby', 'Ruadhan Pell', 'Hanne Istvan', 'Declan Oyelaran'],
    answers: (asking) => {
      const pick = pickFrom(asking);
      const out = between(asking, 1, 10);
      return {
        ...(asking.random() < 0.7
          ? {
              things: [
                {
                  what: pick(['Quadrat, 50 cm', 'Buckets', 'Measuring tape', 'Dry bags', 'Life jackets']),
                  count: between(asking, 1, 8),
                },
              ],
            }
          : {}),
        tagged: [...new Set([pick(['DS-04', 'DS-07', 'HC-01']), pick(['UC-03', 'LM-02', 'CM-05', 'QS-11'])])].map(
          asking.thing,
        ),
        out_on: dayAfter(asking, out),
        due_back: dayAfter(asking, out + between(asking, 2, 35)),
      };
    },
  },
  {
    form: 'dive-plan',
    share: 6,
    by: ['Ruadhan Pell', 'Mireille Thorsby'],
    answers: (asking) => {
      const pick = pickFrom(asking);
      const gas = pick(['air', 'ean32', 'ean36']);
      const diver = (name: string, grade: number) => ({
        name,
        grade,
        checked: dayAfter(asking, between(asking, 30, 400)),
      });
      return {
        site: pick(['pier', 'kelp', 'wreck']),
        day: dayAfter(asking, between(asking, 2, 14)),
        depth: String(between(asking, 6, gas === 'ean36' ? 26 : 34)),
        bottom_time: pick(['20', '35', '45', '0:50']),
        gas,
        divers: [diver('Ruadhan Pell', 30), diver(pick(['Mireille Thorsby', 'Saoirse Lindqvist']), 20)],
      };
    },
  },
  {
    form: 'concern-report',
    share: 2,
    by: ['Saoirse Lindqvist', 'Hanne Istvan', 'Declan Oyelaran'],
    answers: (asking) => ({
      about: pickFrom(asking)(['safety', 'safety', 'conduct', 'other']),
      what_happened: pickFrom(asking)([
        'The gate of the winch deck did not close.',
        'Oil on the slipway again.',
        'Nobody stood watch while the crane was used.',
      ]),
      when: dayAfter(asking, -between(asking, 0, 6)),
      reply: false,
    }),
  },
];

export const SCHOOLS: readonly string[] = [
  'St. Brannoc’s',
  'Harbour View',
  'Lisnagar National',
  'Tarn Valley',
  'Gorse Hill',
  'Kilmorrow',
  'The Old Quay School',
  'Ardfern',
];

/** A school that asks for a morning; each asks once. */
export const schoolVisit = (asking: Asking, school: string): RawAnswers => ({
  school,
  visit_day: pickFrom(asking)(['mar_03', 'mar_10', 'mar_17']),
  pupils: between(asking, 12, 30),
  age: [pickFrom(asking)(['small', 'middle', 'older'])],
  phone: '01 5550142',
});
