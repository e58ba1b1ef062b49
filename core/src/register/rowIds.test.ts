import { english } from '@tolvek/words/english';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type Field, type ItemRow, NOTHING_AROUND, type RawRow, readAnswer, typedForm } from './index.ts';
import { identifiedRows, rowIdOf, withoutRowIds, withRowIds } from './rowIds.ts';

const field: Field = {
  ...{ key: 'lines', label: 'Lines', source: 'asked' },
  type: {
    kind: 'line-items',
    columns: [
      { key: 'what', label: 'What', type: { kind: 'text' }, required: true },
      { key: 'n', label: 'How many', type: { kind: 'number', places: 0 }, required: false },
      { key: 'twice', label: 'Twice', type: { kind: 'number', places: 0 }, required: false, formula: 'n * 2' },
    ],
  },
};
const read = (rows: readonly RawRow[]): readonly ItemRow[] => {
  const found = readAnswer(field, rows, NOTHING_AROUND);
  if (found.state === 'wrong') throw new Error(english(found.message));
  return found.state === 'value' ? (found.value as readonly ItemRow[]) : [];
};
const idsOf = (rows: readonly ItemRow[]): readonly string[] => rows.map(rowIdOf);

const edit = fc.record({
  does: fc.constantFrom('add', 'copy', 'drop', 'swap', 'change'),
  ...{ at: fc.nat(), to: fc.nat(), what: fc.constantFrom('rope', 'net', 'buoy') },
});

describe('the id of a line', () => {
  it('stays with its line and is never given again, whatever lines come, go and change places', () => {
    const seen = { kept: 0, fresh: 0, gone: 0 };
    fc.assert(
      fc.property(fc.array(fc.array(edit, { maxLength: 4 }), { maxLength: 8 }), (rounds) => {
        // A model beside it: lines as objects of their own, with the id each was first seen by.
        let stored = read([{ what: 'a' }, { what: 'b' }, { what: 'c' }]);
        const used = new Set(idsOf(stored));
        for (const [round, edits] of rounds.entries()) {
          const lines: RawRow[] = [...withRowIds(typedForm(field, stored) as readonly RawRow[])];
          for (const { does, at, to, what } of edits) {
            const one = lines.length > 0 ? at % lines.length : 0;
            if (does === 'add') lines.splice(one, 0, { what });
            else if (does === 'copy' && lines[one]) lines.push({ ...lines[one] });
            else if (does === 'drop') lines.splice(one, 1);
            else if (does === 'swap' && lines.length > 0) lines.splice(to % lines.length, 0, ...lines.splice(one, 1));
            else if (does === 'change' && lines[one]) lines[one] = { ...lines[one], what };
          }
          const after = identifiedRows(stored, read(lines), round + 1);
          const ids = idsOf(after);
          expect(new Set(ids).size).toBe(ids.length);
          const before = new Set(idsOf(stored));
          const named = lines.map((line) => line['#']);
          for (const [place, id] of ids.entries()) {
            const said = named[place];
            const isFirst = named.indexOf(said) === place;
            if (typeof said === 'string' && isFirst) {
              expect(id).toBe(said);
              seen.kept += 1;
            } else if (!before.has(id)) {
              expect(used.has(id)).toBe(false);
              seen.fresh += 1;
            }
            expect(after[place]?.what).toBe(lines[place]?.what);
          }
          seen.gone += [...before].filter((id) => !ids.includes(id)).length;
          for (const id of ids) used.add(id);
          // What is worked on and not changed is the same to the letter.
          const again = read(withRowIds(typedForm(field, after) as readonly RawRow[]));
          expect(JSON.stringify(identifiedRows(after, again, round + 2))).toBe(JSON.stringify(after));
          stored = after;
        }
      }),
      { numRuns: 300 },
    );
    console.log('ids of lines', seen);
    expect(Math.min(seen.kept, seen.fresh, seen.gone)).toBeGreaterThan(100);
  });

  it('is that of the line that says the same, where whoever changes them names none', () => {
    const before = identifiedRows(read([{ what: 'a' }, { what: 'b' }]), read([{ what: 'b' }, { what: 'a' }]), 1);
    expect(idsOf(before)).toEqual(['1-1', '1-0']);
    expect(idsOf(identifiedRows(before, read([{ what: 'c' }, { what: 'a' }]), 2))).toEqual(['3-0', '1-0']);
  });

  it('can’t be chosen by whoever asks, nor be anything else than an id', () => {
    const made = read([{ '#': '7-3', what: 'a' }, { '#': 'x', what: 'b' }, { '#': '1-9' }]);
    expect(made).toEqual([{ '#': '7-3', what: 'a' }, { what: 'b' }]);
    expect(withoutRowIds([field], { lines: made })).toEqual({ lines: [{ what: 'a' }, { what: 'b' }] });
    expect(idsOf(identifiedRows([], made, 4))).toEqual(['5-0', '5-1']);
  });
});
