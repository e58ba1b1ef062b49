import type { AnswerOf, BodyOf, QueryOf } from '@tolvek/contract';
import {
  ITSELF,
  isLate,
  MAILING,
  type MailingDesign,
  mailingInWords,
  type Owed,
  type Topic,
} from '@tolvek/core/mailing';
import { peopleIn, rightsAt, type Viewer } from '@tolvek/core/people';
import { said, type Words } from '@tolvek/words';
import { and, asc, count, desc, eq, lt, sql } from 'drizzle-orm';
import { changeAtOnce, makeInForce } from '../design/commands.ts';
import { statesOf } from '../design/queries.ts';
import { planNext } from '../desk/mailings.ts';
import { formById, formNamed } from '../form/queries.ts';
import { aboutOwed } from '../mailing/about.ts';
import {
  aroundMailing,
  type GoingRow,
  goesNext,
  goingsOf,
  type MailingRow,
  mailingById,
  mailingNamed,
  mailingNames,
  mailingsOf,
  missedBy,
  type OwedRow,
  topicOf,
  topicWord,
} from '../mailing/queries.ts';
import { goesTo } from '../mailing/recipients.ts';
import { goings, mailings, owedForms } from '../mailing/tables.ts';
import { GOES_TO } from '../mailing/tasks.ts';
import { groupNames, namesOf, personById, personNamed } from '../people/queries.ts';
import { apart } from '../platform/apart.ts';
import { iso } from '../platform/clock.ts';
import type { Reader, Transaction } from '../platform/database.ts';
import type { House } from '../platform/house.ts';
import { once } from '../platform/idempotency.ts';
import { newId } from '../platform/newId.ts';
import { staleVersion, wrongFields } from '../platform/problem.ts';
import { write } from '../platform/work.ts';
import { registerByKey } from '../register/queries.ts';
import { openRequest } from '../request/open.ts';
import { requestById } from '../request/queries.ts';
import { requests } from '../request/tables.ts';

/** Times a mailing went that are shown. */
const SHOWN = 12;
/** People who are named of those it would go to, and rows of those it went to. */
const NAMED = 40;
const ROWS = 300;

/** The mailings of a form, each as it is in force. */
export const mailingsView = (db: Reader, form: string, now: number): AnswerOf<'mailings'>['mailings'] =>
  mailingsOf(db, formNamed(db, form).id).map((mailing) => viewOf(db, mailing, now));

function viewOf(db: Reader, mailing: MailingRow, now: number): AnswerOf<'mailings'>['mailings'][number] {
  const { id, version, design, formId } = mailing;
  const states = statesOf<MailingDesign>(db, { id });
  const went = goingsOf(db, id, now, SHOWN);
  const names = namesOf(db, [...states.map(({ by }) => by), ...went.flatMap(({ by }) => by ?? [])]);
  const next = goesNext(db, id);
  return {
    ...{ id, version, mailing: design },
    says: [...mailingInWords(design, mailingNames(db, design))],
    findings: MAILING.findings(design, aroundMailing(db, formId, design)).map(({ at, message }) => ({ at, message })),
    people: Object.fromEntries(
      ('audience' in design.to ? peopleIn(design.to.audience) : []).map((who) => [who, personNamed(db, who)]),
    ),
    next: next === null || !design.going ? null : iso(next),
    missed: [...missedBy(db, id, SHOWN)],
    counts: countsOf(db, id, now),
    goings: went.map((going) => ({
      ...{ id: going.id, at: iso(going.at), by: going.by === null ? '' : (names.get(going.by) ?? '') },
      ...{ period: going.period, notSent: going.notSent, ...sentBy(db, going) },
    })),
    states: states.map(({ number, note, by, at, content }) => ({
      ...{ number, note, by: names.get(by) ?? '', at: iso(at), mailing: content },
    })),
  };
}

function countsOf(db: Reader, id: string, now: number): { open: number; late: number; done: number } {
  const found = db
    .select({
      open: sql<number>`coalesce(sum(state = 'open'), 0)`,
      late: sql<number>`coalesce(sum(state = 'open' and due is not null and due < ${now}), 0)`,
      done: sql<number>`coalesce(sum(state = 'done'), 0)`,
    })
    .from(owedForms)
    .where(eq(owedForms.mailingId, id))
    .get();
  return found ?? { open: 0, late: 0, done: 0 };
}

