import { inLanguage as formIn } from '@tolvek/core/form';
import { mailingText } from '@tolvek/core/mailing';
import {
  type DressedLetter,
  draftConfirmation,
  draftDigest,
  draftDuty,
  draftGoingOn,
  draftInvitation,
  draftPlaceFree,
  draftReport,
  draftReset,
  draftSignIn,
  draftTest,
  draftToFillIn,
  dressLetter,
  type Letter,
  type NoticeCause,
  spokenLetter,
} from '@tolvek/core/notice';
import { ACCENTS, signatureOf } from '@tolvek/core/settings';
import { USUAL_NOTICES } from '@tolvek/core/telling';
import type { Words } from '@tolvek/words';
import type { Language } from '@tolvek/words/speech';
import { eq } from 'drizzle-orm';
import { calendarOf } from '../calendar/queries.ts';
import { doorAtAddress, doorById } from '../door/queries.ts';
import { doorLines, doors, keptAnswers, waitingSubmissions } from '../door/tables.ts';
import { releaseById, releaseInForce } from '../form/queries.ts';
import { aboutOwed } from '../mailing/about.ts';
import { mailingById, openOfGoing } from '../mailing/queries.ts';
import { personById, personNamed, viewerIn } from '../people/queries.ts';
import type { Reader, Transaction } from '../platform/database.ts';
import type { House } from '../platform/house.ts';
import { issueLink, tokenOf } from '../platform/links.ts';
import { codeOf } from '../platform/signIn/letterCodes.ts';
import { links } from '../platform/tables.ts';
import { speechFor } from '../platform/words.ts';
import { registerById } from '../register/queries.ts';
import { askedAt } from '../request/askedAt.ts';
import { openRequest } from '../request/open.ts';
import { isOwnOf, type RequestRow, requestById } from '../request/queries.ts';
import { rosterNamed } from '../roster/queries.ts';
import { linkEnds, linkFor } from '../settings/links.ts';
import { deskOf } from '../settings/queries.ts';
import { type AboutRequest, letterAbout, type ToPerson } from './aboutRequest.ts';
import { type Addressee, addresseeOf } from './addressee.ts';
import { gatheredIn } from './gather.ts';
import { LAYOUT } from './layout.ts';
import type { notices, Said, Worded, Written } from './tables.ts';

type Notice = typeof notices.$inferSelect;
type Post = Pick<House, 'config'>;

/** What the wording of a notice comes to: what it says, and to whom. */
interface Outgoing {
  readonly said: Worded;
  readonly toName: string;
  readonly toAddress: string;
}

/**
 * Words a notice as it goes out: with what its reader may read now, names and deadlines as they are
 * now, and the links it needs. Null when nothing is left to tell, or nobody to tell it to; `hidden` where its reader may
 * not read what it would tell of.
 */
export function worded(post: Post, tx: Transaction, notice: Notice, now: number): Outgoing | 'hidden' | null {
  const { cause, toAddress } = notice;
  if (!cause) return null;
  if (cause.kind === 'confirm' || cause.kind === 'go-on') {
    const said = toAddressOf(post, tx, cause, now);
    return said && { said, toName: '', toAddress };
  }
  if (cause.kind === 'digest') return digestOf(post, tx, { ...notice, cause }, now);
  if (cause.kind === 'to-fill-in' || cause.kind === 'passed-on') return fillInOf(post, tx, { ...notice, cause }, now);
  if (cause.kind === 'place-free') return placeFreeOf(post, tx, cause, now);
  if (
    cause.kind === 'invitation' ||
    cause.kind === 'test' ||
    cause.kind === 'reset' ||
    cause.kind === 'sign-in' ||
    cause.kind === 'duty' ||
    cause.kind === 'report'
  )
    return toPersonOf(post, tx, { ...notice, cause }, now);
  const request = notice.requestId === null ? undefined : requestById(tx, notice.requestId);
  const found = request && addresseeOf(tx, notice, request.requesterId);
  if (!request || !found) return null;
  const { to: person, viewer } = found;
  const design = releaseInForce(tx, request.formId)?.design;
  const open = openRequest(tx, request, viewer, 'letter', {
    register: registerById(tx, request.registerId),
  });
  const out = letterAbout(tx, { request, person, open, now }, cause, {
    plan: design?.notices ?? USUAL_NOTICES,
    fields: design?.fields ?? [],
    readsAnswers: post.config.mailIn !== null,
    follows: () => {
      const way = wayOf({ post, tx, now, request, person }, cause);
      return { way, until: way.link === null ? null : linkEnds(tx, 'follow', now) };
    },
  });
  if (out === null || out === 'hidden') return out;
  const { zone } = calendarOf(tx, releaseById(tx, request.releaseId).release.design.deadline.calendar);
  const said = { ...inLanguage(out.letter, out.language, zone), ...out.way };
  return { said, toName: person.name, toAddress: person.email };
}

