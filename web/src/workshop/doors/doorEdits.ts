import { instantsOf, wallClockAt } from '@tolvek/core/deadline';
import type { DoorDesign, DoorLimit, DoorWords, Proving } from '@tolvek/core/door';
import type { OutsideStep } from '@tolvek/core/intake';

/** Since when requests count against a limit, as one word of a list. */
export const SINCE = ['ever', 'day', 'days', 'week', 'month', 'year', 'unfinished'] as const;
export type Since = (typeof SINCE)[number];

export function sinceOf({ days, period, unfinished }: DoorLimit): Since {
  if (unfinished) return 'unfinished';
  if (period) return period;
  return days === null ? 'ever' : days === 1 ? 'day' : 'days';
}

/** A limit that counts since something else. Several days are a month of them until another number is typed. */
export function countedSince({ id, most, of }: DoorLimit, since: Since): DoorLimit {
  const limit = { id, most, of, days: null };
  switch (since) {
    case 'unfinished':
      return { ...limit, unfinished: true };
    case 'day':
      return { ...limit, days: 1 };
    case 'days':
      return { ...limit, days: 30 };
    case 'ever':
      return limit;
    default:
      return { ...limit, period: since };
  }
}

/** A limit more: the first that counts nothing that another counts already. */
export function withLimit(door: DoorDesign): DoorDesign {
  const taken = new Set(door.limits.map((limit) => `${limit.of} ${sinceOf(limit)}`));
  const kinds = (['all', 'each'] as const).flatMap((of) => SINCE.map((since) => [of, since] as const));
  const [of, since] = kinds.find(([of, since]) => !taken.has(`${of} ${since}`)) ?? ['all', 'ever'];
  let n = door.limits.length + 1;
  while (door.limits.some(({ id }) => id === `limit-${n}`)) n += 1;
  const fresh = countedSince({ id: `limit-${n}`, most: 10, of, days: null }, since);
  return { ...door, limits: [...door.limits, fresh] };
}

export const changeLimit = (door: DoorDesign, id: string, change: (limit: DoorLimit) => DoorLimit): DoorDesign => ({
  ...door,
  limits: door.limits.map((limit) => (limit.id === id ? change(limit) : limit)),
});

/** Without a limit; places are shown only where a limit says how many there are. */
export function withoutLimit(door: DoorDesign, id: string): DoorDesign {
  const { showsPlaces, waits, ...rest } = door;
  const limits = door.limits.filter((limit) => limit.id !== id);
  // What is about the places for all goes with the last of them.
  const places = { ...(showsPlaces ? { showsPlaces } : {}), ...(waits === undefined ? {} : { waits }) };
  return { ...rest, limits, ...(limits.some(({ of }) => of === 'all') ? places : {}) };
}

/** A door with something set, or left out where it is what nothing says. */
export function withSet<K extends keyof DoorDesign>(
  door: DoorDesign,
  key: K,
  value: DoorDesign[K] | undefined,
): DoorDesign {
  const { [key]: _, ...rest } = door;
  return value === undefined ? (rest as DoorDesign) : { ...door, [key]: value };
}

/** A door with the words for those who can’t come in for one reason. */
export function withWords(door: DoorDesign, why: keyof DoorWords, text: string): DoorDesign {
  const { [why]: _, ...others } = door.says ?? {};
  const says = text === '' ? others : { ...others, [why]: text };
  return withSet(door, 'says', Object.keys(says).length === 0 ? undefined : says);
}

/** A moment of a door (epoch ms) as it is typed, on the clock of a zone; nothing for none. */
export const typedMoment = (at: number | null, zone: string): string => (at === null ? '' : wallClockAt(at, zone));

/** A typed moment, epoch ms; null for nothing, undefined while it can’t be read. */
export function momentTyped(typed: string, zone: string): number | null | undefined {
  if (typed.trim() === '') return null;
  if (!/^\d{4}-\d\d-\d\dT\d\d:\d\d$/.test(typed)) return undefined;
  return instantsOf(typed, zone)[0];
}

/** How whoever comes by an outside door shows who they are, as one choice: not at all is a door that stores nobody. */
export function withProof(door: DoorDesign, how: Proving | 'device' | 'unnamed'): DoorDesign {
  const { unnamed, proves, ...rest } = door;
  if (how === 'device') return rest;
  if (how !== 'unnamed') return { ...rest, proves: how };
  return { ...rest, unnamed: true };
}

const STEPS: Readonly<Record<string, OutsideStep>> = {
  whose: 'whose',
  ...{ audience: 'who', proves: 'who', limits: 'who', slowsRobots: 'who', onlySent: 'who', waits: 'who' },
  ...{ closedMessage: 'refused', instead: 'refused', opensAt: 'refused', closesAt: 'refused' },
  ...{ name: 'asking', consent: 'asking', confirmation: 'asking', embeds: 'asking' },
};

/** At which question something is mended that is wrong with a door, by its place in the design. */
export const stepOf = (at: string): OutsideStep => STEPS[at.split(' ')[0] ?? ''] ?? 'past';
