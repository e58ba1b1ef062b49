import type { Decimal, Length, Money, Stretch } from './said.ts';

/** A language of ours, or one made for a test. */
export type Languages = string;

/** The way each language is written where we are: day before month, a clock of 24 hours. */
const LOCALES: Readonly<Record<string, string>> = { en: 'en-GB', de: 'de-DE' };
/** The tag (BCP 47) by which `Intl` writes for readers of a language. */
export const localeOf = (language: string | undefined): string => LOCALES[language ?? 'en'] ?? 'en-GB';

type Options = Readonly<Record<string, unknown>>;
// biome-ignore lint/suspicious/noExplicitAny: each format takes what its places are given.
type Format = (value: any, language: string | undefined, options: Options) => string;

/** Formatters cost more to make than to use: each is made once. */
const made = new Map<string, unknown>();
function once<T>(name: string, make: () => T): T {
  let found = made.get(name) as T | undefined;
  if (found === undefined) {
    found = make();
    made.set(name, found);
  }
  return found;
}

const zoneOf = (options: Options): string =>
  typeof options.zone === 'string' && options.zone !== '' ? options.zone : 'UTC';
/** A day, or a moment on the desk’s own wall clock: it reads the same wherever the desk is. */
const isWallClock = (value: number | string): value is string =>
  typeof value === 'string' && /^\d{4}-\d\d-\d\d(T\d\d:\d\d(:\d\d)?)?$/.test(value);
const instant = (value: number | string): number =>
  typeof value === 'number' ? value : Date.parse(isWallClock(value) && value.length > 10 ? `${value}Z` : value);

const DATE = { day: 'numeric', month: 'short' } as const;
const CLOCK = { hour: '2-digit', minute: '2-digit', hourCycle: 'h23' } as const;
const SHAPES = {
  /** `Mon 23 Nov, 10:42` */
  moment: { weekday: 'short', ...DATE, ...CLOCK },
  /** `23 Nov 2026` */
  date: { ...DATE, year: 'numeric' },
  /** `23 Nov` */
  dayMonth: DATE,
  /** `Mon 23` */
  day: { weekday: 'short', day: 'numeric' },
  /** `Mon 23 November 2026` */
  longDate: { weekday: 'short', day: 'numeric', month: 'long', year: 'numeric' },
  /** `November 2026` */
  month: { month: 'long', year: 'numeric' },
  /** `2026` */
  year: { year: 'numeric' },
  /** `10:42` */
  clock: CLOCK,
} as const;
export type Shape = keyof typeof SHAPES;

/** A moment (epoch ms, or ISO 8601) on the wall clock of a zone (IANA), as readers of a language write it. */
export function momentIn(language: string | undefined, shape: Shape, value: number | string, at: string): string {
  const locale = localeOf(language);
  const zone = isWallClock(value) ? 'UTC' : at;
  const format = once(
    `${shape} ${locale} ${zone}`,
    () => new Intl.DateTimeFormat(locale, { ...SHAPES[shape], timeZone: zone }),
  );
  const written = format.format(instant(value));
  return locale === 'en-GB' ? written.replace(/^(\w+), (?=\d)/, '$1 ') : written;
}

const moment =
  (shape: Shape): Format =>
  (value: number | string, language, options) =>
    momentIn(language, shape, value, zoneOf(options));

const numbers = (language: string | undefined, options: Intl.NumberFormatOptions): Intl.NumberFormat => {
  const locale = localeOf(language);
  return once(`number ${locale} ${JSON.stringify(options)}`, () => new Intl.NumberFormat(locale, options));
};
type Display = 'long' | 'short';
const unit = (language: string | undefined, value: number, name: string, unitDisplay: Display): string =>
  numbers(language, { style: 'unit', unit: name, unitDisplay, maximumFractionDigits: 1 }).format(value);

/** A length of working time: `2 hours 10 minutes`, `3.5 days`; in short, `2 hrs 10 mins`. */
export function lengthIn(language: string | undefined, length: Length, display: Display = 'long'): string {
  const written = (value: number, name: string): string => unit(language, value, name, display);
  if ('days' in length) return written(length.days, 'day');
  const hours = Math.floor(length.minutes / 60);
  const minutes = length.minutes % 60;
  if (hours === 0) return written(minutes, 'minute');
  return minutes === 0 ? written(hours, 'hour') : `${written(hours, 'hour')} ${written(minutes, 'minute')}`;
}

