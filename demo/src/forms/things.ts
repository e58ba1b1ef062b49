import { asking, designOf } from '@tolvek/core/form';
import type { RawAnswers, Vocabulary } from '@tolvek/core/register';
import { type DemoForm, ground, options } from './ground.ts';

const thing = (form: Omit<DemoForm, 'doors' | 'holds'>): DemoForm => ({
  ...form,
  doors: { staff: true, outside: false },
  holds: 'things',
});

const photo = (asks: string) =>
  asking('photo', 'Photo', { kind: 'files', only: 'pictures', most: 1 }, { asks, required: false });

export const vessels = thing({
  prefix: 'VS',
  desk: 'boats',
  design: {
    ...designOf(ground('Vessels', 'boats'), '{name}', [
      asking('name', 'Name', { kind: 'text' }, { asks: 'What is she called?' }),
      asking('what', 'What she is', { kind: 'text' }, { asks: 'What is she?' }),
      asking(
        'berths',
        'Persons',
        { kind: 'number', places: 0, least: 1, unit: 'persons' },
        { asks: 'How many persons may she carry, without the crew?' },
      ),
      asking(
        'rate',
        'Rate an hour',
        { kind: 'money', currency: 'EUR', least: 0 },
        { asks: 'What does she cost an hour?' },
      ),
      asking('bay_only', 'In the bay only', { kind: 'yes-no' }, { asks: 'Does she stay in the bay?' }),
      asking('place', 'Berth', { kind: 'text' }, { asks: 'Where does she lie?', required: false }),
      photo('A photo of her'),
    ]),
    intro: 'The station’s boats. What is changed here is followed wherever a trip is asked for.',
  },
});

export const kitStore = thing({
  prefix: 'KI',
  desk: 'stores',
  design: {
    ...designOf(ground('Kit', 'stores'), '{name}, {tag}', [
      asking('name', 'Name', { kind: 'text' }, { asks: 'What is it?' }),
      asking('tag', 'Tag', { kind: 'text', most: 12 }, { asks: 'What is written on it?' }),
      asking('shelf', 'Shelf', { kind: 'text', most: 12 }, { asks: 'Where does it lie?' }),
      asking(
        'worth',
        'Worth',
        { kind: 'money', currency: 'EUR', least: 0 },
        { asks: 'What would it cost anew?', required: false },
      ),
      asking(
        'grade',
        'For whom',
        { kind: 'choice', options: options(['anyone', 'Anyone'], ['trained', 'Only with an induction']) },
        { asks: 'Who may take it?' },
      ),
      asking('keeper', 'Kept by', { kind: 'person', from: [] }, { asks: 'Who looks after it?', required: false }),
      photo('A photo of it'),
    ]),
    intro: 'What Stores lends, one entry for each thing with a tag.',
  },
});

export const budgets = thing({
  prefix: 'BC',
  desk: 'purchasing',
  design: {
    ...designOf(ground('Budget codes', 'purchasing'), '{code} {name}', [
      asking('code', 'Code', { kind: 'text', most: 12 }, { asks: 'Which code?' }),
      asking('name', 'Name', { kind: 'text' }, { asks: 'What is it for?' }),
      asking('holder', 'Budget holder', { kind: 'person', from: [] }, { asks: 'Who answers for it?' }),
      asking('open_until', 'Open until', { kind: 'date' }, { asks: 'Until when can it be charged?' }),
    ]),
    intro: 'The codes that trips and purchases are charged to.',
  },
});

export const rooms = thing({
  prefix: 'RM',
  desk: 'estates',
  design: {
    ...designOf(ground('Rooms', 'estates'), '{name}, {building}', [
      asking('name', 'Name', { kind: 'text' }, { asks: 'What is it called?' }),
      asking('building', 'Building', { kind: 'text' }, { asks: 'In which building?' }),
      asking('seats', 'Seats', { kind: 'number', places: 0, least: 0 }, { asks: 'How many can sit there?' }),
      asking('step_free', 'Step-free', { kind: 'yes-no' }, { asks: 'Can it be reached without steps?' }),
    ]),
    intro: 'Rooms that can be asked for.',
  },
});

export const methods = thing({
  prefix: 'ME',
  desk: 'lab',
  design: {
    ...designOf(ground('Methods', 'lab'), '{name}', [
      asking('name', 'Name', { kind: 'text' }, { asks: 'What is it called?' }),
      asking(
        'matrices',
        'Matrices',
        { kind: 'terms', vocabulary: 'matrices' },
        { asks: 'What can be measured with it?' },
      ),
      asking('bench', 'Bench time a run', { kind: 'duration' }, { asks: 'How long does a run take?' }),
      asking('price', 'Price a run', { kind: 'money', currency: 'EUR', least: 0 }, { asks: 'What does a run cost?' }),
    ]),
    intro: 'What the Analytical Lab can measure.',
  },
});

/** Pictures of kit, by how its tags begin. */
const PHOTOS: Readonly<Record<string, string>> = { DS: 'drysuit', HC: 'corer', UC: 'camera', LM: 'meter', CM: 'meter' };

