import { said } from '@tolvek/words';
import { freshKey } from '../../own/index.ts';
import { type ChoiceOption, type Field, type Kind, NOTHING_AROUND, readAnswer } from '../../register/index.ts';
import type { FormDesign } from '../design.ts';
import { asking, designOf, type Ground } from './recipe.ts';

/** A choice is guessed when so few different words fill so many rows. */
const MOST_OPTIONS = 8;

/** Kinds that a column of text is tried as, the narrowest first. */
const TRIED: readonly Kind[] = [
  { kind: 'yes-no' },
  { kind: 'number', places: 0 },
  { kind: 'number', places: 2 },
  { kind: 'money', currency: 'EUR' },
  { kind: 'date' },
  { kind: 'date-time' },
  { kind: 'email' },
];

/** The kind that every filled cell of a column can be read as; text where nothing narrower fits. */
export function guessKind(cells: readonly string[]): Kind {
  const filled = cells.map((cell) => cell.trim()).filter(Boolean);
  if (filled.length === 0) return { kind: 'text' };
  const fits = TRIED.find((type) =>
    filled.every((cell) => readAnswer({ type }, cell, NOTHING_AROUND).state === 'value'),
  );
  if (fits) return fits;
  const different = [...new Set(filled)];
  if (
    different.length <= MOST_OPTIONS &&
    filled.length >= different.length * 3 &&
    different.every((cell) => cell.length <= 60)
  )
    return { kind: 'choice', options: optionsFrom(different) };
  return filled.some((cell) => cell.includes('\n') || cell.length > 200) ? { kind: 'long-text' } : { kind: 'text' };
}

function optionsFrom(labels: readonly string[]): readonly ChoiceOption[] {
  const taken = new Set<string>();
  return labels.map((label) => {
    const key = freshKey(label, taken);
    taken.add(key);
    return { key, label };
  });
}

/**
 * A form from the rows of a spreadsheet: one question for each heading, of the kind its cells can
 * be read as. Columns without heading and cells are passed over; the same heading twice becomes two
 * fields.
 */
export function designFromRows(ground: Ground, rows: readonly (readonly string[])[]): FormDesign {
  const [headings = [], ...body] = rows.filter((row) => row.some((cell) => cell.trim() !== ''));
  const taken = new Set<string>();
  const asked = headings.flatMap((heading, column) => {
    const cells = body.map((row) => row[column] ?? '');
    const label = heading.trim();
    if (label === '' && cells.every((cell) => cell.trim() === '')) return [];
    const key = freshKey(label, taken);
    taken.add(key);
    const required = body.length > 0 && cells.every((cell) => cell.trim() !== '');
    return [
      asking(key, label || ground.told(said('recipes:column', { n: column + 1 })), guessKind(cells), { required }),
    ];
  });
  const first = asked.find(({ field }: { field: Field }) => field.type.kind === 'text') ?? asked[0];
  return designOf(ground, first ? `{${first.field.key}}` : '', asked);
}