/** How many forms one going sent, and how many of them are answered; what was passed on counts once. */
const sentBy = (db: Reader, { id }: GoingRow): { sent: number; done: number } =>
  db
    .select({
      sent: sql<number>`coalesce(sum(state <> 'passed'), 0)`,
      done: sql<number>`coalesce(sum(state = 'done'), 0)`,
    })
    .from(owedForms)
    .where(eq(owedForms.goingId, id))
    .get() ?? { sent: 0, done: 0 };

/** What is wrong in a mailing of a form: what keeps it from being put in force. @throws Problem 422 */
function refuseWrong(db: Reader, viewer: Viewer, formId: string, mailing: MailingDesign): void {
  const groups = groupNames(db);
  const around = aroundMailing(db, formId, mailing);
  const wrong = [
    // Before a form is released, a mailing of it can be set; nothing goes out then.
    ...MAILING.findings(mailing, around).filter(({ at }) => at !== 'form'),
    ...(isOfOthers(db, viewer, mailing) ? [{ at: 'about', message: said('mailings:notYourRegister') }] : []),
    ...MAILING.refersTo(mailing).flatMap(({ kind, key }) =>
      kind !== 'group' || groups.has(key)
        ? []
        : [{ at: 'to', message: said('workshopErrors:noGroupKey', { group: key }) }],
    ),
    ...('audience' in mailing.to ? peopleIn(mailing.to.audience) : []).flatMap((id) =>
      personById(db, id) ? [] : [{ at: 'to', message: said('mailings:nobodyKnown') }],
    ),
  ];
  if (wrong.length > 0)
    throw wrongFields(wrong.map(({ at, message }) => ({ field: at, message, fix: said('workshopErrors:correctIt') })));
}

/** Whether a mailing is about requests of a register that somebody builds no forms of: whoever asked there is not theirs to write to. */
function isOfOthers(db: Reader, viewer: Viewer, { about }: MailingDesign): boolean {
  const register = about.is === 'requests' ? registerByKey(db, about.register) : undefined;
  return register !== undefined && !rightsAt(viewer, register.id).includes('configure');
}

/** The register whose requests a mailing waits for. */
const awaitedBy = ({ about, when }: MailingDesign): string | null =>
  about.is === 'requests' && when.is === 'reached' ? about.register : null;

/** Adds a mailing to a form. */
export function addMailing(
  house: House,
  viewer: Viewer,
  { form: key, once: once_, mailing: content }: BodyOf<'addMailing'> & { readonly form: string; readonly once: string },
): AnswerOf<'addMailing'> {
  return write(house, ({ tx, now }) =>
    once(tx, { key: once_, scope: `add mailing ${viewer.personId}`, content: [key, content], now }, () => {
      const form = formNamed(tx, key);
      refuseWrong(tx, viewer, form.id, content);
      const name = newId();
      const id = makeInForce(tx, MAILING, { key: name, id: name, content, note: '' }, { viewer, now });
      tx.insert(mailings)
        .values({ id, formId: form.id, awaits: awaitedBy(content) })
        .run();
      planAnew(tx, id, now);
      return { id };
    }),
  );
}

/** Plans anew when a mailing goes out by itself each period. */
function planAnew(tx: Transaction, id: string, now: number): void {
  const mailing = mailingById(tx, id);
  tx.update(goings)
    .set({ state: 'dropped' })
    .where(and(eq(goings.mailingId, id), eq(goings.state, 'waiting'), sql`period is not null`))
    .run();
  if (mailing) planNext(tx, mailing, now);
}

/**
 * Changes a mailing, in force at once.
 *
 * @throws Problem 412 when somebody was faster; 422 when nothing could go out as it says.
 */
export function settleMailing(
  house: House,
  viewer: Viewer,
  { id, version, mailing: content, note }: BodyOf<'changeMailing'> & { readonly id: string; readonly version: number },
): AnswerOf<'changeMailing'> {
  return write(house, ({ tx, now }) => {
    const { mailing, design } = mailingNamed(tx, id);
    if (design.version !== version) throw staleVersion();
    refuseWrong(tx, viewer, mailing.formId, content);
    const next = changeAtOnce(tx, design, { version, content, note: note.trim() }, { viewer, now });
    tx.update(mailings)
      .set({ awaits: awaitedBy(content) })
      .where(eq(mailings.id, id))
      .run();
    planAnew(tx, id, now);
    return { version: next };
  });
}

