import { said } from '@tolvek/words';
import { DateTime } from '../../expression/index.ts';
import { EMPTY, isBlank, type KindWork, wrong } from './kind.ts';

const FIX = said('answers:chooseMoment');

/** `2026-11-23T14:30` as `Mon 23 November 2026, 14:30`. */
export const momentOfDayInWords = (iso: string): string => {
  const moment = DateTime.read(iso);
  return moment ? `${moment.date.words}, ${String(moment.time).slice(0, 5)}` : iso;
};

/** A moment to the minute on the desk’s wall clock, whatever the clock of who types it. */
export const dateTime: KindWork<'date-time'> = {
  read: (raw, type, { now }) => {
    if (isBlank(raw)) return EMPTY;
    const typed = String(raw).trim();
    const moment = DateTime.read(typed.replace(/^(\d{4}-\d\d-\d\d),? +(\d\d:\d\d(?::\d\d)?)$/, '$1T$2'));
    if (!moment)
      return wrong(
        /^\d{4}-\d\d-\d\d$/.test(typed) ? said('answers:timeMissing') : said('answers:notAMoment', { typed }),
        FIX,
      );
    const value = moment.toString().slice(0, 16);
    if (type.notBeforeNow && value < now)
      return wrong(said('answers:momentPassed'), said('answers:momentOrLater', { moment: now }));
    return { state: 'value', value };
  },
  show: (value) => momentOfDayInWords(String(value)),
  say: (value) => said('values:dateTime', { moment: String(value) }),
  typed: (value) => String(value),
  toExpression: (value) => DateTime.read(String(value)),
  fromExpression: (value) => (value instanceof DateTime ? value.toString().slice(0, 16) : undefined),
  scopeType: () => ({ kind: 'date-time' }),
  // Text of one length, to the minute. A moment with seconds is written with them: it stands after its
  // minute and before the next, and is none that is stored.
  stored: () => ({
    ordered: true,
    written: (value) => {
      const text = value instanceof DateTime ? value.toString() : undefined;
      return text?.endsWith(':00') ? text.slice(0, 16) : text;
    },
  }),
};
