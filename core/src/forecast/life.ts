import type { WorkingCalendar } from '../deadline/index.ts';

/**
 * Where a request is in its life: nobody has it in hand, somebody has, it is being decided, or it stands still, as it waits
 * for somebody else.
 */
export const PLACES = ['waiting', 'working', 'deciding', 'paused'] as const;
export type Place = (typeof PLACES)[number];

/** How long a request was at one place; moments are epoch ms. */
export interface Stretch {
  readonly place: Place;
  readonly from: number;
  /** Null while it is there. */
  readonly to: number | null;
  /** Key of the group; empty for no team. */
  readonly team: string;
  /** Who had it in hand. */
  readonly handler: string | null;
}

/** What a request was promised: to be finished by a moment, or something before that. */
export interface Promised {
  /** Lasting name of the deadline. */
  readonly key: string;
  readonly start: number;
  readonly due: number;
  /** Key of the calendar it counts by. */
  readonly calendar: string;
  /** What it was planned with: working days, working time (ms), or a date, which does not move. */
  readonly span: { readonly days: number } | { readonly time: number } | { readonly due: number };
  /** Whether its time stands still while the request does. */
  readonly stands: boolean;
  /** What it is kept by: that the request is finished, or an end of its own. */
  readonly ends: 'finished' | 'itself';
  /** When its own end came; null while it has not. */
  readonly over: number | null;
  readonly pauses: readonly { readonly from: number; readonly to: number | null }[];
}

/** The life of a request, as far as it has come. */
export interface Life {
  readonly id: string;
  /** Id of its form. */
  readonly form: string;
  /** Such requests take alike: those that went by the same row of the table of the same form. */
  readonly row: string;
  /** Key of the calendar of its form: those who decide and those it waits for are there by it. */
  readonly calendar: string;
  readonly arrived: number;
  readonly finished: number | null;
  /** In their order, without gaps, from its arrival. */
  readonly stretches: readonly Stretch[];
  readonly promised: readonly Promised[];
}

/** A team, and who is of it. */
export interface Crew {
  readonly team: string;
  /** Key of the calendar it works by. */
  readonly calendar: string;
  /** Ids of its members who are active. */
  readonly members: readonly string[];
}

/** When somebody is not there; `to`: null where that has no end yet. */
export interface Away {
  readonly person: string;
  readonly from: number;
  readonly to: number | null;
  /** They have left, and do not come back. */
  readonly left?: true;
}

/** Somebody who works while they are on duty, whatever a calendar says. */
export interface Rostered {
  readonly person: string;
  /** In order and apart; epoch ms. */
  readonly duties: readonly { readonly from: number; readonly to: number }[];
}

/** Whether an absence covers a moment. */
export const covers = ({ from, to }: Pick<Away, 'from' | 'to'>, at: number): boolean =>
  from <= at && (to === null || at < to);

/** All that a forecast reads of a desk. */
export interface DeskPast {
  readonly now: number;
  readonly calendars: Readonly<Record<string, WorkingCalendar>>;
  readonly crews: readonly Crew[];
  readonly away: readonly Away[];
  /** Whoever is not named works by the calendar of their team. */
  readonly rostered?: readonly Rostered[] | undefined;
  readonly lives: readonly Life[];
}

/** Something that happened to a request and may have moved it to another place. */
export type LifeEvent =
  | { readonly at: number; readonly stage: string }
  | { readonly at: number; readonly team: string }
  | { readonly at: number; readonly handler: string | null };

/** What the stretches of a request are told from. */
export interface Told {
  readonly arrived: number;
  readonly finished: number | null;
  /** Where it was when it arrived. */
  readonly first: { readonly stage: string; readonly team: string; readonly handler: string | null };
  /** In their order. */
  readonly events: readonly LifeEvent[];
  /** When it was being decided. */
  readonly decided: readonly { readonly from: number; readonly to: number | null }[];
  /** Whether a request stands still at a stage. */
  readonly isPaused: (stage: string) => boolean;
}

/** The stretches of a request, from what happened to it: a new one wherever its place, its team or its handler is another. */
export function stretchesOf({ arrived, finished, first, events, decided, isPaused }: Told): readonly Stretch[] {
  const moments = new Set([arrived]);
  for (const { at } of events) moments.add(at);
  for (const { from, to } of decided) {
    moments.add(from);
    if (to !== null) moments.add(to);
  }
  const end = finished ?? Number.POSITIVE_INFINITY;
  const stretches: Stretch[] = [];
  let { stage, team, handler } = first;
  let next = 0;
  for (const at of [...moments].filter((each) => each >= arrived && each < end).sort((a, b) => a - b)) {
    for (let event = events[next]; event && event.at <= at; event = events[++next])
      if ('stage' in event) stage = event.stage;
      else if ('team' in event) team = event.team;
      else handler = event.handler;
    const isDecided = decided.some(({ from, to }) => from <= at && (to === null || to > at));
    const place: Place = isPaused(stage) ? 'paused' : isDecided ? 'deciding' : handler === null ? 'waiting' : 'working';
    const last = stretches.at(-1);
    if (last && last.place === place && last.team === team && last.handler === handler) continue;
    if (last) stretches[stretches.length - 1] = { ...last, to: at };
    stretches.push({ place, from: at, to: null, team, handler });
  }
  const last = stretches.at(-1);
  if (last && finished !== null) stretches[stretches.length - 1] = { ...last, to: finished };
  return stretches;
}

/** A life as it was known at a moment; null for what had not arrived. */
export function asOf(life: Life, at: number): Life | null {
  if (life.arrived > at) return null;
  if (life.finished !== null && life.finished <= at) return life;
  return {
    ...life,
    finished: null,
    stretches: life.stretches
      .filter(({ from }) => from <= at)
      .map((stretch) => (stretch.to !== null && stretch.to > at ? { ...stretch, to: null } : stretch)),
    promised: life.promised.flatMap((each) =>
      each.start > at
        ? []
        : [
            {
              ...each,
              over: each.over !== null && each.over > at ? null : each.over,
              pauses: each.pauses
                .filter(({ from }) => from <= at)
                .map(({ from, to }) => ({ from, to: to !== null && to > at ? null : to })),
            },
          ],
    ),
  };
}
