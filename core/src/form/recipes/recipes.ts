import { FIRST_PATH } from '../../approval/index.ts';
import { asking, blankDesign, designOf, type Recipe, recipe } from './recipe.ts';

const options = (...labels: readonly (readonly [string, string])[]) => labels.map(([key, label]) => ({ key, label }));

const simple = recipe({
  key: 'simple',
  make: (ground, t) =>
    designOf(ground, '{what}', [
      asking('what', t('what'), { kind: 'text' }, { asks: t('ask.need') }),
      asking('why', t('why'), { kind: 'long-text' }, { asks: t('ask.for'), required: false }),
      asking(
        'needed_by',
        t('neededBy'),
        { kind: 'date', notBeforeToday: true },
        { asks: t('ask.neededBy'), required: false },
      ),
    ]),
});

const booking = recipe({
  key: 'booking',
  make: (ground, t) =>
    designOf(
      ground,
      '{what}, {begins}',
      [
        asking(
          'what',
          t('what'),
          { kind: 'choice', options: options(['first', t('firstRoom')]) },
          { asks: t('ask.book') },
        ),
        asking('begins', t('begins'), { kind: 'date-time', notBeforeNow: true }, { asks: t('ask.fromWhen') }),
        asking('ends', t('ends'), { kind: 'date-time', notBefore: 'begins' }, { asks: t('ask.untilWhen') }),
        asking('persons', t('persons'), { kind: 'number', places: 0, least: 1 }, { asks: t('ask.howManyYou') }),
        asking('purpose', t('purpose'), { kind: 'text' }, { asks: t('ask.for'), required: false }),
      ],
      [
        {
          key: 'how_long',
          label: t('howLong'),
          type: { kind: 'duration' },
          source: 'computed',
          formula: 'ends - begins',
        },
      ],
    ),
});

const things = recipe({
  key: 'things',
  holds: 'things',
  make: (ground, t) =>
    designOf(ground, '{name}', [
      asking('name', t('name'), { kind: 'text' }, { asks: t('ask.called') }),
      asking('tag', t('tag'), { kind: 'text', most: 30 }, { asks: t('ask.written'), required: false }),
      asking('place', t('place'), { kind: 'text' }, { asks: t('ask.where'), required: false }),
      asking('notes', t('notes'), { kind: 'long-text' }, { asks: t('ask.shouldKnow'), required: false }),
    ]),
});

const loan = recipe({
  key: 'loan',
  make: (ground, t) => {
    const design = designOf(
      ground,
      '{things}',
      [
        asking(
          'things',
          t('things'),
          {
            kind: 'line-items',
            least: 1,
            most: 30,
            columns: [
              { key: 'what', label: t('what'), type: { kind: 'text' }, required: true },
              {
                key: 'count',
                label: t('howMany'),
                type: { kind: 'number', places: 0, least: 1, most: 100 },
                required: true,
              },
            ],
          },
          { asks: t('ask.borrow') },
        ),
        asking('out_on', t('outOn'), { kind: 'date', notBeforeToday: true }, { asks: t('ask.fetch') }),
        asking('due_back', t('dueBack'), { kind: 'date', notBefore: 'out_on' }, { asks: t('ask.return') }),
        asking('answerable', t('responsible'), { kind: 'person', from: [] }, { asks: t('ask.responsible') }),
      ],
      [
        { key: 'back_on', label: t('backOn'), type: { kind: 'date', notBefore: 'out_on' }, source: 'desk-only' },
        {
          key: 'days_out',
          label: t('daysOut'),
          type: { kind: 'number', places: 0, unit: t('days') },
          source: 'computed',
          formula: '(due_back - out_on).days',
        },
      ],
    );
    return {
      ...design,
      fields: design.fields.map((field) =>
        field.key === 'answerable' && field.source !== 'computed' ? { ...field, preset: { from: 'me' } } : field,
      ),
    };
  },
});

const purchase = recipe({
  key: 'purchase',
  make: (ground, t) => {
    const design = designOf(
      ground,
      '{purpose}, {total}',
      [
        asking('purpose', t('purpose'), { kind: 'text' }, { asks: t('ask.for') }),
        asking(
          'lines',
          t('lines'),
          {
            kind: 'line-items',
            least: 1,
            most: 40,
            columns: [
              { key: 'what', label: t('what'), type: { kind: 'text' }, required: true },
              {
                key: 'count',
                label: t('howMany'),
                type: { kind: 'number', places: 0, least: 1, most: 10_000 },
                required: true,
              },
              {
                key: 'price',
                label: t('priceEach'),
                type: { kind: 'money', currency: 'EUR', least: 0 },
                required: true,
              },
              {
                key: 'vat',
                label: t('vat'),
                type: {
                  kind: 'choice',
                  options: options(['full', '23%'], ['reduced', '13.5%'], ['none', t('vatNone')]),
                },
                required: true,
              },
              {
                key: 'net',
                label: t('net'),
                type: { kind: 'money', currency: 'EUR' },
                required: false,
                formula: 'count * price',
              },
              {
                key: 'tax',
                label: t('vatDue'),
                type: { kind: 'money', currency: 'EUR' },
                required: false,
                formula: 'net * (if vat = "full" then 0.23 else if vat = "reduced" then 0.135 else 0)',
              },
            ],
          },
          { asks: t('ask.bought'), help: t('ask.boughtHelp') },
        ),
        asking(
          'needed_by',
          t('neededBy'),
          { kind: 'date', notBeforeToday: true },
          { asks: t('ask.neededBy'), required: false },
        ),
      ],
      [
        {
          key: 'total',
          label: t('total'),
          type: { kind: 'money', currency: 'EUR' },
          source: 'computed',
          formula: 'sum(lines.net) + sum(lines.tax)',
        },
      ],
    );
    return {
      ...design,
      routing: {
        columns: [{ id: 'total', label: t('total'), input: 'total' }],
        rows: [
          {
            id: 'costly',
            note: t('note.above'),
            cells: { total: '> 500' },
            outcome: { team: ground.team, priority: 'normal', workingDays: 5, path: FIRST_PATH },
          },
        ],
        otherwise: design.routing.otherwise,
      },
    };
  },
});

