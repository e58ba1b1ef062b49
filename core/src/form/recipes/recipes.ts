import { asking, blankDesign, designOf, type Recipe } from './recipe.ts';

const options = (...labels: readonly (readonly [string, string])[]) => labels.map(([key, label]) => ({ key, label }));

const simple: Recipe = {
  key: 'simple',
  label: 'A simple request',
  says: 'What is needed, why, and by when.',
  make: (ground) =>
    designOf(ground, '{what}', [
      asking('what', 'What', { kind: 'text' }, { asks: 'What do you need?' }),
      asking('why', 'Why', { kind: 'long-text' }, { asks: 'What is it for?', required: false }),
      asking(
        'needed_by',
        'Needed by',
        { kind: 'date', notBeforeToday: true },
        { asks: 'By when do you need it?', required: false },
      ),
    ]),
};

const booking: Recipe = {
  key: 'booking',
  label: 'A booking',
  says: 'Asks for a place or a thing from one moment to another, the end after the start. It reserves nothing: two can ask for the same.',
  make: (ground) =>
    designOf(
      ground,
      '{what}, {begins}',
      [
        asking(
          'what',
          'What',
          { kind: 'choice', options: options(['first', 'First room']) },
          { asks: 'What do you want to book?' },
        ),
        asking('begins', 'Begins', { kind: 'date-time', notBeforeNow: true }, { asks: 'From when?' }),
        asking('ends', 'Ends', { kind: 'date-time', notBefore: 'begins' }, { asks: 'Until when?' }),
        asking('persons', 'Persons', { kind: 'number', places: 0, least: 1 }, { asks: 'How many will you be?' }),
        asking('purpose', 'Purpose', { kind: 'text' }, { asks: 'What for?', required: false }),
      ],
      [
        {
          key: 'how_long',
          label: 'How long',
          type: { kind: 'duration' },
          source: 'computed',
          formula: 'ends - begins',
        },
      ],
    ),
};

const things: Recipe = {
  key: 'things',
  label: 'A list of things',
  says: 'Boats, kit, rooms, budget codes: what other forms let people choose from.',
  holds: 'things',
  make: (ground) =>
    designOf(ground, '{name}', [
      asking('name', 'Name', { kind: 'text' }, { asks: 'What is it called?' }),
      asking('tag', 'Tag', { kind: 'text', most: 30 }, { asks: 'What is written on it?', required: false }),
      asking('place', 'Place', { kind: 'text' }, { asks: 'Where is it kept?', required: false }),
      asking(
        'notes',
        'Notes',
        { kind: 'long-text' },
        { asks: 'What should people know who choose it?', required: false },
      ),
    ]),
};

