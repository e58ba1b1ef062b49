import type { AnswerOf } from '@tolvek/contract';
import { dayBegins, periodAt } from '@tolvek/core/deadline';
import type { DesignFinding } from '@tolvek/core/design';
import { lastsOn } from '@tolvek/core/people';
import { type Duty, dutiesBetween, type Gap, gapsBetween, peopleOn, ROSTER } from '@tolvek/core/roster';
import { useMemo } from 'react';
import { type RosterDraft, rosterOf } from './rosterDraft.ts';

export type Ground = AnswerOf<'rosters'>;

const DAY = 86_400_000;
/** Weeks that are looked at. */
export const WEEKS = 6;

/** What a roster that is being worked on says of the weeks ahead; no duties where it can’t be followed yet. */
export interface Ahead {
  readonly findings: readonly DesignFinding[];
  /** From the Monday of this week on, epoch ms. */
  readonly from: number;
  readonly to: number;
  readonly duties: readonly Duty[];
  readonly gaps: readonly Gap[];
}

/** Reckons what a draft says of the weeks ahead. `now`: ISO 8601. */
export function rosterAhead(draft: RosterDraft, ground: Ground, now: string): Ahead {
  const roster = rosterOf(draft);
  const active = new Set(ground.people.flatMap(({ id, active: is }) => (is ? [id] : [])));
  const findings = ROSTER.findings(roster, {
    calendars: ground.calendars.map(({ key }) => key),
    gone: peopleOn(roster).filter((id) => !active.has(id)),
  });
  const none = { findings, from: 0, to: 0, duties: [], gaps: [] };
  const calendar = ground.calendars.find(({ key }) => key === draft.calendar);
  // What is not a zone or a time yet can’t be reckoned with.
  const cannot = findings.some(({ severity, at }) => severity === 'error' && !/^(name|shifts|retired)$/.test(at));
  if (!calendar || cannot) return none;
  const at = Date.parse(now);
  const from = dayBegins(periodAt('week', at, draft.zone).from, draft.zone);
  const to = from + WEEKS * 7 * DAY + DAY;
  const isAway = (person: string, day: string): boolean =>
    !active.has(person) || ground.away.some((each) => each.person === person && lastsOn(each, day));
  return {
    ...{ findings, from, to },
    duties: dutiesBetween(roster, calendar, from, to),
    gaps: gapsBetween(roster, calendar, { zone: ground.zone, isAway }, at, to),
  };
}

export const useRosterAhead = (draft: RosterDraft, ground: Ground, now: string): Ahead =>
  useMemo(() => rosterAhead(draft, ground, now), [draft, ground, now]);
