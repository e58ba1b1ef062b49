import type { Field } from '../register/index.ts';
import { nextOf } from './measures.ts';
import { kindIn } from './subjects.ts';
import type { ChartStretch } from './view.ts';

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
  if (kind === 'date' || kind === 'date-time') {
    const first = String(value);
    const moment = (day: string): string => (kind === 'date' ? `date("${day}")` : `date and time("${day}T00:00:00")`);
    return `${subject} >= ${moment(first)} and ${subject} < ${moment(nextOf(first, each))}`;
  }
  if (kind === 'yes-no') return `${subject} = ${value === 1}`;
  return typeof value === 'number' ? `${subject} = ${value}` : `${subject} = ${text(value)}`;
}