/** Minutes in days of 24 hours, hours and minutes: `1 day 2 hrs 35 mins`. */
export function spanIn(language: string | undefined, minutes: number): string {
  const parts = [
    [Math.floor(minutes / 1_440), 'day'],
    [Math.floor(minutes / 60) % 24, 'hour'],
    [minutes % 60, 'minute'],
  ] as const;
  const short = (value: number, name: string): string =>
    numbers(language, { style: 'unit', unit: name, unitDisplay: 'short' }).format(value);
  return (
    parts
      .filter(([value]) => value > 0)
      .map(([value, name]) => short(value, name))
      .join(' ') || short(0, 'minute')
  );
}

/** A length of time by those of its parts that are not nothing: `2 days 3 hours`. */
export function partsIn(language: string | undefined, parts: Stretch): string {
  const written = Object.entries(parts).map(([name, value]) => [value, unit(language, value, name, 'long')] as const);
  const some = written.filter(([value]) => value !== 0);
  return (some.length > 0 ? some : written.slice(-1)).map(([, text]) => text).join(' ');
}

/** A number with at least so many decimals, in groups of three. */
export const decimalIn = (language: string | undefined, { value, decimals }: Decimal): string =>
  numbers(language, { minimumFractionDigits: decimals, maximumFractionDigits: Math.max(decimals, 6) }).format(value);

/** A sum of money as readers of a language write it. */
export const moneyIn = (language: string | undefined, { amount, currency }: Money): string =>
  numbers(language, { style: 'currency', currency }).format(amount);

/** A number with its decimals, in groups of three. */
export const numberIn = (language: string | undefined, value: number): string =>
  numbers(language, { maximumFractionDigits: 20 }).format(value);

/** Bytes: `512 kB`, `10 MB`. */
export const sizeIn = (language: string | undefined, bytes: number): string =>
  bytes < 1_000_000
    ? numbers(language, { style: 'unit', unit: 'kilobyte', maximumFractionDigits: 0 }).format(Math.ceil(bytes / 1_000))
    : numbers(language, { style: 'unit', unit: 'megabyte', maximumFractionDigits: 1 }).format(bytes / 1_000_000);

const QUOTES: Readonly<Record<string, readonly [string, string]>> = { 'de-DE': ['„', '“'] };

function list(language: string | undefined, items: readonly string[], type: 'conjunction' | 'disjunction'): string {
  const locale = localeOf(language);
  return once(`list ${type} ${locale}`, () => new Intl.ListFormat(locale, { style: 'long', type })).format(items);
}
const quoted = (language: string | undefined, name: string): string => {
  const [open, close] = QUOTES[localeOf(language)] ?? ['“', '”'];
  return `${open}${name}${close}`;
};

/** The formats a place of a text can have, by name. */
export const FORMATS: Readonly<Record<string, Format>> = {
  number: (value: number, language) => numberIn(language, value),
  moment: moment('moment'),
  date: moment('date'),
  day: moment('day'),
  dayMonth: moment('dayMonth'),
  month: moment('month'),
  year: moment('year'),
  clock: moment('clock'),
  length: (value: Length, language) => lengthIn(language, value),
  brief: (value: Length, language) => lengthIn(language, value, 'short'),
  decimal: (value: Decimal, language) => decimalIn(language, value),
  longDate: moment('longDate'),
  longMoment: (value: number | string, language, options) =>
    `${momentIn(language, 'longDate', value, zoneOf(options))}, ${momentIn(language, 'clock', value, zoneOf(options))}`,
  span: (value: number, language) => spanIn(language, value),
  parts: (value: Stretch, language) => partsIn(language, value),
  list: (value: readonly string[]) => value.join(', '),
  lines: (value: readonly string[]) => value.join('\n'),
  joined: (value: readonly string[]) => value.join(''),
  money: (value: Money, language) => moneyIn(language, value),
  size: (value: number, language) => sizeIn(language, value),
  and: (value: readonly string[], language) => list(language, value, 'conjunction'),
  or: (value: readonly string[], language) => list(language, value, 'disjunction'),
  names: (value: readonly string[], language) =>
    list(
      language,
      value.map((each) => quoted(language, each)),
      'conjunction',
    ),
  capital: (value: string) => value.charAt(0).toLocaleUpperCase() + value.slice(1),
  sentences: (value: readonly string[]) => value.join(' '),
};
