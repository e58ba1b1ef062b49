import { KIND_CHANGES, KIND_NAMES, type Kind, type KindName, type RawAnswer } from '@tolvek/core/register';

/**
 * Every kind of field in every place a field can stand in; `kinds.test.ts` tries each pair that is
 * not marked.
 */
export const PLACES = [
  'form',
  'sheet',
  'ledger',
  'letter',
  'history',
  'condition',
  'rule',
  'formula',
  'default',
  'routing',
  'line items',
  'answer schema',
  'export',
  'import',
] as const;
export type Place = (typeof PLACES)[number];

export const PLACE_WORDS: Readonly<Record<Place, string>> = {
  form: 'asked on a form, read and stored',
  sheet: 'read on the request sheet, and changed there',
  ledger: 'named in what a request is called',
  letter: 'told in the letter that confirms a request',
  history: 'a change told with before and after',
  condition: 'a condition tried on past requests',
  rule: 'a rule of the form that depends on it',
  formula: 'a computed field that reads it',
  default: 'a default of its own',
  routing: 'a column of the routing table',
  'line items': 'a column of line items',
  'answer schema': 'in the JSON Schema of the form’s answers',
  export: 'a cell of the sheet that requests are taken out as',
  import: 'a cell of a sheet that requests are taken in from; what was taken out reads back',
};

const OPTIONS = [
  { key: 'red', label: 'Red buoy' },
  { key: 'green', label: 'Green buoy' },
];

export interface KindCase {
  readonly type: Kind;
  /** As it is typed, another answer to change it to, and how each reads. */
  readonly typed: RawAnswer;
  readonly other: RawAnswer;
  readonly shown: string;
  readonly otherShown: string;
  /** A condition that holds for the first answer and not for the other. */
  readonly condition: string;
  /** A test of a routing cell with the same meaning. */
  readonly cell: string;
  /** How the first answer stands in a sheet. */
  readonly sheet: string;
}

/**
 * One worked case for each kind. `F` is the field; people (`@`), things (`&`) and files (`#`) are
 * put in where the test knows them.
 */
