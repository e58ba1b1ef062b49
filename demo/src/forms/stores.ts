import { asking, designOf, type FormDesign, RECIPES } from '@tolvek/core/form';
import type { NoticePlan } from '@tolvek/core/telling';
import { WEEKLY, withDeadlines } from './deadlines.ts';
import { calledSo, computed, type DemoForm, ground, options, rule, section } from './ground.ts';

const made = (recipe: string, title: string, team: string) => {
  const design = RECIPES.find((each) => each.key === recipe)?.make(ground(title, team));
  if (!design) throw new Error(`No recipe “${recipe}”.`);
  return design;
};

const loan = made('loan', 'Field kit loan', 'stores');

/** Things with a tag of their own are chosen after those that are counted. */
const withTagged = (parts: FormDesign['parts']): FormDesign['parts'] =>
  parts.flatMap((part) =>
    part.part === 'question' && part.field === 'things'
      ? [
          { ...part, required: false },
          {
            part: 'question',
            field: 'tagged',
            asks: 'Which things with a tag?',
            help: 'Drysuits, meters, cameras and corers. Leave it empty if you need none.',
            required: false,
          },
        ]
      : [part],
  );

const FETCHED =
  'Thank you. We lay {things|your things} out for you on {out_on}.\n\nPlease rinse everything before you bring it back on {due_back}.';

/** Stores reads in the morning what is fetched later, and at once what is fetched today; borrowers read what to do with it. */
const notices: NoticePlan = {
  usual: [
    {
      kind: 'received',
      subject: 'Stores lays it out for you ({request.number})',
      text: FETCHED,
      translations: {
        de: {
          subject: {
            of: 'Stores lays it out for you ({request.number})',
            says: 'Das Lager legt es für Sie bereit ({request.number})',
          },
          text: {
            of: FETCHED,
            says: 'Danke. Wir legen {things|Ihre Sachen} am {out_on} für Sie bereit.\n\nBitte spülen Sie alles ab, bevor Sie es am {due_back} zurückbringen.',
          },
        },
      },
    },
    { kind: 'new-request', subject: '', text: '', off: true },
  ],
  rules: [
    {
      ...{ key: 'to-lay-out', name: 'To lay out', on: { is: 'arrived' }, to: ['team'], answers: true },
      subject: 'Fetched on {out_on}: {request.subject} ({request.number})',
      text: '{requester.name|Somebody} fetches {things|things with a tag} on {out_on}. They come back on {due_back}.',
      goes: { goes: 'digest', at: '08:00', days: [1, 2, 3, 4, 5] },
      urgent: 'out_on = today',
    },
    {
      ...{ key: 'come-by', name: 'Please come by', on: { is: 'hand' }, to: ['requester'], answers: false },
      ...{ subject: 'Please come by: {request.subject} ({request.number})', goes: { goes: 'at-once' } },
      text: 'Please come to Stores about what you asked for. {happened.text}',
    },
    {
      ...{ key: 'not-back', name: 'Not back', on: { is: 'becomes' }, when: 'due_back < today and back_on = null' },
      ...{ to: ['requester', 'working'], answers: false, goes: { goes: 'at-once' } },
      subject: 'Please bring it back: {request.subject} ({request.number})',
      text: 'It was due back on {due_back}, and Stores has not got it yet. Others wait for it.',
    },
  ],
};

export const kit: DemoForm = {
  prefix: 'FK',
  desk: 'stores',
  doors: { staff: true, outside: false },
  design: {
    ...loan,
    notices,
    subject: '{things}, {tagged}',
    intro: 'Quadrats, corers, drysuits and what else Stores lends. Everything comes back rinsed.',
    fields: [
      ...loan.fields,
      {
        key: 'tagged',
        label: 'Things with a tag',
        type: {
          kind: 'references',
          register: 'kit',
          shows: ['name', 'tag'],
          among: 'all',
          offered: 'it.stage = "in_use"',
          cards: { picture: 'photo', facts: ['grade', 'shelf'], unavailable: 'grey' },
          most: 10,
        },
        source: 'asked',
      },
      { key: 'rinsed', label: 'Rinsed', type: { kind: 'yes-no' }, source: 'desk-only' },
    ],
    parts: withTagged(loan.parts),
    rules: [
      rule('rule-long', 'Long loans are asked about', 'days_out > 28', [
        {
          do: 'warn',
          field: 'due_back',
          text: 'More than four weeks: Stores asks you half-way whether you still need it.',
        },
      ]),
    ],
  },
};

