import type { RevealedFacts } from '@tolvek/core/access';
import type { WorkingCalendar } from '@tolvek/core/deadline';
import type { Admission, Comer } from '@tolvek/core/door';
import type { TakenIn } from '@tolvek/core/intake';
import type { Problem as FieldProblem, RawAnswers, RequestFacts, Values } from '@tolvek/core/register';
import type { Through } from '@tolvek/core/request';
import { refused } from '@tolvek/words';
import { calendarOf } from '../calendar/queries.ts';
import type { InLine } from '../door/line.ts';
import { type DoorRow, shutAt } from '../door/queries.ts';
import { filesNamed } from '../files/commands.ts';
import { type ReleaseRow, registerOfForm, releaseById } from '../form/queries.ts';
import type { Reader } from '../platform/database.ts';
import { notAllowed, notSignedIn, Problem, wrongFields } from '../platform/problem.ts';
import type { Work } from '../platform/work.ts';
import { type Asking, askedAt } from '../request/askedAt.ts';
import { addRequest } from '../request/change.ts';
import { type Beside, takenAnswers } from '../request/claims.ts';
import { factsFor, type Picked } from '../request/facts.ts';
import { nextNumber, trialNumber } from '../request/nextNumber.ts';
import { giveNumbers, numbersToCome } from '../request/numbers.ts';
import { protectionFor } from '../request/protection.ts';
import type { RequestRow } from '../request/queries.ts';
import { offerProblems } from '../request/references.ts';
import { usedOf } from './admission.ts';

type Refusal = Extract<Admission, { admitted: false }>;

/** What is to come in, whichever way it comes. */
export interface Arriving {
  readonly through: Through;
  readonly release: ReleaseRow;
  /** Null where the desk takes it in itself: there is nobody to be admitted. */
  readonly door: DoorRow | null;
  /** What conditions know of the way it came. */
  readonly comesBy: RequestFacts['door'];
  /** Who asks, as conditions know them; null while nobody has said who they are. */
  readonly asks: { readonly id: string; readonly kind: 'staff' | 'contact' } | null;
  /** Whether they were known while they were asked; false where only the answers came from a stranger. */
  readonly isKnown?: boolean;
  /** Whether who asks may be admitted. */
  readonly admits: Comer;
  readonly answers: RawAnswers;
  /** How the line at the door knows them besides who they are. */
  readonly inLine?: InLine;
  /** Since when they have been filling in, epoch ms, as far as the house knows. */
  readonly since?: number | null;
  /** What it is about where the form was sent to them. */
  readonly about?: Asking['about'];
  readonly entry?: Asking['entry'];
  /** The language they read it in; that of whom they are when nothing is said. */
  readonly reads?: Asking['reads'];
  /** The edition that is tried whoever asks; null: the form as it is. */
  readonly edition?: string | null | undefined;
  /** What fields pick from, where it was read before. */
  readonly picked?: Picked;
  /** What rows before it would hold, where nothing of them is stored. */
  readonly beside?: Beside;
}

/** What answers come to: a request, or why not. */
export type Considered = {
  readonly facts: RevealedFacts;
  readonly calendar: WorkingCalendar;
  /** The edition in which it was asked. */
  readonly edition: string | null;
} & (
  | { readonly is: 'fine'; readonly taken: TakenIn }
  | { readonly is: 'refused'; readonly refusal: Refusal }
  | { readonly is: 'wrong'; readonly problems: readonly FieldProblem[] }
);

/**
 * What only the house can know of answers: that another request has them already, or that a
 * reference points to what is not offered with the others.
 */
export function answersHeld(
  db: Reader,
  release: ReleaseRow,
  { values, facts, asker }: { readonly values: Values; readonly facts: RequestFacts; readonly asker: string | null },
  {
    through = { by: 'door', kind: facts.door },
    beside,
    but,
  }: { readonly through?: Through; readonly beside?: Beside | undefined; readonly but?: RequestRow } = {},
): readonly FieldProblem[] {
  const { design } = release;
  const offered = offerProblems(db, { fields: design.fields, values, facts, asker });
  // A trial holds nothing against others, and nothing is held against it.
  if (through.by === 'trial') return offered;
  const register = registerOfForm(db, release.formId);
  const protection = protectionFor(db, register, { releaseId: release.id, trial: false });
  return [
    ...takenAnswers(db, {
      register,
      design,
      protection,
      values,
      asker,
      ...(beside ? { beside } : {}),
      ...(but ? { but } : {}),
    }),
    ...offered,
  ];
}

/**
 * Runs the whole way of a request for answers, and stores nothing: admitted, completed, compared
 * with what the house holds, routed, planned. All ways in come by here.
 */
