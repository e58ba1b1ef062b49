/** A calendar date without zone, ordered by its day number (days since 1970-01-01). */
export class CalendarDate {
  constructor(readonly day: number) {}

  /** Reads `YYYY-MM-DD`; null when it is not a date that exists (2026-02-30). */
  static read(iso: string): CalendarDate | null {
    const match = /^(\d{4})-(\d{2})-(\d{2})$/.exec(iso);
    if (!match) return null;
    const [, y, m, d] = match;
    const ms = Date.UTC(Number(y), Number(m) - 1, Number(d));
    const back = new Date(ms);
    if (back.getUTCMonth() !== Number(m) - 1 || back.getUTCDate() !== Number(d)) return null;
    return new CalendarDate(ms / 86_400_000);
  }

  toString(): string {
    return new Date(this.day * 86_400_000).toISOString().slice(0, 10);
  }
}

/** An exact length of time in seconds: FEEL's days-and-time duration. */
export class Duration {
  constructor(readonly seconds: number) {}

  /** Reads `P1DT2H30M10S` (days and smaller; a month has no fixed length and is refused with null). */
  static read(iso: string): Duration | null {
    const match = /^(-)?P(?:(\d+)D)?(?:T(?:(\d+)H)?(?:(\d+)M)?(?:(\d+)S)?)?$/.exec(iso);
    if (!match || iso.endsWith('P') || iso.endsWith('T')) return null;
    const [, sign, d = '0', h = '0', m = '0', s = '0'] = match;
    const seconds = Number(d) * 86_400 + Number(h) * 3600 + Number(m) * 60 + Number(s);
    return new Duration(sign ? -seconds : seconds);
  }

  toString(): string {
    const whole = Math.abs(this.seconds);
    const [d, h, m, s] = [Math.floor(whole / 86_400), Math.floor(whole / 3600) % 24, Math.floor(whole / 60) % 60, whole % 60];
    const time = `${h ? `${h}H` : ''}${m ? `${m}M` : ''}${s || (!d && !h && !m) ? `${s}S` : ''}`;
    return `${this.seconds < 0 ? '-' : ''}P${d ? `${d}D` : ''}${time ? `T${time}` : ''}`;
  }
}

/** What an expression can hold. Empty is null, as in FEEL. */
export type Value = null | boolean | number | string | CalendarDate | Duration | readonly Value[] | { readonly [key: string]: Value };

/** True, false, or null for "cannot be said", after FEEL's three-valued logic (DMN 1.5, 10.3.2.8). */
export type Ternary = boolean | null;

const isPlainObject = (value: Value): value is { readonly [key: string]: Value } =>
  typeof value === 'object' && value !== null && !Array.isArray(value) && !(value instanceof CalendarDate) && !(value instanceof Duration);

/** FEEL equality: null equals only null; values of different kinds can't be said (null). */
export function equal(a: Value, b: Value): Ternary {
  if (a === null || b === null) return a === b;
  if (Array.isArray(a) && Array.isArray(b)) {
    if (a.length !== b.length) return false;
    return a.every((item, i) => equal(item, b[i] ?? null) === true);
  }
  if (isPlainObject(a) && isPlainObject(b)) {
    const keys = Object.keys(a);
    return keys.length === Object.keys(b).length && keys.every((k) => Object.hasOwn(b, k) && equal(a[k] ?? null, b[k] ?? null) === true);
  }
  if (a instanceof CalendarDate && b instanceof CalendarDate) return a.day === b.day;
  if (a instanceof Duration && b instanceof Duration) return a.seconds === b.seconds;
  return typeof a === typeof b && typeof a !== 'object' ? a === b : null;
}

/** Order of two values of one kind: negative, zero or positive; null when they have no order. */
export function order(a: Value, b: Value): number | null {
  if (typeof a === 'number' && typeof b === 'number') return a - b;
  if (typeof a === 'string' && typeof b === 'string') return a < b ? -1 : a > b ? 1 : 0;
  if (a instanceof CalendarDate && b instanceof CalendarDate) return a.day - b.day;
  if (a instanceof Duration && b instanceof Duration) return a.seconds - b.seconds;
  return null;
}

/** How a value reads in an explanation. */
export function inWords(value: Value): string {
  if (value === null) return 'empty';
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  if (typeof value === 'string') return `“${value}”`;
  if (Array.isArray(value)) return value.length === 0 ? 'nothing' : value.map(inWords).join(', ');
  if (isPlainObject(value))
    return Object.entries(value)
      .map(([k, v]) => `${k} ${inWords(v)}`)
      .join(', ');
  return String(value);
}