const purchaseDesign = made('purchase', 'Purchase', 'purchasing');

export const purchase: DemoForm = {
  prefix: 'PU',
  desk: 'purchasing',
  doors: { staff: true, outside: false },
  design: {
    ...purchaseDesign,
    intro: 'For anything the station buys. Above € 500 with VAT it is decided first.',
    fields: [
      ...purchaseDesign.fields,
      { key: 'budget', label: 'Budget code', type: { kind: 'text', most: 12 }, source: 'asked' },
      { key: 'offers', label: 'Offers compared', type: { kind: 'long-text' }, source: 'asked' },
      computed(
        'band',
        'Approval band',
        { kind: 'choice', options: options(['desk', 'Desk'], ['manager', 'Duty manager'], ['board', 'Station board']) },
        'if total > 5000 then "board" else if total > 500 then "manager" else "desk"',
      ),
    ],
    parts: [
      ...purchaseDesign.parts,
      section('money', 'Who pays'),
      { part: 'instruction', id: 'words-total', text: 'Total with VAT: {total}' },
      {
        part: 'question',
        field: 'budget',
        asks: 'Which budget code pays?',
        help: 'Two letters and four figures, like MB2041.',
        required: true,
      },
      {
        part: 'question',
        field: 'offers',
        asks: 'Which offers did you compare?',
        help: 'Three are wanted above € 5,000.',
        required: true,
      },
    ],
    rules: [
      rule('rule-offers', 'Dear things are compared', 'total > 5000', [{ do: 'show', parts: ['offers'] }], {
        otherwise: [{ do: 'clear', fields: ['offers'] }],
      }),
    ],
  },
};

export const school: DemoForm = {
  prefix: 'SV',
  desk: 'outreach',
  doors: { staff: false, outside: true },
  design: {
    ...designOf(
      ground('School visit', 'outreach'),
      '{school}, {visit_day}',
      [
        asking('school', 'School', { kind: 'text', most: 120 }, { asks: 'Which school are you?' }),
        asking(
          'visit_day',
          'Day',
          {
            kind: 'choice',
            options: options(['mar_03', 'Tue 3 March'], ['mar_10', 'Tue 10 March'], ['mar_17', 'Tue 17 March']),
          },
          { asks: 'Which day suits you?' },
        ),
        asking('pupils', 'Pupils', { kind: 'number', places: 0, least: 5, most: 30 }, { asks: 'How many pupils?' }),
        asking(
          'age',
          'Age',
          {
            kind: 'choices',
            options: options(['small', '6 to 9'], ['middle', '10 to 13'], ['older', '14 to 18']),
            least: 1,
          },
          { asks: 'How old are they?' },
        ),
        asking(
          'needs',
          'Needs',
          {
            kind: 'choices',
            options: options(
              ['step_free', 'A step-free way'],
              ['hearing', 'A hearing loop'],
              ['quiet', 'A quiet room'],
            ),
          },
          { asks: 'Does anybody need …?', required: false },
        ),
        asking(
          'phone',
          'Telephone on the day',
          { kind: 'phone' },
          { asks: 'Under which number do we reach you on the way?' },
        ),
      ],
      [calledSo(computed('helpers', 'Helpers', { kind: 'number', places: 0 }, 'ceiling(pupils / 8)'))],
    ),
    intro: 'Three mornings in March, thirty pupils each. One request for each school.',
    unique: [{ id: 'unique-1', fields: ['school'], among: 'all' }],
  },
};

export const concern: DemoForm = {
  prefix: 'CR',
  desk: 'site-safety',
  doors: { staff: true, outside: false },
  design: {
    ...withDeadlines(made('confidential', 'Concern report', 'site-safety'), [WEEKLY]),
    intro: 'Tell us what went wrong, or nearly did.',
  },
};
