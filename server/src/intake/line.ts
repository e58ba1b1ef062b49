import type { AnswerOf, BodyOf } from '@tolvek/contract';
import { contactProblems, type DoorLimit } from '@tolvek/core/door';
import type { Viewer } from '@tolvek/core/people';
import { refused } from '@tolvek/words';
import type { Language } from '@tolvek/words/speech';
import { keptByOthers } from '../door/admission.ts';
import { leaveLine, lineOf, placeIn, placeOf } from '../door/line.ts';
import { type DoorRow, doorBySlug } from '../door/queries.ts';
import { doorLines } from '../door/tables.ts';
import { personById } from '../people/queries.ts';
import { iso } from '../platform/clock.ts';
import type { Reader } from '../platform/database.ts';
import type { House } from '../platform/house.ts';
import { openLink } from '../platform/links.ts';
import { newId } from '../platform/newId.ts';
import { notAllowed, notSignedIn, Problem, wrongFields } from '../platform/problem.ts';
import { write } from '../platform/work.ts';
import { admissionOf, countedAt, namedAt } from './admission.ts';
import { refusal } from './arrive.ts';

/** Who may wait at one door at most: whoever is behind them is told that it is full. */
const MOST = 500;

/**
 * The id of the place in a line that a link shows; null where nothing is shown.
 *
 * @throws Problem 404 for a link that there is not, 410 where the place is held no longer
 */
export function placeShown(db: Reader, door: DoorRow, token: string | undefined, now: number): string | null {
  if (token === undefined) return null;
  const link = openLink(db, token, 'place', now);
  const own = placeOf(db, door.id, { place: link.targetId });
  if (!own) throw new Problem(410, 'link-used', refused('placeOver'));
  return own.id;
}

/** Whether somebody is refused because the places for all are taken. */
export const isFullFor = (refused: { readonly why: string; readonly own?: DoorLimit } | null): boolean =>
  refused?.why === 'full' && !refused.own;

interface Comes {
  readonly viewer: Viewer | null;
  readonly place: string | null;
  readonly now: number;
  /** Whether they may not come in because the places are taken, and by nothing of their own. */
  readonly isFull: boolean;
}

/** How somebody stands to the line of a door: they may join it, are in it, or a place is held for them; null for none of it. */
export function lineAt(db: Reader, door: DoorRow, { viewer, place, now, isFull }: Comes): AnswerOf<'door'>['line'] {
  if (door.design.waits === undefined) return null;
  const own = placeOf(db, door.id, { place, personId: viewer?.personId ?? null });
  if (own?.heldUntil != null && own.heldUntil > now) return { is: 'held', until: iso(own.heldUntil) };
  if (own) return { is: 'in', until: null };
  return isFull ? { is: 'open', until: null } : null;
}

/**
 * Puts somebody at the end of the line of a door whose places are taken. Joining twice is joining once.
 *
 * @throws Problem 403 for whom the door does not mean, 409 where a place is free or nobody waits, 422 for an address that is none
 */
export function joinLine(
  house: House,
  viewer: Viewer | null,
  slug: string,
  { contact, reads }: BodyOf<'joinLine'> & { readonly reads: Language },
): AnswerOf<'joinLine'> {
  return write(house, ({ tx, now }) => {
    const { door } = doorBySlug(tx, slug, reads);
    if (door.kind === 'staff' && !viewer) throw notSignedIn();
    const known = namedAt(door, viewer);
    const person = known ? personById(tx, known.personId) : undefined;
    const name = person?.name ?? contact?.name.trim() ?? '';
    const email = (person?.email ?? contact?.email.trim() ?? '').toLowerCase();
    const problems = person ? [] : contactProblems({ name, email });
    if (problems.length > 0) throw wrongFields(problems);
    const kept = keptByOthers(tx, door.formId, viewer);
    if (kept !== null) throw notAllowed(kept);
    const counted = countedAt(tx, door, { personId: person?.id ?? null }, now);
    const admission = admissionOf(tx, door, viewer, now, null, counted);
    const isFull = !admission.admitted && isFullFor(admission);
    if (!admission.admitted && !isFull) throw refusal(admission);
    if (!isFull || door.design.waits === undefined) throw new Problem(409, 'no-line', refused('noLine'));
    const line = lineOf(tx, door.id);
    if (placeIn(line, { email, personId: person?.id })) return { email };
    if (line.length >= MOST) throw new Problem(409, 'no-line', refused('lineFull'));
    const row = { id: newId(), doorId: door.id, personId: person?.id ?? null, name, email, since: now };
    tx.insert(doorLines)
      .values({ ...row, language: person?.language ?? reads })
      .run();
    return { email };
  });
}

/** Takes somebody out of the line of a door: who is signed in, or whoever has the link to their place. */
export function quitLine(
  house: House,
  viewer: Viewer | null,
  slug: string,
  { place }: BodyOf<'leaveLine'>,
): AnswerOf<'leaveLine'> {
  return write(house, ({ tx, now }) => {
    const { door } = doorBySlug(tx, slug);
    const shown = placeShown(tx, door, place, now);
    const known = namedAt(door, viewer);
    if (shown === null && !known) throw notSignedIn();
    leaveLine(tx, door.id, shown === null ? { personId: known?.personId ?? null } : { place: shown });
    return { done: true };
  });
}
