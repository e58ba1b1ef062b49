import { said } from '@tolvek/words';
import { CalendarDate, DateTime } from '../../expression/index.ts';
import { EMPTY, isBlank, type KindWork, wrong } from './kind.ts';

/** `2026-11-23` as `Mon 23 November 2026`. */
export const dateInWords = (iso: string): string => CalendarDate.read(iso)?.words ?? iso;

export const date: KindWork<'date'> = {
  read: (raw, type, { today }) => {
    if (isBlank(raw)) return EMPTY;
    const value = typeof raw === 'string' ? CalendarDate.read(raw.trim()) : null;
    if (!value) return wrong(said('answers:notADate', { typed: String(raw) }), said('answers:chooseDate'));
    const now = CalendarDate.read(today);
    if (type.notBeforeToday && now && value.day < now.day)
      return wrong(said('answers:dayPassed'), said('answers:orLater', { day: today }));
    return { state: 'value', value: value.toString() };
  },
  show: (value) => dateInWords(String(value)),
  say: (value) => said('values:date', { day: String(value) }),
  typed: (value) => String(value),
  toExpression: (value) => CalendarDate.read(String(value)),
  fromExpression: (value) =>
    value instanceof CalendarDate ? value.toString() : value instanceof DateTime ? value.date.toString() : undefined,
  scopeType: () => ({ kind: 'date' }),
  // `YYYY-MM-DD` is ordered as the days are.
  stored: () => ({ ordered: true, written: (value) => (value instanceof CalendarDate ? value.toString() : undefined) }),
};
