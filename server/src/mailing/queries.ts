import { readerScope } from '@tolvek/core/access';
import { conditionFindings } from '@tolvek/core/expression';
import {
  type About,
  type AroundMailing,
  MAILING,
  type MailingDesign,
  type MailingNames,
  type Topic,
} from '@tolvek/core/mailing';
import { and, asc, desc, eq, isNull, lte, sql } from 'drizzle-orm';
import { type DesignRow, designByKey } from '../design/queries.ts';
import { designs } from '../design/tables.ts';
import { doorAtAddress } from '../door/queries.ts';
import { formById, registerOfForm, releaseInForce } from '../form/queries.ts';
import { groupNames, personNamed } from '../people/queries.ts';
import type { Reader } from '../platform/database.ts';
import { prepared } from '../platform/prepared.ts';
import { notFound } from '../platform/problem.ts';
import { type RegisterRow, registerByKey } from '../register/queries.ts';
import { askable, asksHidden } from '../request/sharedResults.ts';
import { knownStanding } from '../request/standing.ts';
import { goings, mailings, owedForms } from './tables.ts';

export interface MailingRow {
  readonly id: string;
  readonly formId: string;
  readonly removedAt: number | null;
  readonly design: MailingDesign;
  readonly version: number;
}

export type GoingRow = typeof goings.$inferSelect;
export type OwedRow = typeof owedForms.$inferSelect;

const COLUMNS = {
  ...{ id: mailings.id, formId: mailings.formId, removedAt: mailings.removedAt },
  ...{ design: designs.draft, version: designs.version },
};

const withId = prepared((db) =>
  db
    .select(COLUMNS)
    .from(mailings)
    .innerJoin(designs, eq(designs.id, mailings.id))
    .where(eq(mailings.id, sql.placeholder('id')))
    .prepare(),
);
const ofForm = prepared((db) =>
  db
    .select(COLUMNS)
    .from(mailings)
    .innerJoin(designs, eq(designs.id, mailings.id))
    .where(and(eq(mailings.formId, sql.placeholder('form')), isNull(mailings.removedAt)))
    .orderBy(asc(mailings.id))
    .prepare(),
);
const awaiting = prepared((db) =>
  db
    .select(COLUMNS)
    .from(mailings)
    .innerJoin(designs, eq(designs.id, mailings.id))
    .where(and(eq(mailings.awaits, sql.placeholder('register')), isNull(mailings.removedAt)))
    .prepare(),
);

/** A mailing by its id, even one that was removed. */
export const mailingById = (db: Reader, id: string): MailingRow | undefined =>
  withId(db).get({ id }) as MailingRow | undefined;

/** @throws Problem 404 for one that never was, or was removed. */
export function mailingNamed(db: Reader, id: string): { mailing: MailingRow; design: DesignRow<MailingDesign> } {
  const mailing = mailingById(db, id);
  const design = designByKey<MailingDesign>(db, MAILING, id);
  if (!mailing || !design || mailing.removedAt !== null) throw notFound('mailing');
  return { mailing, design };
}

/** The register that a mailing’s answers come into. */
export function registerOfMailing(db: Reader, id: string): string | null {
  const mailing = mailingById(db, id);
  return (mailing && formById(db, mailing.formId)?.registerId) ?? null;
}

/** The mailings of a form, the oldest first. */
export const mailingsOf = (db: Reader, formId: string): readonly MailingRow[] =>
  ofForm(db).all({ form: formId }) as readonly MailingRow[];

const all = prepared((db) =>
  db
    .select(COLUMNS)
    .from(mailings)
    .innerJoin(designs, eq(designs.id, mailings.id))
    .where(isNull(mailings.removedAt))
    .orderBy(asc(mailings.id))
    .prepare(),
);

/** The mailings that are about requests of a register, by its key. */
export const mailingsAbout = (db: Reader, register: string): readonly MailingRow[] =>
  (all(db).all() as readonly MailingRow[]).filter(
    ({ design: { about } }) => about.is === 'requests' && about.register === register,
  );

/** The mailings that wait for requests of a register, by its key, to come to a stage. */
export const mailingsAwaiting = (db: Reader, register: string): readonly MailingRow[] =>
  awaiting(db).all({ register }) as readonly MailingRow[];

/** What the findings of a mailing of a form depend on. */
export function aroundMailing(db: Reader, formId: string, { door: slug, about, to }: MailingDesign): AroundMailing {
  const door = doorAtAddress(db, slug);
  const register = about.is === 'requests' ? registerByKey(db, about.register) : undefined;
  return {
    form: releaseInForce(db, formId)?.design ?? null,
    fills: registerOfForm(db, formId).key,
    door: door?.formId === formId ? door.design : null,
    register: register ? aroundRegister(db, register, { about, to }) : null,
  };
}

/** What a mailing asks of the register it is about. */
function aroundRegister(
  db: Reader,
  register: RegisterRow,
  { about, to }: Pick<MailingDesign, 'about' | 'to'>,
): AroundMailing['register'] {
  const { fields, stages } = register;
  const when = about.is === 'requests' ? about.when.trim() : '';
  const [wrong] = when === '' ? [] : conditionFindings(when, readerScope(fields, knownStanding(db, register)));
  const open = askable(db, register);
  const named = fields.filter(({ key }) => 'named' in to && to.named === key && !open.includes(key));
  return {
    ...{ fields, stages, unreadable: wrong?.message ?? null },
    hidden: [...(wrong ? [] : asksHidden(db, register, when)), ...named.map(({ label }) => label)],
  };
}