export const CASES: Readonly<Record<KindName, KindCase>> = {
  text: {
    type: { kind: 'text' },
    typed: 'Pump seal',
    other: 'Rope',
    shown: 'Pump seal',
    otherShown: 'Rope',
    condition: 'F = "Pump seal"',
    cell: '"Pump seal"',
    sheet: 'Pump seal',
  },
  'long-text': {
    type: { kind: 'long-text' },
    typed: 'Two\nlines',
    other: 'One',
    shown: 'Two\nlines',
    otherShown: 'One',
    condition: 'contains(F, "lines")',
    cell: 'contains(?, "lines")',
    sheet: 'Two\nlines',
  },
  number: {
    type: { kind: 'number', places: 1, unit: 'm' },
    typed: '14,5',
    other: '3',
    shown: '14.5 m',
    otherShown: '3.0 m',
    condition: 'F > 10',
    cell: '> 10',
    sheet: '14.5',
  },
  money: {
    type: { kind: 'money', currency: 'EUR' },
    typed: '1.148,50',
    other: '20',
    shown: '€1,148.50',
    otherShown: '€20.00',
    condition: 'F >= 500',
    cell: '>= 500',
    sheet: '1148.50',
  },
  date: {
    type: { kind: 'date' },
    typed: '2026-12-03',
    other: '2026-12-20',
    shown: 'Thu 3 December 2026',
    otherShown: 'Sun 20 December 2026',
    condition: 'F < date("2026-12-10")',
    cell: '< date("2026-12-10")',
    sheet: '2026-12-03',
  },
  'date-time': {
    type: { kind: 'date-time' },
    typed: '2026-12-03 14:30',
    other: '2026-12-20T08:00',
    shown: 'Thu 3 December 2026, 14:30',
    otherShown: 'Sun 20 December 2026, 08:00',
    condition: 'F < date and time("2026-12-10T00:00:00")',
    cell: '< date and time("2026-12-10T00:00:00")',
    sheet: '2026-12-03T14:30',
  },
  'yes-no': {
    type: { kind: 'yes-no' },
    typed: true,
    other: false,
    shown: 'Yes',
    otherShown: 'No',
    condition: 'F = true',
    cell: 'true',
    sheet: 'yes',
  },
  choice: {
    type: { kind: 'choice', options: OPTIONS },
    typed: 'red',
    other: 'green',
    shown: 'Red buoy',
    otherShown: 'Green buoy',
    condition: 'F = "red"',
    cell: '"red"',
    sheet: 'Red buoy',
  },
  choices: {
    type: { kind: 'choices', options: OPTIONS },
    typed: ['green', 'red'],
    other: ['green'],
    shown: 'Red buoy, Green buoy',
    otherShown: 'Green buoy',
    condition: 'list contains(F, "red")',
    cell: 'list contains(?, "red")',
    sheet: 'Red buoy; Green buoy',
  },
  level: {
    type: {
      kind: 'level',
      levels: [
        { worth: 10, label: 'Trainee' },
        { worth: 20, label: 'Skipper' },
      ],
    },
    typed: 20,
    other: 10,
    shown: 'Skipper',
    otherShown: 'Trainee',
    condition: 'F >= 20',
    cell: '>= 20',
    sheet: 'Skipper',
  },
  email: {
    type: { kind: 'email' },
    typed: 'Ada@Skerrow.example',
    other: 'bo@skerrow.example',
    shown: 'Ada@skerrow.example',
    otherShown: 'bo@skerrow.example',
    condition: 'starts with(F, "Ada")',
    cell: 'starts with(?, "Ada")',
    sheet: 'Ada@skerrow.example',
  },
  phone: {
    type: { kind: 'phone' },
    typed: '+353 (1) 555-0142',
    other: '01 5550142',
    shown: '+353 1 555 0142',
    otherShown: '01 5550142',
    condition: 'starts with(F, "+353")',
    cell: 'starts with(?, "+353")',
    sheet: "'+353 1 555 0142",
  },
  link: {
    type: { kind: 'link' },
    typed: 'institute.example/visit',
    other: 'tide.example',
    shown: 'institute.example/visit',
    otherShown: 'tide.example',
    condition: 'contains(F, "visit")',
    cell: 'contains(?, "visit")',
    sheet: 'https://institute.example/visit',
  },
  duration: {
    type: { kind: 'duration' },
    typed: '1:35',
    other: '20 mins',
    shown: '1 hr 35 mins',
    otherShown: '20 mins',
    condition: 'F > duration("PT1H")',
    cell: '> duration("PT1H")',
    sheet: '1 h 35 min',
  },
  person: {
    type: { kind: 'person', from: ['boats'] },
    typed: '@Bram Solheim',
    other: '@Signe Halvard',
    shown: 'Bram Solheim',
    otherShown: 'Signe Halvard',
    condition: 'F = "@Bram Solheim"',
    cell: '"@Bram Solheim"',
    sheet: 'Bram Solheim',
  },
  people: {
    type: { kind: 'people', from: [] },
    typed: ['@Bram Solheim', '@Ilse Brandvold'],
    other: ['@Ilse Brandvold'],
    shown: 'Bram Solheim, Ilse Brandvold',
    otherShown: 'Ilse Brandvold',
    condition: 'count(F) > 1',
    cell: 'count(?) > 1',
    sheet: 'Bram Solheim; Ilse Brandvold',
  },
  term: {
    type: { kind: 'term', vocabulary: 'species' },
    typed: 'halichoerus GRYPUS',
    other: 'harbour_seal',
    shown: 'Grey seal',
    otherShown: 'Harbour seal',
    condition: 'F = "grey_seal"',
    cell: '"grey_seal"',
    sheet: 'Grey seal',
  },
  terms: {
    type: { kind: 'terms', vocabulary: 'species' },
    typed: ['grey_seal', 'Oarweed'],
    other: ['oarweed'],
    shown: 'Grey seal, Oarweed',
    otherShown: 'Oarweed',
    condition: 'some each in F satisfies is under(each, "mammals")',
    cell: 'count(?) > 1',
    sheet: 'Grey seal; Oarweed',
  },
  reference: {
    type: { kind: 'reference', register: 'vessels', shows: ['name', 'what'], among: 'all' },
    typed: '&Arctic Tern',
    other: '&Skiff',
    shown: 'Arctic Tern, survey catamaran',
    otherShown: 'Skiff, open boat',
    condition: 'F = "&Arctic Tern"',
    cell: '"&Arctic Tern"',
    sheet: 'VS-00002',
  },
  references: {
    type: { kind: 'references', register: 'vessels', shows: ['name'], among: 'finished', offered: 'it.berths > 3' },
    typed: ['&Skiff', '&Arctic Tern'],
    other: ['&Skiff'],
    shown: 'Skiff, Arctic Tern',
    otherShown: 'Skiff',
    condition: 'count(F) > 1',
    cell: 'count(?) > 1',
    sheet: 'VS-00003; VS-00002',
  },
  'running-number': {
    type: { kind: 'running-number', prefix: 'K-{year}-', digits: 3 },
    typed: null,
    other: null,
    shown: 'K-2026-001',
    otherShown: '',
    condition: 'starts with(F, "K-2026")',
    cell: 'starts with(?, "K-2026")',
    sheet: 'K-2026-001',
  },
  files: {
    type: { kind: 'files', only: 'any' },
    typed: ['#plan.txt'],
    other: [],
    shown: 'plan.txt',
    otherShown: '',
    condition: 'count(F) > 0',
    cell: 'count(?) > 0',
    sheet: 'plan.txt',
  },
  'line-items': {
    type: {
      kind: 'line-items',
      columns: [
        { key: 'what', label: 'What', type: { kind: 'text' }, required: true },
        { key: 'count', label: 'How many', type: { kind: 'number', places: 0 }, required: true },
        { key: 'twice', label: 'Twice', type: { kind: 'number', places: 0 }, required: false, formula: 'count * 2' },
      ],
    },
    typed: [
      { what: 'Seal', count: '2' },
      { what: 'Rope', count: 5 },
    ],
    other: [{ what: 'Rope', count: 1 }],
    shown: 'Seal, 2, 4\nRope, 5, 10',
    otherShown: 'Rope, 1, 2',
    condition: 'sum(F.twice) > 10',
    cell: 'count(?) > 1',
    sheet: '[{"what":"Seal","count":"2"},{"what":"Rope","count":"5"}]',
  },
};