const loan: Recipe = {
  key: 'loan',
  label: 'A loan',
  says: 'Asks for things that leave the house and come back, with who is answerable. It reserves nothing: two can ask for the same.',
  make: (ground) => {
    const design = designOf(
      ground,
      '{things}',
      [
        asking(
          'things',
          'Things',
          {
            kind: 'line-items',
            least: 1,
            most: 30,
            columns: [
              { key: 'what', label: 'What', type: { kind: 'text' }, required: true },
              {
                key: 'count',
                label: 'How many',
                type: { kind: 'number', places: 0, least: 1, most: 100 },
                required: true,
              },
            ],
          },
          { asks: 'What do you want to borrow?' },
        ),
        asking('out_on', 'Out on', { kind: 'date', notBeforeToday: true }, { asks: 'When do you fetch it?' }),
        asking('due_back', 'Due back', { kind: 'date', notBefore: 'out_on' }, { asks: 'When does it come back?' }),
        asking('answerable', 'Answerable', { kind: 'person', from: [] }, { asks: 'Who answers for it?' }),
      ],
      [
        { key: 'back_on', label: 'Back on', type: { kind: 'date', notBefore: 'out_on' }, source: 'desk-only' },
        {
          key: 'days_out',
          label: 'Days out',
          type: { kind: 'number', places: 0, unit: 'days' },
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
};

const purchase: Recipe = {
  key: 'purchase',
  label: 'Something to buy',
  says: 'Lines with prices and VAT, their total, and a decision above a sum.',
  make: (ground) => {
    const design = designOf(
      ground,
      '{purpose}, {total}',
      [
        asking('purpose', 'Purpose', { kind: 'text' }, { asks: 'What is it for?' }),
        asking(
          'lines',
          'Lines',
          {
            kind: 'line-items',
            least: 1,
            most: 40,
            columns: [
              { key: 'what', label: 'What', type: { kind: 'text' }, required: true },
              {
                key: 'count',
                label: 'How many',
                type: { kind: 'number', places: 0, least: 1, most: 10_000 },
                required: true,
              },
              { key: 'price', label: 'Price each', type: { kind: 'money', currency: 'EUR', least: 0 }, required: true },
              {
                key: 'vat',
                label: 'VAT',
                type: { kind: 'choice', options: options(['full', '23%'], ['reduced', '13.5%'], ['none', 'none']) },
                required: true,
              },
              {
                key: 'net',
                label: 'Net',
                type: { kind: 'money', currency: 'EUR' },
                required: false,
                formula: 'count * price',
              },
              {
                key: 'tax',
                label: 'VAT due',
                type: { kind: 'money', currency: 'EUR' },
                required: false,
                formula: 'net * (if vat = "full" then 0.23 else if vat = "reduced" then 0.135 else 0)',
              },
            ],
          },
          { asks: 'What is to be bought?', help: 'One line for each thing, with its price before VAT.' },
        ),
        asking(
          'needed_by',
          'Needed by',
          { kind: 'date', notBeforeToday: true },
          { asks: 'By when is it needed?', required: false },
        ),
      ],
      [
        {
          key: 'total',
          label: 'Total with VAT',
          type: { kind: 'money', currency: 'EUR' },
          source: 'computed',
          formula: 'sum(lines.net) + sum(lines.tax)',
        },
      ],
    );
    return {
      ...design,
      routing: {
        columns: [{ id: 'total', label: 'Total with VAT', input: 'total' }],
        rows: [
          {
            id: 'costly',
            note: 'Above 500 it is decided',
            cells: { total: '> 500' },
            outcome: { team: ground.team, priority: 'normal', workingDays: 5, needsApproval: true },
          },
        ],
        otherwise: design.routing.otherwise,
      },
    };
  },
};

const approval: Recipe = {
  key: 'approval',
  label: 'Something to be approved',
  says: 'A plan that somebody decides on before it goes ahead; small ones without.',
  make: (ground) => {
    const design = designOf(ground, '{what}, {cost}', [
      asking('what', 'What', { kind: 'text' }, { asks: 'What do you plan?' }),
      asking('why', 'Reason', { kind: 'long-text' }, { asks: 'Why is it needed?' }),
      asking('begins', 'Begins', { kind: 'date', notBeforeToday: true }, { asks: 'From which day?' }),
      asking('ends', 'Ends', { kind: 'date', notBefore: 'begins' }, { asks: 'Until which day?', required: false }),
      asking(
        'cost',
        'Cost',
        { kind: 'money', currency: 'EUR', least: 0 },
        { asks: 'What will it cost?', required: false },
      ),
    ]);
    return {
      ...design,
      routing: {
        columns: [{ id: 'cost', label: 'Cost', input: 'cost' }],
        rows: [
          {
            id: 'small',
            note: 'Small things need no decision',
            cells: { cost: '<= 100' },
            outcome: { team: ground.team, priority: 'normal', workingDays: 2, needsApproval: false },
          },
        ],
        otherwise: { ...design.routing.otherwise, needsApproval: true },
      },
    };
  },
};

const confidential: Recipe = {
  key: 'confidential',
  label: 'A confidential report',
  says: 'Something that went wrong, told in confidence: read by those who look into it, and by no coordinator besides.',
  make: (ground) => ({
    ...designOf(ground, '{about}', [
      { part: 'instruction', id: 'words-1', text: 'Only the people who look into this can read what you write here.' },
      asking(
        'about',
        'About',
        { kind: 'choice', options: options(['safety', 'Safety'], ['conduct', 'Conduct'], ['other', 'Something else']) },
        { asks: 'What is it about?' },
      ),
      asking('what_happened', 'What happened', { kind: 'long-text' }, { asks: 'What happened?' }),
      asking('when', 'When', { kind: 'date' }, { asks: 'When was it?', required: false }),
      asking(
        'pictures',
        'Pictures',
        { kind: 'files', only: 'pictures', most: 3 },
        { asks: 'Do pictures show it?', required: false },
      ),
      asking('reply', 'Reply wanted', { kind: 'yes-no' }, { asks: 'May we come back to you about it?' }),
      asking('reach', 'How to reach', { kind: 'text' }, { asks: 'How can we reach you in confidence?' }),
    ]),
    rules: [
      {
        id: 'rule-1',
        name: 'Ask how only who wants a reply',
        says: '',
        when: 'reply = true',
        then: [{ do: 'show', parts: ['reach'] }],
        otherwise: [],
        on: true,
        runs: 'filling',
      },
    ],
  }),
  protects: ({ team }) => ({
    rules: [
      {
        id: 'closed',
        name: 'Reports stay with those who look into them',
        fields: 'all',
        audience: { in: { everyone: true }, outOf: [team], requester: 'out' },
        level: 'hidden',
      },
    ],
  }),
};

const event: Recipe = {
  key: 'event',
  label: 'Places at an event',
  says: 'Who comes, how many, and one request for each group.',
  make: (ground) => ({
    ...designOf(ground, '{group_name}, {day}', [
      asking('group_name', 'Group', { kind: 'text' }, { asks: 'Which school or group are you?' }),
      asking('day', 'Day', { kind: 'choice', options: options(['first', 'First day']) }, { asks: 'Which day?' }),
      asking(
        'places',
        'Places',
        { kind: 'number', places: 0, least: 1, most: 30 },
        { asks: 'How many places do you need?' },
      ),
      asking(
        'needs',
        'Needs',
        { kind: 'choices', options: options(['step_free', 'Step-free way'], ['hearing', 'Hearing loop']) },
        { asks: 'Does anybody need …?', required: false },
      ),
      asking('note', 'Note', { kind: 'long-text' }, { asks: 'Anything else we should know?', required: false }),
    ]),
    unique: [{ id: 'unique-1', fields: ['group_name', 'day'], among: 'unfinished' }],
  }),
};

const blank: Recipe = { key: 'blank', label: 'An empty form', says: 'Nothing yet.', make: blankDesign };

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
