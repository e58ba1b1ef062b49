import type { AccessPlan } from '@tolvek/core/access';
import { finishRule, type WorkingCalendar } from '@tolvek/core/deadline';
import type { FormDesign } from '@tolvek/core/form';
import type { Stage } from '@tolvek/core/register';

const HOUR = 3_600_000;

const WEEKDAY = [
  ['08:00', '12:30'],
  ['13:15', '17:30'],
] as const;

const AT_SEA = [['07:00', '16:00']] as const;
const AT_THE_BENCH = [['08:30', '16:30']] as const;

export const deskCalendar: WorkingCalendar = {
  key: 'desk',
  name: 'Desk hours',
  zone: 'Europe/Dublin',
  week: [WEEKDAY, WEEKDAY, WEEKDAY, WEEKDAY, WEEKDAY, [], []],
  holidays: [
    { date: '2026-10-26', name: 'October bank holiday' },
    { date: '2026-12-04', name: 'Station open day' },
    { date: '2026-12-25', name: 'Christmas Day' },
    { date: '2026-12-28', name: 'Station closed' },
    { date: '2027-01-01', name: 'New Year’s Day' },
    { date: '2027-03-17', name: 'Spring holiday' },
  ],
};

/** The boats go out on Saturdays as well, and early. */
export const boatsCalendar: WorkingCalendar = {
  ...{ key: 'boats', name: 'Boats', zone: 'Europe/Dublin', holidays: deskCalendar.holidays },
  week: [AT_SEA, AT_SEA, AT_SEA, AT_SEA, AT_SEA, [['07:00', '13:00']], []],
};

/** The laboratory: without a gap at noon, and on the station’s open day for an hour. */
export const labCalendar: WorkingCalendar = {
  ...{ key: 'lab', name: 'Analytical Lab', zone: 'Europe/Dublin' },
  week: [AT_THE_BENCH, AT_THE_BENCH, AT_THE_BENCH, AT_THE_BENCH, AT_THE_BENCH, [], []],
  holidays: deskCalendar.holidays.map((day) =>
    day.date === '2026-12-04' ? { ...day, hours: [['09:00', '10:00']] as const } : day,
  ),
};

export const stages: readonly Stage[] = [
  { key: 'arrived', label: 'Arrived', publicLabel: 'We have it', phase: 'arrived' },
  { key: 'deciding', label: 'To be decided', publicLabel: 'Being decided', phase: 'arrived', role: 'deciding' },
  { key: 'in_hand', label: 'In hand', publicLabel: 'In hand', phase: 'working' },
  { key: 'papers', label: 'Waiting for papers', publicLabel: 'Waiting for papers from you', phase: 'paused' },
  { key: 'done', label: 'Done', publicLabel: 'Done', phase: 'finished', role: 'done' },
  { key: 'refused', label: 'Not approved', publicLabel: 'Not approved', phase: 'finished', role: 'refused' },
];

export const accessPlan: AccessPlan = {
  rules: [
    {
      id: 'medical-closed',
      name: 'Medical notes stay with site safety',
      fields: ['medical_note'],
      audience: { in: { everyone: true }, outOf: ['site-safety'], requester: 'out' },
      level: 'hidden',
    },
    {
      id: 'medical-read',
      name: 'Site safety reads medical notes',
      fields: ['medical_note'],
      audience: { in: { anyOf: ['site-safety'] }, outOf: [] },
      level: 'read',
    },
  ],
};

