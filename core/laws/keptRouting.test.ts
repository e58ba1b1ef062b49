import fc from 'fast-check';
import { expect, test } from 'vitest';
import { prepareCompletion } from '../src/form/index.ts';
import { type Field, type RequestFacts, requestScope, requestSlots, type Values } from '../src/register/index.ts';
import {
  type KeptRouting,
  keptRouting,
  LONGEST_KEPT,
  prepareRouting,
  type RoutingTable,
  routedAgain,
} from '../src/routing/index.ts';
import { answersTo, anyForm, FACTS } from './anyForm.ts';

/** What cells ask of a column, by the kind of its field. */
const asks = (field: Field): readonly string[] => {
  switch (field.type.kind) {
    case 'yes-no':
      return ['true', 'false', 'null'];
    case 'number':
      return ['> 5', '<= 0', '[1..3]'];
    case 'date':
      return ['> date("2026-12-01")', '< today'];
    case 'text':
    case 'long-text':
      return ['"a", "b"', 'not("a")'];
    default:
      return ['null', 'not(null)'];
  }
};
const OF_FACTS: readonly (readonly [string, readonly string[]])[] = [
  ['requester.outside', ['true', 'false']],
  ['requester.groups', ['list contains(?, "boats")', 'count(?) = 0']],
  ['requester.grade', ['>= 3', '< 3', 'null']],
  ['door', ['"staff"', '"outside"']],
  ['today', ['>= date("2026-01-01")', '< date("2020-01-01")']],
];

/** The same with texts that nobody would keep. */
const lengthened = (values: Values): Values =>
  Object.fromEntries(
    Object.entries(values).map(([key, value]) => [
      key,
      typeof value === 'string' ? value.padEnd(400, value || 'x') : value,
    ]),
  );

const tableOver = (fields: readonly Field[]): fc.Arbitrary<RoutingTable> => {
  const inputs = [...fields.map((field) => [field.key, asks(field)] as const), ...OF_FACTS];
  return fc.subarray([...inputs.keys()], { minLength: 1, maxLength: Math.min(4, inputs.length) }).chain((chosen) => {
    const columns = chosen.map((index) => {
      const [input] = inputs[index] ?? ['today'];
      return { id: `c${index}`, label: `Column ${index}`, input };
    });
    const cell = (index: number) => fc.constantFrom('-', ...(inputs[index]?.[1] ?? ['-']));
    const row = fc.tuple(...chosen.map(cell)).map((cells) => ({
      note: '',
      cells: Object.fromEntries(cells.map((text, at) => [columns[at]?.id ?? '', text])),
      outcome: { team: 'boats', priority: 'normal', workingDays: 1, path: null } as const,
    }));
    return fc.array(row, { minLength: 1, maxLength: 6 }).map((rows) => ({
      columns,
      rows: rows.map((each, index) => ({ ...each, id: `r${index}` })),
      otherwise: { team: 'leads', priority: 'low', workingDays: 9, path: 'path' } as const,
    }));
  });
};

test('a routing that was kept tells the same row for the same reasons, whatever is so later', () => {
  const seen = { 'told again': 0, 'too long to keep': 0, 'by a fact': 0, 'last row': 0, bytes: 0 };
  fc.assert(
    fc.property(
      anyForm.chain((form) =>
        fc.record({
          form: fc.constant(form),
          answers: answersTo(form),
          table: tableOver(form.fields),
          long: fc.integer({ min: 0, max: 4 }),
        }),
      ),
      ({ form, answers, table, long }) => {
        const completed = prepareCompletion(form)(answers, FACTS).values;
        const values = long === 0 ? lengthened(completed) : completed;
        const route = prepareRouting(table, requestScope(form.fields));
        const routed = route(requestSlots(form.fields, values, FACTS));
        const text = JSON.stringify(keptRouting(routed, route, values, FACTS));
        const bytes = Buffer.byteLength(text);
        expect(bytes).toBeLessThanOrEqual(LONGEST_KEPT);
        seen.bytes = Math.max(seen.bytes, bytes);
        const kept = JSON.parse(text) as KeptRouting;
        // Another day, another door, somebody else at another team.
        const later: RequestFacts = {
          ...{ ...FACTS, today: '2019-05-05', now: '2019-05-05T05:05', door: 'outside', department: 'Elsewhere' },
          ...{ requesterIsOutside: !FACTS.requesterIsOutside, requesterId: null, requesterGroups: ['boats', 'others'] },
          profile: { ...FACTS.profile, values: { grade: 1, house: 'Elsewhere' } },
        };
        let found = 0;
        const arrived = (): Values => {
          found += 1;
          return values;
        };
        const again = routedAgain(route, kept, form.fields, arrived, later);
        expect([again, found]).toEqual([routed, kept.values === null ? 1 : 0]);
        if (kept.values === null) seen['too long to keep'] += 1;
        seen['told again'] += 1;
        if (Object.keys(kept.facts ?? {}).length > 0) seen['by a fact'] += 1;
        if (routed.isOtherwise) seen['last row'] += 1;
      },
    ),
    { numRuns: Number(process.env.RUNS ?? 400) },
  );
  console.log('kept routings', seen);
  for (const [what, times] of Object.entries(seen)) expect([what, times > 5]).toEqual([what, true]);
});

test('a routing is not told for other reasons than it had', () => {
  const fields: readonly Field[] = [{ key: 'on', label: 'On', type: { kind: 'yes-no' }, source: 'asked' }];
  const outcome = { team: 'boats', priority: 'normal', workingDays: 1, path: null } as const;
  const route = prepareRouting(
    {
      columns: [{ id: 'c', label: 'On', input: 'on' }],
      rows: [{ id: 'r', note: '', cells: { c: 'true' }, outcome }],
      otherwise: outcome,
    },
    requestScope(fields),
  );
  const kept: KeptRouting = { row: 2, values: { on: true }, facts: {} };
  expect(routedAgain(route, kept, fields, () => ({}), FACTS)).toBeNull();
});
