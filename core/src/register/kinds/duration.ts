import { said } from '@tolvek/words';
import { Duration } from '../../expression/index.ts';
import { EMPTY, isBlank, type KindWork, wrong } from './kind.ts';

/** Minutes in a unit, by how people shorten it. */
const UNITS: Readonly<Record<string, number>> = {
  d: 1_440,
  day: 1_440,
  days: 1_440,
  h: 60,
  hr: 60,
  hrs: 60,
  hour: 60,
  hours: 60,
  m: 1,
  min: 1,
  mins: 1,
  minute: 1,
  minutes: 1,
};
const FIX = said('answers:likeLength');

/**
 * Minutes as they were typed: `35`, `1:35`, `1 h 35 min`, `2.5 h`, `1 day`; null when they can’t be
 * understood.
 */
function minutesOf(typed: string): number | null {
  const plain = typed.trim().toLowerCase().replace(',', '.');
  const clock = /^(\d{1,4}):([0-5]\d)$/.exec(plain);
  if (clock) return Number(clock[1]) * 60 + Number(clock[2]);
  if (/^\d+$/.test(plain)) return Number(plain);
  const parts = [...plain.matchAll(/(\d+(?:\.\d+)?)\s*([a-z]+)/g)];
  if (
    parts.length === 0 ||
    plain
      .replace(/(\d+(?:\.\d+)?)\s*([a-z]+)/g, '')
      .replace(/and/g, '')
      .trim() !== ''
  )
    return null;
  let [total, last] = [0, Number.POSITIVE_INFINITY];
  for (const [, amount = '', unit = ''] of parts) {
    const minutes = UNITS[unit];
    // From the largest unit down, each once: “5 min 1 h” is more likely a slip than a length.
    if (minutes === undefined || !Object.hasOwn(UNITS, unit) || minutes >= last) return null;
    total += Number(amount) * minutes;
    last = minutes;
  }
  return Number.isInteger(total) ? total : null;
}

const part = (amount: number, unit: string): string => (amount === 0 ? '' : `${amount} ${unit}`);

/**
 * A length of time, stored in whole minutes. Whole days are 24 hours here,
 * not working days.
 */
export const duration: KindWork<'duration'> = {
  read: (raw, type) => {
    if (isBlank(raw)) return EMPTY;
    const typed = String(raw);
    const minutes = Duration.read(typed.trim())?.seconds ?? null;
    const total = minutes === null ? minutesOf(typed) : minutes / 60;
    if (total === null || !Number.isInteger(total) || total < 0)
      return wrong(said('answers:notALength', { typed: typed.trim() }), FIX);
    const most = type.most ?? 366 * 1_440;
    if (total > most)
      return wrong(
        said('answers:longestIs', { most: inMinutes(most) }),
        said('answers:orShorter', { most: inMinutes(most) }),
      );
    return { state: 'value', value: total };
  },
  show: (value) => inMinutes(Number(value)),
  say: (value) => said('values:duration', { minutes: Number(value) }),
  typed: (value) => inMinutes(Number(value)),
  toExpression: (value) => new Duration(Number(value) * 60),
  fromExpression: (value) =>
    value instanceof Duration && value.seconds >= 0 ? Math.round(value.seconds / 60) : undefined,
  scopeType: () => ({ kind: 'duration' }),
  stored: () => ({
    ordered: true,
    written: (value) => (value instanceof Duration ? value.seconds / 60 : undefined),
  }),
};

/** Minutes as people read them: `1 day 2 h 35 min`. */
const inMinutes = (total: number): string =>
  [
    part(Math.floor(total / 1_440), total >= 2_880 ? 'days' : 'day'),
    part(Math.floor(total / 60) % 24, 'h'),
    part(total % 60, 'min'),
  ]
    .filter(Boolean)
    .join(' ') || '0 min';