/** The site access form in its short version. */
export const siteAccess: FormDesign = {
  title: 'Come on site',
  intro:
    'For visitors and contractors. Ask at least two days ahead; we answer within the working days shown when you send it.',
  subject: '{visitor}, {institute}',
  fields: [
    { key: 'visitor', label: 'Visitor', type: { kind: 'text', most: 120 }, source: 'asked' },
    {
      key: 'institute',
      label: 'Institute',
      type: {
        kind: 'choice',
        options: [
          { key: 'corrin', label: 'Corrin Institute' },
          { key: 'haldane', label: 'Haldane Lifting' },
          { key: 'tarnbay', label: 'Tarnbay College' },
          { key: 'merrow', label: 'Merrow Survey Group' },
          { key: 'station', label: 'Guest of the station', help: 'Invited by a colleague' },
          { key: 'other', label: 'Another institute or firm' },
        ],
      },
      source: 'asked',
    },
    { key: 'reason', label: 'Reason', type: { kind: 'long-text', most: 2_000 }, source: 'asked' },
    { key: 'arrival', label: 'Arrival', type: { kind: 'date', notBeforeToday: true }, source: 'asked' },
    { key: 'departure', label: 'Departure', type: { kind: 'date', notBefore: 'arrival' }, source: 'asked' },
    { key: 'works_on_water', label: 'Works on water', type: { kind: 'yes-no' }, source: 'asked' },
    {
      key: 'survival_until',
      label: 'Sea survival certificate valid until',
      type: { kind: 'date', notBefore: 'departure' },
      source: 'asked',
    },
    { key: 'fee', label: 'Fee', type: { kind: 'money', currency: 'EUR', least: 0, most: 10_000_000 }, source: 'asked' },
    { key: 'medical_note', label: 'Medical note', type: { kind: 'long-text', most: 1_000 }, source: 'asked' },
    { key: 'escort', label: 'Escort', type: { kind: 'text', most: 120 }, source: 'desk-only' },
  ],
  parts: [
    {
      part: 'question',
      field: 'visitor',
      asks: 'Who is coming?',
      help: 'First and last name, as on their identity card.',
      required: true,
    },
    { part: 'question', field: 'institute', asks: 'Where are they from?', help: '', required: true },
    {
      part: 'question',
      field: 'reason',
      asks: 'What do they come for?',
      help: 'A sentence is enough: the work, the place, who expects them.',
      required: true,
    },
    { part: 'question', field: 'arrival', asks: 'First day on site', help: '', required: true },
    { part: 'question', field: 'departure', asks: 'Last day on site', help: '', required: true },
    {
      part: 'question',
      field: 'works_on_water',
      asks: 'Will they work on the water?',
      help: 'On board, on the pontoon, or diving.',
      required: true,
    },
    {
      part: 'question',
      field: 'survival_until',
      asks: 'Until when is their sea survival certificate valid?',
      help: 'It has to cover the last day on site.',
      required: true,
    },
    {
      part: 'question',
      field: 'fee',
      asks: 'Fee in EUR',
      help: 'What they charge the station for the visit; leave it empty when there is none.',
      required: false,
    },
    {
      part: 'question',
      field: 'medical_note',
      asks: 'Anything medical we should know?',
      help: 'Only the site safety officers and you can read this.',
      required: false,
    },
  ],
  rules: [
    {
      id: 'water-certificate',
      name: 'Water needs a certificate',
      says: 'Nobody works on the water without a sea survival certificate.',
      when: 'works_on_water = true',
      then: [{ do: 'show', parts: ['survival_until'] }],
      otherwise: [],
      on: true,
      runs: 'filling',
    },
  ],
  unique: [],
  routing: {
    columns: [
      { id: 'water', label: 'Works on water', input: 'works_on_water' },
      { id: 'institute', label: 'Institute', input: 'institute' },
      { id: 'fee', label: 'Fee', input: 'fee' },
      { id: 'outside', label: 'From outside', input: 'requester.outside' },
    ],
    rows: [
      {
        id: 'water',
        note: 'Work on the water is decided by a duty manager',
        cells: { water: 'true' },
        outcome: { team: 'boats', priority: 'high', workingDays: 2, path: 'path' },
      },
      {
        id: 'lifting',
        note: 'Lifting gear is inspected before anybody works with it',
        cells: { institute: '"haldane"', fee: '> 500' },
        outcome: { team: 'estates', priority: 'high', workingDays: 1, path: 'path' },
      },
      {
        id: 'costly',
        note: 'A fee above 500 is decided',
        cells: { fee: '> 500' },
        outcome: { team: 'estates', priority: 'normal', workingDays: 3, path: 'path' },
      },
      {
        id: 'colleagues',
        note: 'Guests of colleagues',
        cells: { outside: 'false' },
        outcome: { team: 'estates', priority: 'low', workingDays: 3, path: null },
      },
    ],
    otherwise: { team: 'estates', priority: 'normal', workingDays: 2, path: null },
  },
  approval: {
    paths: [
      {
        id: 'path',
        label: '',
        steps: [{ id: 'duty-manager', label: 'Duty manager', seats: [{ group: 'duty-managers' }], needed: 1 }],
      },
    ],
  },
  deadline: { calendar: 'desk', leads: 'desk-leads', deadlines: [finishRule(4 * HOUR, 0)] },
};