/** What somebody hears of in one email: each thing in the words of its own, as far as there is still something to tell. */
function digestOf(
  post: Post,
  tx: Transaction,
  {
    cause,
    ...to
  }: Pick<Notice, 'personId' | 'groupKey'> & { readonly cause: Extract<NoticeCause, { kind: 'digest' }> },
  now: number,
): Outgoing | null {
  const person = addresseeOf(tx, to)?.to;
  if (!person) return null;
  const told = gatheredIn(tx, cause.of).flatMap((notice) => {
    const out = worded(post, tx, notice, now);
    return out === null || out === 'hidden' ? [] : [out];
  });
  const [only] = told;
  if (only && told.length === 1) return withoutReply(only);
  if (!only) return null;
  const items = told.map(({ said: { letter, path, link } }) => ({ words: letter.subject, path, link }));
  const { language, zone } = deskOf(tx);
  const letter = draftDigest({ reader: person.name, items });
  const said = { ...inLanguage(letter, person.language ?? language, zone), path: '/floor', link: null };
  return { said, toName: person.name, toAddress: person.email };
}

/** What goes in the name of several things is answered as none of them. */
function withoutReply({ said, ...to }: Outgoing): Outgoing {
  const { reply: _, ...letter } = said.letter;
  return { ...to, said: { ...said, letter } };
}

/** The ids of all links in what was said once. */
export const linksIn = (said: Said): readonly string[] =>
  'link' in said
    ? [said.link, ...(said.letter.items ?? []).map(({ link }) => link)].filter((link) => link !== null)
    : [];

/** What is written to somebody who has to fill something in. */
type ToFill = 'to-fill-in' | 'passed-on';

const OF_THE_DESK: ReadonlySet<string> = new Set([
  'new-request',
  'assigned',
  'reminder',
  'escalation',
  'news',
  'undecided',
  'nobody-decides',
  'nobody-handles',
]);

/** Whom the button of a letter leads to which request, from when on (epoch ms). */
interface Leading {
  readonly post: Post;
  readonly tx: Transaction;
  readonly now: number;
  readonly request: RequestRow;
  readonly person: Addressee;
}

/** Where the button of a letter about a request leads its reader. */
function wayOf({ post, tx, now, request, person }: Leading, cause: AboutRequest): Pick<Worded, 'path' | 'link'> {
  const { secret } = post.config;
  if (cause.kind === 'approval-asked') {
    const link = linkFor(tx, secret, { purpose: 'decide', personId: person.id, targetId: cause.seat, now });
    return { path: '/decide/', link: link.id };
  }
  if (cause.kind === 'proposed') {
    const link = linkFor(tx, secret, { purpose: 'accept', personId: person.id, targetId: cause.proposal, now });
    return { path: '/accept/', link: link.id };
  }
  // Whoever was asked from outside to handle it, or to decide it.
  if (person.kind === 'contact' && !isOwnOf(request, person.id))
    return { path: `/given/${request.number}`, link: null };
  if (!isOwnOf(request, person.id) || OF_THE_DESK.has(cause.kind))
    return { path: `/floor/all/${request.number}`, link: null };
  if (person.kind === 'staff') return { path: `/my/${request.number}`, link: null };
  const link = linkFor(tx, secret, { purpose: 'follow', personId: person.id, targetId: request.id, now });
  return { path: '/follow/', link: link.id };
}