const approval = recipe({
  key: 'approval',
  make: (ground, t) => {
    const design = designOf(ground, '{what}, {cost}', [
      asking('what', t('what'), { kind: 'text' }, { asks: t('ask.plan') }),
      asking('why', t('reason'), { kind: 'long-text' }, { asks: t('ask.whyNeeded') }),
      asking('begins', t('begins'), { kind: 'date', notBeforeToday: true }, { asks: t('ask.fromDay') }),
      asking('ends', t('ends'), { kind: 'date', notBefore: 'begins' }, { asks: t('ask.untilDay'), required: false }),
      asking('cost', t('cost'), { kind: 'money', currency: 'EUR', least: 0 }, { asks: t('ask.cost'), required: false }),
    ]);
    return {
      ...design,
      routing: {
        columns: [{ id: 'cost', label: t('cost'), input: 'cost' }],
        rows: [
          {
            id: 'small',
            note: t('note.small'),
            cells: { cost: '<= 100' },
            outcome: { team: ground.team, priority: 'normal', workingDays: 2, path: null },
          },
        ],
        otherwise: { ...design.routing.otherwise, path: FIRST_PATH },
      },
    };
  },
});

const confidential = recipe({
  key: 'confidential',
  make: (ground, t) => ({
    ...designOf(ground, '{about}', [
      { part: 'instruction', id: 'words-1', text: t('ask.inConfidence') },
      asking(
        'about',
        t('about'),
        {
          kind: 'choice',
          options: options(['safety', t('safety')], ['conduct', t('conduct')], ['other', t('somethingElse')]),
        },
        { asks: t('ask.about') },
      ),
      asking('what_happened', t('whatHappened'), { kind: 'long-text' }, { asks: t('ask.happened') }),
      asking('when', t('when'), { kind: 'date' }, { asks: t('ask.when'), required: false }),
      asking(
        'pictures',
        t('pictures'),
        { kind: 'files', only: 'pictures', most: 3 },
        { asks: t('ask.pictures'), required: false },
      ),
      asking('reply', t('replyWanted'), { kind: 'yes-no' }, { asks: t('ask.reply') }),
      asking('reach', t('howToReach'), { kind: 'text' }, { asks: t('ask.reach') }),
    ]),
    rules: [
      {
        id: 'rule-1',
        name: t('rule.reply'),
        says: '',
        when: 'reply = true',
        then: [{ do: 'show', parts: ['reach'] }],
        otherwise: [],
        on: true,
        runs: 'filling',
      },
    ],
  }),
  protects: ({ team }, t) => ({
    rules: [
      {
        id: 'closed',
        name: t('access.confidential'),
        fields: 'all',
        audience: { in: { everyone: true }, outOf: [team], requester: 'out' },
        level: 'hidden',
      },
    ],
  }),
});

const event = recipe({
  key: 'event',
  make: (ground, t) => ({
    ...designOf(ground, '{group_name}, {day}', [
      asking('group_name', t('group'), { kind: 'text' }, { asks: t('ask.group') }),
      asking('day', t('day'), { kind: 'choice', options: options(['first', t('firstDay')]) }, { asks: t('ask.day') }),
      asking('places', t('places'), { kind: 'number', places: 0, least: 1, most: 30 }, { asks: t('ask.places') }),
      asking(
        'needs',
        t('needs'),
        { kind: 'choices', options: options(['step_free', t('stepFree')], ['hearing', t('hearingLoop')]) },
        { asks: t('ask.needs'), required: false },
      ),
      asking('note', t('note'), { kind: 'long-text' }, { asks: t('ask.else'), required: false }),
    ]),
    unique: [{ id: 'unique-1', fields: ['group_name', 'day'], among: 'unfinished' }],
  }),
});

const blank = recipe({ key: 'blank', make: blankDesign });

/** Ready-made starts, the plainest first. */
export const RECIPES: readonly Recipe[] = [
  blank,
  simple,
  booking,
  loan,
  approval,
  purchase,
  confidential,
  event,
  things,
];