export function consider(db: Reader, arriving: Arriving, now: number): Considered {
  const { door, comesBy, asks, admits, answers, picked, through, beside } = arriving;
  // What the desk takes in itself is asked as it stands.
  const asked =
    through.by === 'sheet of rows'
      ? { ...releaseById(db, arriving.release.id), edition: null, spoken: null, elsewhere: null }
      : askedAt(
          db,
          arriving.release,
          {
            kind: comesBy,
            id: arriving.isKnown === false ? null : (asks?.id ?? null),
            about: arriving.about,
            entry: arriving.entry,
            reads: arriving.reads,
          },
          now,
          arriving.edition,
        );
  const { release } = asked;
  const { design } = release;
  const register = registerOfForm(db, release.formId);
  const calendar = calendarOf(db, design.deadline.calendar);
  const told = factsFor(db, { door: { kind: comesBy }, design, requester: asks, now, named: answers, picked });
  const facts = {
    ...told,
    files: filesNamed(db, release.formId, design.fields, answers),
    // A trial takes no number that somebody else would miss.
    numbers: through.by === 'trial' ? {} : numbersToCome(db, register.id, design.fields, told.today),
  };
  const used = door
    ? usedOf(db, door, { ...arriving.inLine, personId: asks?.id ?? null, now, zone: calendar.zone })
    : () => 0;
  const { since = null } = arriving;
  const came = { since, shutAt: door && since !== null ? shutAt(db, door) : null };
  const context = {
    now,
    calendar,
    calendarOf: (key: string) => calendarOf(db, key),
    facts,
    requester: admits,
    came,
    used,
    holds: register.holds,
  };
  const intake = asked.takeIn(door?.design ?? null, answers, context);
  const here = { facts, calendar, edition: asked.edition };
  if ('refusal' in intake) return { ...here, is: 'refused', refusal: intake.refusal };
  const held = answersHeld(db, release, { values: intake.values, facts, asker: asks?.id ?? null }, { through, beside });
  if (!intake.taken) return { ...here, is: 'wrong', problems: [...intake.problems, ...held] };
  if (held.length > 0) return { ...here, is: 'wrong', problems: held };
  return { ...here, is: 'fine', taken: intake.request };
}

/** Whose a request is, and by which door it is remembered to have come. */
interface Parties {
  readonly doorId: string | null;
  /** Null where nothing about them is stored. */
  readonly requesterId: string | null;
  /** Who says that they ask, where nobody has confirmed it. */
  readonly claim?: RequestRow['claim'];
  /** On whose behalf it is asked, and who typed it in, where that is somebody else. */
  readonly onBehalfId?: string | null;
  readonly enteredById?: string;
  /** The version of the text of its door that they agreed to. */
  readonly consent?: number | null;
  /** The language they agreed in. */
  readonly consentIn?: RequestRow['consentIn'];
}

/** Stores what was considered and found fine: with its numbers, and all that follows. */
export function admitted(
  work: Work,
  arriving: Arriving,
  {
    facts,
    taken,
    edition = null,
  }: { readonly facts: RequestFacts; readonly taken: TakenIn; readonly edition?: string | null },
  parties: Parties,
): RequestRow {
  const { release, through } = arriving;
  const { tx } = work;
  const register = registerOfForm(tx, release.formId);
  const isTrial = through.by === 'trial';
  if (!isTrial) giveNumbers(tx, register.id, release.design.fields, facts.today);
  const number = isTrial ? trialNumber(tx, register.prefix) : nextNumber(tx, register);
  return addRequest(work, { ...parties, number, register, release, taken, through, edition });
}

/**
 * Takes a request in, or says why not. `parties`: as they are, or as they follow from what it holds.
 *
 * @throws Problem 401, 403 or 409 when its door does not admit who asks; 422 when answers are wrong.
 */
export function arrive(
  work: Work,
  arriving: Arriving,
  parties: Parties | ((values: Values) => Parties),
): { readonly request: RequestRow; readonly calendar: WorkingCalendar } {
  const considered = consider(work.tx, arriving, work.now);
  if (considered.is === 'refused') throw refusal(considered.refusal);
  if (considered.is === 'wrong') throw wrongFields(considered.problems);
  const whose = typeof parties === 'function' ? parties(considered.taken.values) : parties;
  return { request: admitted(work, arriving, considered, whose), calendar: considered.calendar };
}

/** A door that does not admit somebody, as an answer. */
export const refusal = (admission: Refusal): Problem =>
  admission.why === 'sign-in'
    ? notSignedIn()
    : admission.why === 'inactive' || admission.why === 'not-for-you'
      ? notAllowed(refused('notAdmitted', { why: admission.message }))
      : new Problem(409, 'closed', refused('closed', { why: admission.message }));