/** What is said to one of the staff about nothing but Tolvek itself. */
function toPersonOf(
  { config: { secret } }: Post,
  tx: Transaction,
  {
    cause,
    personId,
  }: {
    readonly cause: Extract<NoticeCause, { kind: ToPerson }>;
    readonly personId: string | null;
  },
  now: number,
): Outgoing | null {
  const person = personId === null ? undefined : personById(tx, personId);
  if (!person?.active) return null;
  const { name: desk, zone, language } = deskOf(tx);
  const reads = person.language ?? language;
  const to = { toName: person.name, toAddress: person.email };
  if (cause.kind === 'test') {
    const letter = draftTest({ reader: person.name, desk });
    return { said: { ...inLanguage(letter, reads, zone), path: '/workshop/groundwork', link: null }, ...to };
  }
  if (cause.kind === 'sign-in') {
    const link = tx.select().from(links).where(eq(links.id, cause.link)).get();
    // What was used by now, or opens nothing any more, is not sent.
    if (!link || link.usedAt !== null || link.expiresAt <= now) return null;
    const code = codeOf(secret, link.id);
    const letter = draftSignIn({ reader: person.name, desk, code, expires: link.expiresAt });
    return { said: { ...inLanguage(letter, cause.language, zone), path: '/come-in/', link: link.id }, ...to };
  }
  if (cause.kind === 'duty') {
    // What nobody can take any more, and a duty that is over, is not told.
    if (cause.to <= now) return null;
    const { did, from, to: until, note } = cause;
    const about = { roster: rosterNamed(tx, cause.roster), by: personNamed(tx, cause.by), from, to: until, note };
    const letter = draftDuty({ reader: person.name, did, ...about });
    return { said: { ...inLanguage(letter, reads, zone), path: '/floor/duty', link: null }, ...to };
  }
  if (cause.kind === 'report') {
    const letter = draftReport({ reader: person.name, cause });
    const path = `/floor/reports/${cause.report}/copies/${cause.copy}`;
    return { said: { ...inLanguage(letter, reads, zone), path, link: null }, ...to };
  }
  const purpose = cause.kind === 'reset' ? 'reset' : 'invite';
  const link = linkFor(tx, secret, { purpose, personId: person.id, targetId: person.id, now });
  const about = { reader: person.name, desk, expires: linkEnds(tx, purpose, now) };
  const letter =
    cause.kind === 'reset' ? draftReset(about) : draftInvitation({ ...about, by: personNamed(tx, cause.by) });
  return { said: { ...inLanguage(letter, reads, zone), path: '/welcome/', link: link.id }, ...to };
}

/** What is said to somebody who has to fill something in, as far as it is still to be filled in. */
function fillInOf(
  { config: { secret } }: Post,
  tx: Transaction,
  { cause, personId }: { readonly cause: Extract<NoticeCause, { kind: ToFill }>; readonly personId: string | null },
  now: number,
): Outgoing | null {
  const person = personId === null ? undefined : personById(tx, personId);
  if (!person?.active) return null;
  const open = openOfGoing(tx, cause.going, person.id);
  const [first] = open;
  const mailing = first && mailingById(tx, first.mailingId);
  const release = mailing && releaseInForce(tx, mailing.formId);
  if (!first || !mailing || !release) return null;
  const only = open.length === 1 ? first : null;
  // Called as the edition that is theirs calls it.
  const door = doorAtAddress(tx, mailing.design.door)?.kind ?? 'staff';
  const { release: given, spoken } = askedAt(tx, release, { kind: door, id: person.id }, now);
  const { title } = given.design;
  // From outside a link opens the one form; where there are several, they sign in and find them all.
  const link =
    only && person.kind === 'contact'
      ? linkFor(tx, secret, { purpose: 'owed', personId: person.id, targetId: only.id, now })
      : null;
  const letter = draftToFillIn({
    reader: person.name,
    ...{ form: title, count: open.length, due: first.due, text: mailingText(mailing.design, spoken) },
    about: only && aboutOwed(tx, only, viewerIn(tx, person)),
    ...{ again: cause.kind === 'to-fill-in' && cause.again, expires: link ? linkEnds(tx, 'owed', now) : null },
    ...(cause.kind === 'passed-on' ? { by: personNamed(tx, cause.by) } : {}),
  });
  const { zone } = calendarOf(tx, release.design.deadline.calendar);
  const path = only
    ? `/ask/${mailing.design.door}?owed=${link ? '' : only.id}`
    : person.kind === 'contact'
      ? '/come-in?back=/'
      : '/';
  const said = { ...inLanguage(letter, person.language ?? deskOf(tx).language, zone), path, link: link?.id ?? null };
  return { said, toName: person.name, toAddress: person.email };
}

