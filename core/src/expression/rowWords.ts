import { type Said, said, type Words } from '@tolvek/words';
import { printExpression } from './print.ts';
import {
  labelOfSubject,
  type Row,
  type RowGroup,
  type RowTest,
  type RowValue,
  rowOfCell,
  rowsOf,
  typeOfSubject,
} from './rows.ts';
import type { Scope } from './scope.ts';
import type { Node, Test } from './tree.ts';
import type { ScopeType } from './types.ts';
import { valueInWords } from './valueWords.ts';

type OfDays = Extract<RowTest, 'above' | 'at least' | 'below' | 'at most'>;
const OF_DAYS: readonly RowTest[] = ['above', 'at least', 'below', 'at most'] satisfies readonly OfDays[];
/** A day is before another, a number is below another. */
const ofDays = (test: RowTest, type: ScopeType | null): test is OfDays =>
  type?.kind === 'date' && OF_DAYS.includes(test);

/** A test to choose, between a field and its value: “is above”; of a date, “is after”. */
export const testInWords = (test: RowTest, type: ScopeType | null): Said =>
  ofDays(test, type) ? said(`reasons:day.${test}`) : said(`reasons:test.${test}`);

/** A row’s value as people read it: the label of what was picked, the day, how far from today. */
function rowValueInWords(value: RowValue, test: RowTest, type: ScopeType | null): Words {
  switch (value.kind) {
    case 'me':
      return said('reasons:me');
    case 'date':
      return said('values:date', { day: value.iso });
    case 'today':
      if (value.days === 0) return said('reasons:today');
      return value.days > 0
        ? said('reasons:daysFromToday', { count: value.days })
        : said('reasons:daysAgo', { count: -value.days });
    case 'plain':
      return test === 'in the last days' || test === 'in the next days'
        ? said('reasons:days', { count: Number(value.value) })
        : valueInWords(value.value, type);
  }
}

/** What a row says, as a sentence: “Fee is above 500 EUR”. */
export function rowInWords(row: Row, scope: Scope): Said {
  const type = typeOfSubject(row.of, scope);
  const given = {
    label: labelOfSubject(row.of, scope),
    values: row.values.map((value) => rowValueInWords(value, row.test, type)),
  };
  return ofDays(row.test, type) ? said(`reasons:dayRow.${row.test}`, given) : said(`reasons:row.${row.test}`, given);
}

/** What a row says below the heading of its column: “above 500 EUR”. */
function shortRow(row: Row, scope: Scope): Said {
  const { test } = row;
  const type = typeOfSubject(row.of, scope);
  if (test === 'empty' || test === 'filled in') return said(`reasons:cell.${test}`);
  const given = { values: row.values.map((value) => rowValueInWords(value, test, type)) };
  return ofDays(test, type) ? said(`reasons:dayCell.${test}`, given) : said(`reasons:cell.${test}`, given);
}

/**
 * What a table cell asks of its column: in words where a row says the same, else null.
 *
 * @param of What the column is about, as an expression.
 */
export function cellInWords(tests: readonly Test[], of: string, scope: Scope): Words | null {
  if (tests.every((test) => test.kind === 'any')) return said('reasons:anything');
  const row = rowOfCell(tests, of, scope);
  return row && shortRow(row, scope);
}

/** A condition in words where rows say the same, else its text with labels. */
export function conditionInWords(node: Node, scope: Scope): Words {
  const rows = rowsOf(node, scope);
  return rows ? groupInWords(rows, scope) : printExpression(node, scope);
}

function groupInWords({ join, parts }: RowGroup, scope: Scope): Words {
  const conditions = parts.map((part) =>
    part.kind === 'row' ? rowInWords(part, scope) : said('reasons:grouped', { condition: groupInWords(part, scope) }),
  );
  const [only] = conditions;
  if (!only) return said('reasons:always');
  if (conditions.length === 1) return only;
  return join === 'all' ? said('reasons:both', { conditions }) : said('reasons:either', { conditions });
}