/** Removes a mailing: nothing goes out any more, and what nobody has answered ends. */
export function removeMailing(
  house: House,
  viewer: Viewer,
  { id, version }: { readonly id: string; readonly version: number },
): AnswerOf<'removeMailing'> {
  return write(house, ({ tx, now }) => {
    const { design } = mailingNamed(tx, id);
    if (design.version !== version) throw staleVersion();
    // The last state of it is at rest, and names nobody any more.
    const content: MailingDesign = {
      ...design.draft,
      going: false,
      to: { audience: { in: { anyOf: [] }, outOf: [] } },
      about: { is: 'nothing' },
      when: { is: 'by-hand' },
    };
    changeAtOnce(tx, design, { version, content, note: '' }, { viewer, now });
    tx.update(mailings).set({ removedAt: now, awaits: null }).where(eq(mailings.id, id)).run();
    tx.update(goings)
      .set({ state: 'dropped' })
      .where(and(eq(goings.mailingId, id), eq(goings.state, 'waiting')))
      .run();
    const { changes: ended } = tx
      .update(owedForms)
      .set({ state: 'ended', closedAt: now, remindAt: null })
      .where(and(eq(owedForms.mailingId, id), eq(owedForms.state, 'open')))
      .run();
    return { ended };
  });
}

/** A mailing that can go out. @throws Problem 404, 422 when nothing can go out as it says */
function goingMailing(db: Reader, id: string): MailingRow {
  const { mailing } = mailingNamed(db, id);
  const { formId, design } = mailing;
  const wrong = MAILING.findings(design, aroundMailing(db, formId, design));
  if (wrong.length > 0)
    throw wrongFields(wrong.map(({ at, message }) => ({ field: at, message, fix: said('workshopErrors:correctIt') })));
  return mailing;
}

/** Sends a mailing by hand; what goes out goes a moment later. @throws Problem as `goingMailing` */
export async function sendMailing(
  house: House,
  viewer: Viewer,
  { id, once: once_, onlyNew }: BodyOf<'sendMailing'> & { readonly id: string; readonly once: string },
): Promise<AnswerOf<'sendMailing'>> {
  goingMailing(house.db, id);
  const { owed } = await apart(house, GOES_TO, id);
  return write(house, ({ tx, now }) =>
    once(tx, { key: once_, scope: `send mailing ${viewer.personId}`, content: [id, onlyNew], now }, () => {
      goingMailing(tx, id);
      const known = new Set(
        tx
          .select({ person: owedForms.personId, topic: owedForms.topic })
          .from(owedForms)
          .where(and(eq(owedForms.mailingId, id), onlyNew ? undefined : eq(owedForms.state, 'open')))
          .all()
          .map(({ person, topic }) => `${person} ${topic}`),
      );
      const left = owed.filter(({ person, about }) => !known.has(`${person} ${topicWord(about)}`));
      tx.insert(goings)
        .values({ id: newId(), mailingId: id, at: now, by: viewer.personId, onlyNew, state: 'waiting' })
        .run();
      return { forms: left.length, people: new Set(left.map(({ person }) => person)).size };
    }),
  );
}

/** What somebody who sets mailings may be told of one form: who is asked, and about what, where that is theirs to read. */
function toldOf(db: Reader, viewer: Viewer, topic: Topic, person: string | null) {
  const request = topic && 'request' in topic ? requestById(db, topic.request) : undefined;
  // Who asked, and what, is read by who works on it.
  if (topic && 'request' in topic && (!request || !openRequest(db, request, viewer, 'list').relation.isDesk))
    return { name: null, about: null };
  return {
    name: person === null ? '' : personNamed(db, person),
    // Of requests only those are told of that the viewer works on.
    about: aboutOwed(
      db,
      {
        ...{ mailingId: '', field: null },
        aboutPersonId: topic && 'person' in topic ? topic.person : null,
        aboutRequestId: topic && 'request' in topic ? topic.request : null,
      },
      viewer,
    ),
  };
}