/** What is said to whom a place is held for, as long as it is. */
function placeFreeOf(
  { config: { secret } }: Post,
  tx: Transaction,
  { place }: Extract<NoticeCause, { kind: 'place-free' }>,
  now: number,
): Outgoing | null {
  const row = tx.select().from(doorLines).where(eq(doorLines.id, place)).get();
  const door = row && doorById(tx, row.doorId);
  const release = door && releaseInForce(tx, door.formId);
  if (!row || !door || !release || row.heldUntil === null || row.heldUntil <= now) return null;
  const { heldUntil: until, name, email: toAddress, personId } = row;
  const language = row.language ?? deskOf(tx).language;
  const { zone } = calendarOf(tx, release.design.deadline.calendar);
  const { title: form } = formIn(release.design, language);
  const link = issueLink(tx, secret, { purpose: 'place', personId: personId ?? '', targetId: place, expiresAt: until });
  const letter = draftPlaceFree({ reader: name, form, until });
  const said = { ...inLanguage(letter, language, zone), path: `/ask/${door.slug}?place=`, link: link.id };
  return { said, toName: name, toAddress };
}

/** What is said to an address that nobody has confirmed: it repeats nothing of what was typed. */
function toAddressOf(
  { config: { secret } }: Post,
  tx: Transaction,
  cause: Extract<NoticeCause, { kind: 'confirm' | 'go-on' }>,
  now: number,
): Worded | null {
  if (cause.kind === 'confirm') {
    const waiting = tx.select().from(waitingSubmissions).where(eq(waitingSubmissions.id, cause.submission)).get();
    if (!waiting) return null;
    const { design } = releaseById(tx, waiting.releaseId).release;
    const { zone } = calendarOf(tx, design.deadline.calendar);
    const link = linkFor(tx, secret, { purpose: 'confirm', personId: '', targetId: waiting.id, now });
    const language = waiting.language ?? deskOf(tx).language;
    const { title: form } = formIn(design, language);
    const number = waiting.requestId === null ? null : (requestById(tx, waiting.requestId)?.number ?? null);
    const letter = draftConfirmation({ form, number, expires: linkEnds(tx, 'confirm', now) });
    return { ...inLanguage(letter, language, zone), path: '/confirm/', link: link.id };
  }
  const kept = tx
    .select({ id: keptAnswers.id, language: keptAnswers.language, door: doors })
    .from(keptAnswers)
    .innerJoin(doors, eq(doors.id, keptAnswers.doorId))
    .where(eq(keptAnswers.id, cause.kept))
    .get();
  const release = kept && releaseInForce(tx, kept.door.formId);
  if (!kept || !release) return null;
  const { zone } = calendarOf(tx, release.design.deadline.calendar);
  const link = linkFor(tx, secret, { purpose: 'resume', personId: '', targetId: kept.id, now });
  const language = kept.language ?? deskOf(tx).language;
  const { title: form } = formIn(release.design, language);
  const letter = draftGoingOn({ form, expires: linkEnds(tx, 'resume', now) });
  return {
    ...inLanguage(letter, language, zone),
    path: `/ask/${kept.door.slug}?kept=`,
    link: link.id,
  };
}

/** An email in the words of its reader, with moments on the clock of a zone. */
const inLanguage = (letter: Letter<Words>, language: Language, zone: string): Pick<Worded, 'letter' | 'language'> => ({
  letter: spokenLetter(letter, speechFor({ language, zone }).told),
  language,
});

/** Where the button of a letter leads: an address that opens it, with its link where it needs one. */
export const addressOf = ({ config }: Post, { path, link }: Pick<Worded, 'path' | 'link'>): string =>
  `${config.url}${path}${link === null ? '' : tokenOf(config.secret, link)}`;

/** A letter as it goes, from what was said once: the same each time. */
export function dressed({ config }: Post, db: Reader, said: Worded | Written): DressedLetter {
  if ('html' in said) return said;
  const urlOf = (leads: Pick<Worded, 'path' | 'link'>): string => addressOf({ config }, leads);
  const desk = deskOf(db);
  const language = said.language ?? 'en';
  return dressLetter(
    said.letter,
    urlOf(said),
    {
      urlOf,
      signature: signatureOf(desk),
      language,
      colour: ACCENTS[desk.accent].light.ink,
    },
    LAYOUT,
  );
}