/** What a mailing names, as it is called now. */
export function mailingNames(db: Reader, { about }: MailingDesign): MailingNames {
  const groups = groupNames(db);
  const register = about.is === 'requests' ? registerByKey(db, about.register) : undefined;
  return {
    word: (word) => (word.startsWith('@') ? personNamed(db, word.slice(1)) : (groups.get(word) ?? word)),
    register: (key) => registerByKey(db, key)?.name ?? key,
    field: (key) => register?.fields.find((field) => field.key === key)?.label ?? key,
    stage: (key) => register?.stages.find((stage) => stage.key === key)?.label ?? key,
  };
}

const owedWithId = prepared((db) =>
  db
    .select()
    .from(owedForms)
    .where(eq(owedForms.id, sql.placeholder('id')))
    .prepare(),
);
const openOf = prepared((db) =>
  db
    .select()
    .from(owedForms)
    .where(and(eq(owedForms.personId, sql.placeholder('person')), eq(owedForms.state, 'open')))
    // Those that are due first, those without a day last.
    .orderBy(sql`due is null`, asc(owedForms.due), asc(owedForms.sentAt), asc(owedForms.id))
    .limit(200)
    .prepare(),
);
const aboutOne = prepared((db) =>
  db
    .select()
    .from(owedForms)
    .where(eq(owedForms.aboutRequestId, sql.placeholder('request')))
    .orderBy(desc(owedForms.sentAt), desc(owedForms.id))
    .limit(200)
    .prepare(),
);

export const owedById = (db: Reader, id: string): OwedRow | undefined => owedWithId(db).get({ id });

/** What somebody has to fill in, what is due first. */
export const openFor = (db: Reader, personId: string): readonly OwedRow[] => openOf(db).all({ person: personId });

/** What was asked about a request, the newest first. */
export const owedAbout = (db: Reader, requestId: string): readonly OwedRow[] =>
  aboutOne(db).all({ request: requestId });

/** What was sent to somebody by one going and is still to be filled in. */
export const openOfGoing = (db: Reader, goingId: string, personId: string): readonly OwedRow[] =>
  db
    .select()
    .from(owedForms)
    .where(and(eq(owedForms.goingId, goingId), eq(owedForms.personId, personId), eq(owedForms.state, 'open')))
    .orderBy(asc(owedForms.id))
    .all();

/** What an owed form is about. */
export const topicOf = ({ aboutPersonId, aboutRequestId }: OwedRow): Topic =>
  aboutPersonId !== null ? { person: aboutPersonId } : aboutRequestId !== null ? { request: aboutRequestId } : null;

/** What something is about, as one word. */
export const topicWord = (topic: Topic): string =>
  topic === null ? '' : 'person' in topic ? `@${topic.person}` : topic.request;

/** The field of a form that says what it is about; null where it is about nothing. */
export const fieldOf = (about: About): string | null => (about.is === 'nothing' ? null : about.field);

const waitingGoing = prepared((db) =>
  db.select().from(goings).where(sql`state = 'waiting'`).orderBy(asc(goings.at)).limit(1).prepare(),
);
const waitingReminder = prepared((db) =>
  db
    .select()
    .from(owedForms)
    .where(sql`state = 'open' and remind_at is not null`)
    .orderBy(asc(owedForms.remindAt))
    .limit(1)
    .prepare(),
);

/** What goes out next, and who is reminded next. */
export const nextGoing = (db: Reader): GoingRow | undefined => waitingGoing(db).get();
export const nextToRemind = (db: Reader): OwedRow | undefined => waitingReminder(db).get();

/** When a mailing goes out next by itself, epoch ms; null: at no moment that is known. */
export const goesNext = (db: Reader, mailingId: string): number | null =>
  db
    .select({ at: goings.at })
    .from(goings)
    .where(and(eq(goings.mailingId, mailingId), eq(goings.state, 'waiting')))
    .orderBy(asc(goings.at))
    .limit(1)
    .get()?.at ?? null;

/** The beginnings of periods for which a mailing did not go, as the desk stood still, the newest first. */
export const missedBy = (db: Reader, mailingId: string, most: number): readonly string[] =>
  db
    .select({ period: goings.period })
    .from(goings)
    .where(and(eq(goings.mailingId, mailingId), eq(goings.state, 'missed')))
    .orderBy(desc(goings.at))
    .limit(most)
    .all()
    .flatMap(({ period }) => period ?? []);

/** The times a mailing went, the newest first. */
export const goingsOf = (db: Reader, mailingId: string, now: number, most: number): readonly GoingRow[] =>
  db
    .select()
    .from(goings)
    .where(and(eq(goings.mailingId, mailingId), eq(goings.state, 'done'), lte(goings.at, now)))
    .orderBy(desc(goings.at), desc(goings.id))
    .limit(most)
    .all();