/** Whom a mailing would go to now. */
export function tryMailing(db: Reader, viewer: Viewer, key: string, design: MailingDesign): AnswerOf<'tryMailing'> {
  const form = formNamed(db, key);
  const findings = MAILING.findings(design, aroundMailing(db, form.id, design));
  // What can’t go out as it says goes to nobody; whom a hidden answer would choose is not told.
  const isClosed = isOfOthers(db, viewer, design);
  const { owed, notSent } =
    isClosed || findings.some(({ at }) => at !== 'form' && at !== 'name')
      ? { owed: [], notSent: [] }
      : goesTo(db, { design }, null);
  const told = ({ about, person }: Owed) => toldOf(db, viewer, about, person);
  return {
    forms: owed.length,
    people: new Set(owed.map(({ person }) => person)).size,
    some: owed.slice(0, NAMED).map(told),
    notSent: notSent.length,
    someNot: notSent.slice(0, NAMED).map(({ about, person, why }) => ({ ...toldOf(db, viewer, about, person), why })),
    findings: findings.map(({ at, message }) => ({ at, message })),
  };
}

/** Who was sent a mailing, and who has answered. */
export function owedView(
  db: Reader,
  viewer: Viewer,
  id: string,
  { state, going }: QueryOf<'owedForms'>,
  now: number,
): AnswerOf<'owedForms'> {
  mailingNamed(db, id);
  const which = and(
    eq(owedForms.mailingId, id),
    going === undefined ? undefined : eq(owedForms.goingId, going),
    state === undefined ? undefined : eq(owedForms.state, state === 'late' ? 'open' : state),
    state === 'late' ? lt(owedForms.due, now) : undefined,
  );
  const rows = db
    .select()
    .from(owedForms)
    .where(which)
    .orderBy(sql`state <> 'open'`, sql`due is null`, asc(owedForms.due), desc(owedForms.closedAt), asc(owedForms.id))
    .limit(ROWS)
    .all();
  return {
    rows: rows.map((row) => rowOf(db, viewer, row, now)),
    total: db.select({ n: count() }).from(owedForms).where(which).get()?.n ?? 0,
  };
}

function rowOf(db: Reader, viewer: Viewer, row: OwedRow, now: number): AnswerOf<'owedForms'>['rows'][number] {
  const told = toldOf(db, viewer, topicOf(row), row.personId);
  const answer = row.answerId === null ? undefined : requestById(db, row.answerId);
  const isOpen = answer !== undefined && openRequest(db, answer, viewer, 'list').relation.isDesk;
  return {
    ...{ id: row.id, ...told, sent: iso(row.sentAt), due: row.due === null ? null : iso(row.due) },
    state: isLate(row.state, row.due, now) ? 'late' : row.state,
    closed: row.closedAt === null ? null : iso(row.closedAt),
    active: personById(db, row.personId)?.active ?? false,
    passedBy: told.name === null ? null : personNamed(db, row.passedBy) || null,
    answer: isOpen ? answer.number : null,
  };
}

/** Requests shown at most that no request is joined to. */
const UNJOINED = 50;

/** Requests that came by the form of a mailing and say nothing about which request they are about, as far as the viewer works on them. */
export function unjoinedView(db: Reader, viewer: Viewer, id: string): AnswerOf<'unjoined'>['requests'] {
  const { mailing } = mailingNamed(db, id);
  const { about } = mailing.design;
  const form = formById(db, mailing.formId);
  // What changes what it is about is joined to it already.
  if (about.is !== 'requests' || about.field === ITSELF || !form) return [];
  return db
    .select()
    .from(requests)
    .where(
      and(
        ...[eq(requests.formId, form.id), eq(requests.trial, false)],
        sql`json_extract("values", ${`$."${about.field}"`}) is null`,
      ),
    )
    .orderBy(desc(requests.createdAt), desc(requests.id))
    .limit(UNJOINED)
    .all()
    .flatMap((request): { number: string; subject: Words; at: string }[] => {
      const open = openRequest(db, request, viewer, 'list');
      return open.relation.isDesk && open.readable.has(about.field)
        ? [{ number: request.number, subject: open.subject, at: iso(request.createdAt) }]
        : [];
    });
}