/** What is in those registers, by form. `person:` stands for one of the staff by name, `photo` for a picture of the demo. */
export const THINGS: readonly { readonly form: string; readonly answers: RawAnswers }[] = [
  ...[
    {
      name: 'Saithe',
      what: 'workboat',
      berths: 8,
      rate: '140',
      bay_only: false,
      place: 'North pier, 2',
      photo: 'saithe',
    },
    {
      name: 'Arctic Tern',
      what: 'survey catamaran',
      berths: 12,
      rate: '210',
      bay_only: false,
      place: 'North pier, 1',
      photo: 'arctic-tern',
    },
    { name: 'Skiff', what: 'open boat', berths: 4, rate: '45', bay_only: true, place: 'Slipway', photo: 'skiff' },
    {
      name: 'Guillemot',
      what: 'rigid inflatable',
      berths: 6,
      rate: '80',
      bay_only: false,
      place: 'Pontoon',
      photo: 'guillemot',
    },
  ].map((answers) => ({ form: 'vessels', answers })),
  ...(
    [
      ['Drysuit, medium', 'DS-04', 'C2', '1,450', 'trained', 'Priya Nakamura-Lind'],
      ['Drysuit, large', 'DS-07', 'C2', '1,450', 'trained', 'Priya Nakamura-Lind'],
      ['Hand corer', 'HC-01', 'A1', '620', 'anyone', 'Mireille Thorsby'],
      ['Hand corer', 'HC-02', 'A1', '620', 'anyone', 'Mireille Thorsby'],
      ['Underwater camera', 'UC-03', 'D4', '3,900', 'trained', 'Ruadhan Pell'],
      ['Light meter', 'LM-02', 'D1', '880', 'anyone', 'Declan Oyelaran'],
      ['Current meter', 'CM-05', 'D1', '5,200', 'trained', 'Declan Oyelaran'],
      ['Quadrat set', 'QS-11', 'A3', '', 'anyone', ''],
    ] as const
  ).map(([name, tag, shelf, worth, grade, keeper]) => ({
    form: 'kit',
    answers: {
      ...{ name, tag, shelf, worth, grade },
      ...(keeper === '' ? {} : { keeper: `person:${keeper}` }),
      ...(PHOTOS[tag.slice(0, 2)] === undefined ? {} : { photo: PHOTOS[tag.slice(0, 2)] ?? '' }),
    },
  })),
  ...(
    [
      ['MB2041', 'Kelp and seagrass', 'Mireille Thorsby', '2027-06-30'],
      ['OC1200', 'Tide and currents', 'Declan Oyelaran', '2027-12-31'],
      ['RV1100', 'Camera vehicle', 'Ruadhan Pell', '2027-03-31'],
      ['ED0300', 'Schools and open days', 'Hanne Istvan', '2027-12-31'],
      ['EX0007', 'Winter cruise', 'Priya Nakamura-Lind', '2026-10-31'],
    ] as const
  ).map(([code, name, holder, open_until]) => ({
    form: 'budget-codes',
    answers: { code, name, holder: `person:${holder}`, open_until },
  })),
  ...(
    [
      ['Tide room', 'Main building', 24, true],
      ['Wet lab 2', 'Laboratory', 8, true],
      ['Chart room', 'Boathouse', 10, false],
    ] as const
  ).map(([name, building, seats, step_free]) => ({ form: 'rooms', answers: { name, building, seats, step_free } })),
  ...(
    [
      ['Nutrients, flow analyser', ['sea_water', 'pore_water'], '15 min', '12'],
      ['Trace metals', ['sediment', 'tissue'], '40 min', '38'],
      ['Chlorophyll', ['sea_water'], '15 min', '9'],
    ] as const
  ).map(([name, matrices, bench, price]) => ({ form: 'methods', answers: { name, matrices, bench, price } })),
];

/** The terms the station’s forms share. */
export const VOCABULARIES: readonly Vocabulary[] = [
  {
    key: 'species',
    name: 'Species',
    terms: [
      { key: 'mammals', label: 'Mammals' },
      { key: 'seals', label: 'Seals', under: 'mammals' },
      { key: 'grey_seal', label: 'Grey seal', under: 'seals', also: ['Halichoerus grypus'] },
      { key: 'harbour_seal', label: 'Harbour seal', under: 'seals', also: ['Phoca vitulina', 'Common seal'] },
      { key: 'whales', label: 'Whales and dolphins', under: 'mammals' },
      { key: 'harbour_porpoise', label: 'Harbour porpoise', under: 'whales', also: ['Phocoena phocoena'] },
      { key: 'fish', label: 'Fish' },
      { key: 'cod', label: 'Atlantic cod', under: 'fish', also: ['Gadus morhua'] },
      { key: 'saithe', label: 'Saithe', under: 'fish', also: ['Coley', 'Pollachius virens'] },
      { key: 'sand_eel', label: 'Sand eel', under: 'fish', retired: true },
      { key: 'shellfish', label: 'Shellfish' },
      { key: 'blue_mussel', label: 'Blue mussel', under: 'shellfish', also: ['Mytilus edulis'] },
      { key: 'scallop', label: 'King scallop', under: 'shellfish', also: ['Pecten maximus'] },
      { key: 'common_mussel', label: 'Common mussel', under: 'shellfish', now: 'blue_mussel' },
      { key: 'seaweeds', label: 'Seaweeds' },
      { key: 'oarweed', label: 'Oarweed', under: 'seaweeds', also: ['Laminaria digitata'] },
      { key: 'sugar_kelp', label: 'Sugar kelp', under: 'seaweeds', also: ['Saccharina latissima'] },
      { key: 'dulse', label: 'Dulse', under: 'seaweeds', also: ['Palmaria palmata'] },
    ],
  },
  {
    key: 'matrices',
    name: 'Matrices',
    terms: [
      { key: 'water', label: 'Water' },
      { key: 'sea_water', label: 'Sea water', under: 'water' },
      { key: 'pore_water', label: 'Pore water', under: 'water' },
      { key: 'sediment', label: 'Sediment' },
      { key: 'tissue', label: 'Tissue' },
      { key: 'muscle', label: 'Muscle', under: 'tissue' },
      { key: 'liver', label: 'Liver', under: 'tissue' },
      { key: 'whole_animal', label: 'Whole animal', under: 'tissue' },
    ],
  },
];
