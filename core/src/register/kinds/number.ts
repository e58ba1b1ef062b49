import { said, type Words } from '@tolvek/words';
import { movePoint, roundTo } from '../../expression/index.ts';
import type { Money, RawAnswer } from '../field.ts';
import { EMPTY, isBlank, type KindWork, type ReadAnswer, wrong } from './kind.ts';

/**
 * Reads a decimal as people type it: `1148`, `1,148.00`, `1.148,00`, `1 148.5`. The last `.` or `,`
 * is the decimal mark unless it stands before exactly three digits and the other reading is a plain
 * thousands group. Returns digits without grouping and a `.`, or null.
 */
function plainDecimal(typed: string): string | null {
  const compact = typed.replace(/[\s\u00a0\u202f']/g, '');
  if (!/^[+-]?[\d.,]+$/.test(compact) || !/\d/.test(compact)) return null;
  const sign = compact.startsWith('-') ? '-' : '';
  const body = compact.replace(/^[+-]/, '');
  const marks = body.match(/[.,]/g) ?? [];
  if (marks.length === 0) return sign + body;
  const last = Math.max(body.lastIndexOf('.'), body.lastIndexOf(','));
  const mark = body[last] ?? '.';
  const repeated = marks.filter((each) => each === mark).length > 1;
  const groups = /^\d{1,3}([.,]\d{3})+$/.test(body);
  if (groups && new Set(marks).size === 1 && (repeated || mark === ',')) return sign + body.replace(/[.,]/g, '');
  if (repeated) return null;
  const whole = body.slice(0, last);
  if (/[.,]/.test(whole) && !/^\d{1,3}([.,]\d{3})+$/.test(whole)) return null;
  const fraction = body.slice(last + 1);
  if (/[.,]/.test(fraction)) return null;
  return `${sign}${whole.replace(/[.,]/g, '') || '0'}${fraction ? `.${fraction}` : ''}`;
}

/** The typed number in units of 10^-places, as an exact integer; or what is wrong with it. */
function scaled(raw: RawAnswer, places: number, example: string): { units: number } | ReadAnswer {
  if (isBlank(raw)) return EMPTY;
  if (typeof raw === 'boolean') return wrong(said('answers:mustBeNumber'), said('answers:inDigits', { example }));
  const plain = plainDecimal(String(raw));
  if (plain === null)
    return wrong(said('answers:notANumber', { typed: String(raw) }), said('answers:inDigits', { example }));
  const [whole = '0', fraction = ''] = plain.replace('-', '').split('.');
  const kept = fraction.replace(/0+$/, '');
  if (kept.length > places) {
    return wrong(
      places === 0
        ? said('answers:mustBeWhole')
        : said('answers:tooManyDecimals', { decimals: kept.length, count: places }),
      said('answers:roundIt', { example }),
    );
  }
  const units = Number(whole + kept.padEnd(places, '0'));
  if (!Number.isSafeInteger(units)) return wrong(said('answers:numberTooLarge'), said('answers:extraDigits'));
  return { units: plain.startsWith('-') ? -units : units };
}

function outside(
  value: number,
  least: number | undefined,
  most: number | undefined,
  words: (n: number) => Words,
): ReadAnswer | null {
  if (least !== undefined && value < least)
    return wrong(said('answers:lowestIs', { lowest: words(least) }), said('answers:orMore', { lowest: words(least) }));
  if (most !== undefined && value > most)
    return wrong(said('answers:highestIs', { highest: words(most) }), said('answers:orLess', { highest: words(most) }));
  return null;
}

const formats = new Map<number, Intl.NumberFormat>();

/** A number with at least `places` decimal places and thousands set apart. */
function figures(value: number, places: number): string {
  let format = formats.get(places);
  if (!format)
    formats.set(
      places,
      (format = new Intl.NumberFormat('en-IE', {
        minimumFractionDigits: places,
        maximumFractionDigits: Math.max(places, 6),
      })),
    );
  return format.format(value);
}

export const number: KindWork<'number'> = {
  read: (raw, type) => {
    const result = scaled(raw, type.places, type.places > 0 ? (12.5).toFixed(type.places) : '12');
    if ('state' in result) return result;
    const value = Number((result.units / 10 ** type.places).toFixed(type.places));
    return (
      outside(value, type.least, type.most, (n) => said('values:decimal', { value: { value: n, decimals: 0 } })) ?? {
        state: 'value',
        value,
      }
    );
  },
  show: (value, type) => `${figures(Number(value), type.places)}${type.unit ? ` ${type.unit}` : ''}`,
  say: (value, type) => {
    const decimal = { value: Number(value), decimals: type.places };
    return type.unit
      ? said('values:decimalUnit', { value: decimal, unit: type.unit })
      : said('values:decimal', { value: decimal });
  },
  typed: (value, type) => Number(value).toFixed(type.places),
  toExpression: (value) => Number(value),
  fromExpression: (value, type) =>
    typeof value === 'number' ? (roundTo(value, type.places, 'half up') ?? undefined) : undefined,
  scopeType: ({ places, least, most, unit }) => ({
    kind: 'number',
    places,
    ...(least === undefined ? {} : { least }),
    ...(most === undefined ? {} : { most }),
    ...(unit === undefined ? {} : { unit }),
  }),
  stored: () => ({ ordered: true, written: (value) => (typeof value === 'number' ? value : undefined) }),
};

const PLACES = new Map<string, number>();

/** Places of the minor unit of a currency, by ISO 4217; two for a code that is none, such as half a typed one. */
export function placesOf(currency: string): number {
  let places = PLACES.get(currency);
  if (places === undefined) {
    places = /^[A-Z]{3}$/.test(currency)
      ? (new Intl.NumberFormat('en', { style: 'currency', currency }).resolvedOptions().maximumFractionDigits ?? 2)
      : 2;
    PLACES.set(currency, places);
  }
  return places;
}

const neutral = ({ minor, currency }: Money): string =>
  `${currency === 'EUR' ? '€' : currency} ${figures(minor / 10 ** placesOf(currency), placesOf(currency))}`;

function sayMoney(money: Money): Words {
  const { minor, currency } = money;
  const amount = minor / 10 ** placesOf(currency);
  // A code that is none, such as half a typed one, can’t be written by the standard.
  return /^[A-Z]{3}$/.test(currency) ? said('values:money', { sum: { amount, currency } }) : neutral(money);
}

export const money: KindWork<'money'> = {
  read: (raw, type) => {
    const places = placesOf(type.currency);
    const typed = typeof raw === 'string' ? raw.replace(/[€$£]/g, '').replace(new RegExp(type.currency, 'i'), '') : raw;
    const result = scaled(typed, places, (740.5).toFixed(places));
    if ('state' in result) return result;
    const words = (minor: number): Words => sayMoney({ minor, currency: type.currency });
    return (
      outside(result.units, type.least, type.most, words) ?? {
        state: 'value',
        value: { minor: result.units, currency: type.currency },
      }
    );
  },
  show: (value) => neutral(value as Money),
  say: (value) => sayMoney(value as Money),
  typed: (value) => {
    const { minor, currency } = value as Money;
    return (minor / 10 ** placesOf(currency)).toFixed(placesOf(currency));
  },
  fromExpression: (value, { currency }) => {
    const places = placesOf(currency);
    const rounded = typeof value === 'number' ? roundTo(value, places, 'half up') : null;
    // Rounded to its places already, so the nearest whole number of minor units is the right one.
    const minor = rounded === null ? null : Math.round(rounded * 10 ** places);
    return minor !== null && Number.isSafeInteger(minor) ? { minor, currency } : undefined;
  },
  toExpression: (value) => {
    const { minor, currency } = value as Money;
    return Number((minor / 10 ** placesOf(currency)).toFixed(placesOf(currency)));
  },
  scopeType: ({ currency, least, most }) => {
    const places = placesOf(currency);
    const major = (minor: number): number => Number((minor / 10 ** places).toFixed(places));
    return {
      kind: 'number',
      places,
      unit: currency,
      ...(least === undefined ? {} : { least: major(least) }),
      ...(most === undefined ? {} : { most: major(most) }),
    };
  },
  stored: ({ currency }) => ({
    part: 'minor',
    ordered: true,
    written: (value) => (typeof value === 'number' ? movePoint(value, placesOf(currency)) : undefined),
  }),
};
