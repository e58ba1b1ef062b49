import type { Field, FieldValue, Kind, RawAnswer, RawRow } from './field.ts';
import { typedForm } from './kinds/index.ts';
import type { Around, NameOf } from './kinds/kind.ts';
import { termAddress } from './kinds/term.ts';
import { ROW_ID } from './rowIds.ts';
import { termMeant } from './vocabulary.ts';

type Named = Pick<Field, 'type'>;

/** Between several in one cell. */
const BETWEEN = '; ';

const listOf = (value: FieldValue): readonly string[] =>
  Array.isArray(value) ? (value as readonly string[]) : [String(value)];
const parts = (cell: string): readonly string[] =>
  cell
    .split(';')
    .map((part) => part.trim())
    .filter(Boolean);

/**
 * Words that can be read back: a label, unless another thing has the same, or it holds what stands
 * between several.
 */
const told = (label: string | undefined, key: string, isSure: boolean): string =>
  label !== undefined && isSure && !label.includes(';') ? label : key;

function optionCell(options: readonly { readonly key: string; readonly label: string }[], key: string): string {
  const label = options.find((option) => option.key === key)?.label;
  return told(label, key, options.filter((option) => same(option.label, label ?? '')).length === 1);
}

const same = (a: string, b: string): boolean => a.trim().toLowerCase() === b.trim().toLowerCase();

function termCell(
  vocabulary: string,
  key: string,
  nameOf: NameOf,
  { vocabularies }: Pick<Around, 'vocabularies'>,
): string {
  const label = nameOf(termAddress(vocabulary, key));
  const known = vocabularies.find((each) => each.key === vocabulary);
  return told(label, key, known !== undefined && label !== undefined && termMeant(known, label)?.key === key);
}

/**
 * A value as the cell of a sheet (CSV, RFC 4180): as people read it where that can be read back, as
 * it would be typed elsewhere. People stand by name, other requests by number, lines as JSON, files
 * by their names.
 */
export function cellOf(
  { type }: Named,
  value: FieldValue,
  nameOf: NameOf,
  around: Pick<Around, 'vocabularies' | 'people' | 'references'>,
): string {
  const personCell = (id: string): string =>
    told(nameOf(id), id, around.people.filter((person) => same(person.name, nameOf(id) ?? '')).length <= 1);
  const requestCell = (id: string): string => around.references.find((each) => each.id === id)?.number ?? id;
  switch (type.kind) {
    case 'yes-no':
      return value === true ? 'yes' : 'no';
    case 'choice':
      return optionCell(type.options, String(value));
    case 'choices':
      return listOf(value)
        .map((key) => optionCell(type.options, key))
        .join(BETWEEN);
    case 'level':
      return type.levels.find((level) => level.worth === value)?.label ?? String(value);
    case 'person':
      return personCell(String(value));
    case 'people':
      return listOf(value).map(personCell).join(BETWEEN);
    case 'term':
      return termCell(type.vocabulary, String(value), nameOf, around);
    case 'terms':
      return listOf(value)
        .map((key) => termCell(type.vocabulary, key, nameOf, around))
        .join(BETWEEN);
    case 'reference':
      return requestCell(String(value));
    case 'references':
      return listOf(value).map(requestCell).join(BETWEEN);
    case 'files':
      return listOf(value)
        .map((ref) => ref.slice(ref.indexOf('/') + 1))
        .join(BETWEEN);
    case 'line-items':
      return JSON.stringify((typedForm({ type }, value) as readonly RawRow[]).map(({ [ROW_ID]: _, ...line }) => line));
    default:
      return String(typedForm({ type }, value));
  }
}

/**
 * What a cell says, as it would be typed into the field; words that mean nothing stay as they are,
 * for reading to refuse.
 */
export function typedFromCell({ type }: Named, cell: string, around: Pick<Around, 'people' | 'references'>): RawAnswer {
  const said = cell.trim();
  if (said === '') return null;
  const option = (
    options: readonly { readonly key: string; readonly label: string; readonly retired?: boolean }[],
    words: string,
  ): string =>
    options.find((each) => each.key === words)?.key ?? options.find((each) => same(each.label, words))?.key ?? words;
  const person = (words: string): string =>
    around.people.find((each) => each.id === words || same(each.name, words))?.id ?? words;
  const request = (words: string): string =>
    around.references.find((each) => each.id === words || same(each.number, words))?.id ?? words;
  switch (type.kind) {
    // Spreadsheets write TRUE and FALSE, and people Yes and No.
    case 'yes-no':
      return said.toLowerCase();
    case 'choice':
      return option(type.options, said);
    case 'choices':
      return parts(said).map((part) => option(type.options, part));
    case 'person':
      return person(said);
    case 'people':
      return parts(said).map(person);
    case 'terms':
      return parts(said);
    case 'reference':
      return request(said);
    case 'references':
      return parts(said).map(request);
    case 'line-items':
      return linesIn(said);
    default:
      return said;
  }
}

function linesIn(cell: string): RawAnswer {
  try {
    const lines: unknown = JSON.parse(cell);
    return Array.isArray(lines) ? (lines as RawAnswer) : cell;
  } catch {
    return cell;
  }
}

/** Kinds that no cell can bring in: bytes, and what the house gives out. */
export const comesInCells = (type: Kind): boolean => type.kind !== 'files' && type.kind !== 'running-number';

const FORMULA = /^'*[=+\-@\t\r]/;
const FIGURE = /^-?\d+([.,]\d+)?$/;

/**
 * A cell that no spreadsheet takes for a formula: what begins like one is quoted by an apostrophe
 * (OWASP, CSV injection).
 */
export const guarded = (cell: string): string => (FORMULA.test(cell) && !FIGURE.test(cell) ? `'${cell}` : cell);

/** The cell without the apostrophe that guards it. */
export const unguarded = (cell: string): string =>
  cell.startsWith("'") && FORMULA.test(cell.slice(1)) ? cell.slice(1) : cell;
