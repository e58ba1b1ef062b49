import type { Field } from '../register/index.ts';
import { nextOf } from './measures.ts';
import { kindIn } from './subjects.ts';
import type { ChartStretch, ViewDesign } from './view.ts';

/** A text as FEEL writes it (DMN 1.5, 10.3.1.4). */
const text = (value: string): string => `"${value.replaceAll('\\', '\\\\').replaceAll('"', '\\"')}"`;

/**
 * The condition (FEEL) that exactly those meet who stand together in a chart or board: that have a value of something, as
 * the database holds it, or a day of a stretch that begins on that day; null: that have none.
 */
export function conditionFor(
  subject: string,
  value: string | number | null,
  fields: readonly Field[],
  each: ChartStretch = 'day',
): string {
  if (value === null) return `${subject} = null`;
  const kind = kindIn(subject, fields);
  if (kind === 'date' || kind === 'date-time')
    return conditionBetween(subject, String(value), nextOf(String(value), each), fields);
  if (kind === 'yes-no') return `${subject} = ${value === 1}`;
  return typeof value === 'number' ? `${subject} = ${value}` : `${subject} = ${text(value)}`;
}

/** The condition that those meet whose day or moment is on a day or after it, and before another (ISO 8601). */
export function conditionBetween(subject: string, from: string, before: string, fields: readonly Field[]): string {
  const isDay = kindIn(subject, fields) === 'date';
  const moment = (day: string): string => (isDay ? `date("${day}")` : `date and time("${day}T00:00:00")`);
  return `${subject} >= ${moment(from)} and ${subject} < ${moment(before)}`;
}

/** What reaches further than an “and” that follows it. */
const LOOSE = /\b(or|if|some|every|for|function)\b/;

/** A view of only the rows that meet some more conditions besides. */
export const narrowed = (view: ViewDesign, conditions: readonly string[]): ViewDesign => ({
  ...view,
  when: [...(view.when === '' ? [] : [LOOSE.test(view.when) ? `(${view.when})` : view.when]), ...conditions].join(
    ' and ',
  ),
});