const GIVEN = 'it is given out when the request arrives, and nobody sends it';
const SEVERAL = 'a cell of a line holds one value';

/** Pairs that make no sense, each with the reason. */
export const MEANINGLESS: Readonly<Partial<Record<KindName, Readonly<Partial<Record<Place, string>>>>>> = {
  choices: { 'line items': SEVERAL },
  people: { 'line items': SEVERAL },
  person: { 'line items': 'who does what in a line is a task, and tasks are their own records' },
  terms: { 'line items': SEVERAL },
  reference: { 'line items': 'things pointed to line by line are a field for several references' },
  references: { 'line items': SEVERAL },
  'running-number': {
    import: GIVEN,
    form: GIVEN,
    history: 'it never changes',
    rule: 'it is not known yet while the form is filled in',
    default: GIVEN,
    'line items': 'a request has one',
    'answer schema': GIVEN,
  },
  files: {
    import: 'a cell holds no bytes',
    'line items': SEVERAL,
    default: 'a file belongs to the request it was sent for',
    formula: 'only how many there are can be computed, which is a number’s cell',
  },
  'line-items': { 'line items': 'lines do not nest', default: 'an empty line stands ready instead' },
};

/** The page in docs. */
export function matrixPage(): string {
  const reasons = new Map<string, number>();
  const mark = (kind: KindName, place: Place): string => {
    const why = MEANINGLESS[kind]?.[place];
    if (why === undefined) return '✓';
    if (!reasons.has(why)) reasons.set(why, reasons.size + 1);
    return `–<sup>${reasons.get(why)}</sup>`;
  };
  const rows = KIND_NAMES.map((kind) => `| ${kind} | ${PLACES.map((place) => mark(kind, place)).join(' | ')} |`);
  return [
    '# Kinds of fields, and where each works',
    '',
    'Made from `e2e/house/kindMatrix.ts` by `npm run reference`; `e2e/house/kinds.test.ts` tries every ✓ against a running desk. A dash is a pair that makes no sense, with the reason below.',
    '',
    `| kind | ${PLACES.join(' | ')} |`,
    `| --- |${PLACES.map(() => ' --- |').join('')}`,
    ...rows,
    '',
    ...[...reasons].map(([why, number]) => `${number}. ${why}`),
    '',
    '## The places',
    '',
    ...PLACES.map((place) => `- **${place}**: ${PLACE_WORDS[place]}`),
    '',
    'Besides fields, a form holds sections, pages and words between questions; they are parts of a form and hold no values. Computed fields can be of any kind that an expression can give.',
    '',
    '## What the kind of a field that holds answers can become',
    '',
    'Only where everything that is held (answers, history, what waits to be confirmed) is one of the new kind; it stays as it is. Any other change needs a field of its own.',
    '',
    ...Object.entries(KIND_CHANGES).map(([from, to]) => `- ${from} → ${to?.join(', ')}`),
    '',
    'Besides what is asked, a register has computed fields, fields the desk fills in, running numbers, and values that a reference brings along from the request it points to.',
    '',
  ].join('\n');
}
