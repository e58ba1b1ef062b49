import fc from 'fast-check';
import { expect, test } from 'vitest';
import { type AccessLevel, levelsAsking } from '../src/access/index.ts';
import { askedBy, type FormRule, prepareCompletion, questionsOf, refusalsOf } from '../src/form/index.ts';
import type { Viewer } from '../src/people/index.ts';
import { type Field, type ItemRow, partsOf, type RawRow } from '../src/register/index.ts';
import { answersTo, anyForm, FACTS } from './anyForm.ts';
import { anyLook, anyPlaced, anyRules, slowLevel } from './anyPlan.ts';
import { often } from './often.ts';

const FIELDS: readonly Field[] = [
  { key: 'a', label: 'A', type: { kind: 'text' }, source: 'asked' },
  { key: 'c', label: 'C', type: { kind: 'text' }, source: 'asked' },
];

test('while somebody asks, the rules that speak then decide as they do everywhere, and nothing else does', () => {
  const counts = { write: 0, read: 0, hidden: 0, silent: 0 };
  fc.assert(
    fc.property(
      anyRules(['a', 'c']),
      fc.array(fc.boolean(), { minLength: 4, maxLength: 4 }),
      fc.array(anyLook, { minLength: 4, maxLength: 8 }),
      anyPlaced(['a', 'c']),
      (made, speaks, looks, placed) => {
        const rules = made.map((rule, index) => (speaks[index] ? { ...rule, asking: true as const } : rule));
        for (const look of looks) {
          const { personId, groups, stage, day, holding, kind = 'staff', meets = [] } = look;
          const viewer: Viewer = { personId, groups, kind, meets, rights: [] };
          const at = { stage, day, holds: (condition: string) => holding.includes(condition) };
          const levels = levelsAsking(FIELDS, { rules, ...(placed ? { placed } : {}) }, viewer, at);
          for (const field of FIELDS) {
            // Whoever asks is nothing else to the request. No place named in an exception is where somebody asks.
            const asks = {
              ...look,
              isDesk: false,
              isRequester: true,
              calledIn: false,
              as: [],
              activity: 'asking' as 'working',
            };
            const speaking = rules.filter(({ asking }) => asking);
            const base = { desk: 'write', requester: { answers: 'write', made: 'write', staffOnly: 'write' } } as const;
            const wanted: AccessLevel = slowLevel(speaking, field, asks, base as never);
            expect([field.key, levels.get(field.key) ?? 'write']).toEqual([field.key, wanted]);
            counts[wanted] += 1;
            if (wanted === 'write' && rules.some(({ asking, level }) => !asking && level !== 'write'))
              counts.silent += 1;
          }
        }
      },
    ),
    { numRuns: often(800) },
  );
  console.log('levels while somebody asks:', counts);
  expect(Math.min(...Object.values(counts))).toBeGreaterThan(50);
});

test('a form asked without some questions is the form with a rule that hides them', () => {
  const counts = { asked: 0, hidden: 0, locked: 0, problems: 0, let: 0 };
  fc.assert(
    fc.property(
      anyForm.chain((form) =>
        fc.tuple(fc.constant(form), fc.subarray(questionsOf(form.parts).map(({ field }) => field)), answersTo(form)),
      ),
      fc.infiniteStream(fc.boolean()),
      ([form, some, answers], bits) => {
        const levels = new Map(some.map((key) => [key, bits.next().value ? ('hidden' as const) : ('read' as const)]));
        const of = (level: AccessLevel): string[] => some.filter((key) => levels.get(key) === level);
        const always = (id: string, then: FormRule['then']): FormRule => ({
          ...{ id, name: id, says: '', when: 'true', then, otherwise: [], on: true, runs: 'filling' },
        });
        const rules = [
          ...form.rules,
          ...(of('hidden').length > 0 ? [always('hides', [{ do: 'hide', parts: of('hidden') }])] : []),
          ...(of('read').length > 0 ? [always('locks', [{ do: 'lock', fields: of('read') }])] : []),
        ];
        const left = Object.fromEntries(Object.entries(answers).filter(([key]) => levels.get(key) !== 'hidden'));
        const own = prepareCompletion(askedBy(form, levels))(left, FACTS);
        const other = prepareCompletion({ ...form, rules })(left, FACTS);
        expect(own.asked.map(({ field, locked }) => [field, locked])).toEqual(
          other.asked.map(({ field, locked }) => [field, locked]),
        );
        expect(own.values).toEqual(other.values);
        // But what somebody can’t fill in is not demanded of them.
        const refused = refusalsOf(other).filter(
          ({ field, why }) => levels.get(field) !== 'read' || why !== 'unanswered',
        );
        expect(refusalsOf(own).map(({ field }) => field)).toEqual(refused.map(({ field }) => field));
        counts.let += refusalsOf(other).length - refused.length;
        counts.asked += own.asked.length;
        counts.hidden += of('hidden').length;
        counts.locked += own.asked.filter(({ locked }) => locked).length;
        counts.problems += refusalsOf(own).length;
      },
    ),
    { numRuns: often(500) },
  );
  console.log('forms asked without some questions:', counts);
  expect(Math.min(...Object.values(counts))).toBeGreaterThan(often(100));
});

test('lines are asked with the columns that somebody may fill in, and what is computed of the others is gone', () => {
  const number = { kind: 'number', places: 0 } as const;
  const columns = [
    { key: 'what', label: 'What', type: { kind: 'text' as const }, required: true },
    { key: 'qty', label: 'Quantity', type: number, required: true },
    { key: 'price', label: 'Price', type: number, required: true },
    { key: 'total', label: 'Total', type: number, required: false, formula: 'qty * price' },
    { key: 'double', label: 'Double', type: number, required: false, formula: 'total * 2' },
  ];
  const lines: Field = { key: 'lines', label: 'Lines', type: { kind: 'line-items', columns }, source: 'asked' };
  const sum: Field = { key: 'sum', label: 'Sum', type: number, source: 'computed', formula: 'sum(lines.double)' };
  const form = {
    fields: [lines, sum],
    parts: [{ part: 'question' as const, field: 'lines', asks: '', help: '', required: true }],
    rules: [],
  };
  const keys = columns.map(({ key }) => `lines.${key}`);
  expect(partsOf([lines]).map(({ key }) => key)).toEqual(['lines', ...keys]);
  fc.assert(
    fc.property(fc.subarray(['what', 'qty', 'price', 'total']), (hidden) => {
      const asked = askedBy(form, new Map(hidden.map((key) => [`lines.${key}`, 'hidden' as const])));
      const complete = prepareCompletion(asked);
      const all: RawRow = { what: 'Rope', qty: '2', price: '3' };
      const row = Object.fromEntries(Object.entries(all).filter(([key]) => !hidden.includes(key as 'what')));
      if (Object.keys(row).length === 0) {
        expect(questionsOf(asked.parts)).toEqual([]);
        return;
      }
      const done = complete({ lines: [row] }, FACTS);
      expect(refusalsOf(done)).toEqual([]);
      const isWhole = !hidden.includes('qty') && !hidden.includes('price') && !hidden.includes('total');
      expect((done.values.lines as readonly ItemRow[])[0]?.double).toBe(isWhole ? 12 : undefined);
      // What is not asked is refused as what is not there.
      if (hidden.some((key) => key !== 'total')) expect(refusalsOf(complete({ lines: [all] }, FACTS)).length).toBe(1);
    }),
    { numRuns: 60 },
  );
});
