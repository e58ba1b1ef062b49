import { said, type Words } from '@tolvek/words';
import { CalendarDate, DateTime, Duration, Months } from './calendarTime.ts';
import { type Pick, picksOf, type ScopeType } from './types.ts';
import { isContext, isList, Range, type Value } from './value.ts';

/** Items of a list that are told one by one, at most. */
const TOLD = 6;

/** A value as people read it; what is picked from, by its label. */
export function valueInWords(value: Value, type: ScopeType | null = null): Words {
  if (value === null) return said('reasons:empty');
  if (typeof value === 'boolean') return said(value ? 'reasons:yes' : 'reasons:no');
  if (typeof value === 'string' || typeof value === 'number') return pickedOr(value, type);
  if (isList(value)) return listInWords(value, type);
  if (value instanceof CalendarDate) return said('values:date', { day: value.toString() });
  if (value instanceof DateTime) return said('values:dateTime', { moment: value.toString().slice(0, 16) });
  if (value instanceof Duration) {
    const { days, hours, minutes, seconds } = value.parts;
    return said('reasons:length', { length: { day: days, hour: hours, minute: minutes, second: seconds } });
  }
  if (value instanceof Months)
    return said('reasons:length', { length: { year: Math.trunc(value.months / 12), month: value.months % 12 } });
  if (value instanceof Range) return rangeInWords(value, type);
  if (isContext(value))
    return said('reasons:items', {
      items: Object.entries(value).map(([name, each]) =>
        said('reasons:entry', { name, value: valueInWords(each, entryOf(type, name)) }),
      ),
    });
  return String(value);
}

const entryOf = (type: ScopeType | null, name: string): ScopeType | null =>
  type?.kind === 'context' && Object.hasOwn(type.entries, name) ? (type.entries[name]?.type ?? null) : null;

function pickedOr(value: string | number, type: ScopeType | null): Words {
  const picked = picksOf(type).find((pick: Pick) => pick.key === String(value));
  if (picked) return picked.label;
  // People who are not among those known by name are not told by their ids.
  if (type?.kind === 'person') return said('reasons:someoneElse');
  if (typeof value === 'string') return said('reasons:quoted', { text: value });
  const written = { value, decimals: 0 };
  return type?.kind === 'number' && type.unit
    ? said('values:decimalUnit', { value: written, unit: type.unit })
    : said('values:decimal', { value: written });
}

function listInWords(values: readonly Value[], type: ScopeType | null): Words {
  if (values.length === 0) return said('reasons:nothing');
  const of = type?.kind === 'list' ? type.of : type;
  const items = values.slice(0, values.length > TOLD ? TOLD - 1 : TOLD).map((each) => valueInWords(each, of));
  const count = values.length - items.length;
  return count > 0 ? said('reasons:someItems', { items, count }) : said('reasons:items', { items });
}

function rangeInWords({ low, high, lowOpen, highOpen }: Range, type: ScopeType | null): Words {
  const of = type?.kind === 'range' ? type.of : type;
  const given = { from: valueInWords(low, of), to: valueInWords(high, of) };
  if (lowOpen) return said(highOpen ? 'reasons:rangeOpen' : 'reasons:rangeFromOpen', given);
  return said(highOpen ? 'reasons:rangeToOpen' : 'reasons:range', given);
}
