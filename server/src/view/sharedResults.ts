import type { AnswerOf, BodyOf } from '@tolvek/contract';
import { isSharedTo, type Revealed, type SharedFact, type SharedResult } from '@tolvek/core/access';
import { dateAt } from '@tolvek/core/deadline';
import { readIn } from '@tolvek/core/form';
import { audienceInWords, belongs, NO_REQUEST, rightsAt, STRANGER, type Viewer } from '@tolvek/core/people';
import { calledFields, type Field, fieldsIn, publicLabelIn, sayValue } from '@tolvek/core/register';
import { refused, said, type Words } from '@tolvek/words';
import type { Language } from '@tolvek/words/speech';
import { and, desc, type SQL, sql } from 'drizzle-orm';
import { targetsFound } from '../desk/share.ts';
import { formsOf, releaseInForce } from '../form/queries.ts';
import { groupNames, namesOf, personById, staffIn, viewerOf } from '../people/queries.ts';
import { todayAt } from '../people/settle.ts';
import { iso } from '../platform/clock.ts';
import type { Reader } from '../platform/database.ts';
import { openLink, tokenOf } from '../platform/links.ts';
import { notFound, Problem } from '../platform/problem.ts';
import { speechFor } from '../platform/words.ts';
import { allRegisters, type RegisterRow, registerById, registerNamed, stageOf } from '../register/queries.ts';
import { countedIn } from '../request/eachRequest.ts';
import { momentOf } from '../request/moment.ts';
import { openShared } from '../request/open.ts';
import { SHOWN_COLUMNS, type ShownRow } from '../request/queries.ts';
import { requestsNamed } from '../request/references.ts';
import {
  askable,
  asksHidden,
  hiddenFromSome,
  maySharesOf,
  requestsMeant,
  type SharedRow,
  sharableBy,
  sharedById,
  sharedNow,
} from '../request/sharedResults.ts';
import { knownStanding } from '../request/standing.ts';
import { requests } from '../request/tables.ts';
import { deskOf } from '../settings/queries.ts';
import { vocabulariesFor } from '../vocabulary/queries.ts';
import { type Place, readPlace } from './place.ts';
import { readOnce } from './readOnce.ts';
import { lookingAt, workedBy } from './workedBy.ts';

const PAGE = 50;
/** Requests that are counted; of more it is said that they are more. */
const COUNTED = 1_000;
/** Requests that are looked at for one page, where the database can’t decide which are meant. */
const LOOKED_AT = 5_000;

/** What is shown of a register, by whom, as something that is kept or is only being looked at. */
interface Shown extends Omit<SharedResult, 'name'> {
  readonly register: RegisterRow;
  readonly sharer: Viewer;
  /** The language its words are read in; null: as they were written. */
  readonly spoken: Language | null;
}

/** The language that a register’s words are read in by who wishes one, where one of its forms is there in it. */
const spokenIn = (db: Reader, { id }: RegisterRow, wished: Language): Language | null =>
  formsOf(db, id).some((form) => {
    const release = releaseInForce(db, form.id);
    return release !== undefined && readIn(release.design, wished) !== null;
  })
    ? wished
    : null;

/** Fields as they are read: in the reader’s language, and by whoever comes by a link as requesters know them. */
function wordedFor({ register, spoken, audience }: Pick<Shown, 'register' | 'spoken' | 'audience'>): readonly Field[] {
  const fields = spoken === null ? register.fields : fieldsIn(register.fields, spoken);
  return audience === null ? calledFields(fields) : fields;
}

/** The requests of a register that somebody may share, as the database finds them. */
function sharedBy(db: Reader, sharer: Viewer, register: RegisterRow): SQL | undefined {
  const rights = rightsAt(sharer, register.id);
  const has = (right: 'read' | 'share', reach: 'own' | 'team' | 'all'): boolean =>
    rights.some((each) => each === `${right}:${reach}`);
  if (!has('share', 'own') && !has('share', 'team') && !has('share', 'all')) return sql`0`;
  const both = (reach: 'team' | 'all'): boolean =>
    (has('read', 'all') || (reach === 'team' && has('read', 'team'))) &&
    (has('share', 'all') || (reach === 'team' && has('share', 'team')));
  const { otherwise: _, ...usual } = sharer;
  const reads = both('all') ? (['read:all'] as const) : both('team') ? (['read:team'] as const) : [];
  const viewer: Viewer = { ...usual, rights: reads };
  return workedBy({ ...lookingAt(db, viewer), along: undefined }, requests);
}

/**
 * The requests that a shared result is of, the newest first, beyond a place; `wanted`: how many. `reached`: how far it was
 * looked, where there may be more; fewer than wanted are found where few of many are meant.
 */
function found(
  db: Reader,
  { register, sharer, when }: Shown,
  wanted: number,
  after?: Place,
): { readonly rows: readonly ShownRow[]; readonly reached: Place | null } {
  const { where, rest } = requestsMeant(register, { when });
  const base = and(countedIn(register.id, 'all'), sharedBy(db, sharer, register), where);
  const rows: ShownRow[] = [];
  // What the database decides is read at once; of the rest many are looked at for one.
  const size = rest ? 500 : Math.min(wanted, 500);
  let place = after;
  for (let looked = 0; looked < LOOKED_AT; ) {
    const beyond = place && sql`(${requests.createdAt}, ${requests.id}) < (${place.at}, ${place.id})`;
    const page: ShownRow[] = db
      .select(SHOWN_COLUMNS)
      .from(requests)
      .where(and(base, beyond))
      .orderBy(desc(requests.createdAt), desc(requests.id))
      .limit(size)
      .all();
    for (const row of page) {
      if (rest && !momentOf(db, row, register, true).holds(when)) continue;
      rows.push(row);
      if (rows.length >= wanted) return { rows, reached: { at: row.createdAt, id: row.id } };
    }
    const last = page.at(-1);
    if (!last || page.length < size) return { rows, reached: null };
    looked += page.length;
    place = { at: last.createdAt, id: last.id };
  }
  return { rows, reached: place ?? null };
}

/** How many requests a shared result is of; of more than a thousand, that they are more. */
function countOf(db: Reader, shown: Shown): { readonly total: number; readonly more: boolean } {
  const { where, rest } = requestsMeant(shown.register, shown);
  if (rest) {
    const { rows, reached } = found(db, shown, COUNTED);
    return { total: rows.length, more: reached !== null };
  }
  const base = and(countedIn(shown.register.id, 'all'), sharedBy(db, shown.sharer, shown.register), where);
  const some = db
    .select({ id: requests.id })
    .from(requests)
    .where(base)
    .limit(COUNTED + 1)
    .as('some');
  const n = db.select({ n: sql<number>`count(*)` }).from(some).get()?.n ?? 0;
  return { total: Math.min(n, COUNTED), more: n > COUNTED };
}

/** The columns of a shared result: fields that are there, in the order they were chosen. */
function columnsOf(shown: Shown) {
  const fields = wordedFor(shown);
  return shown.fields.flatMap((key) => {
    const field = fields.find((each) => each.key === key);
    return field ? [{ key, label: field.label }] : [];
  });
}

/** What is read for them: the columns, and which columns of lines are shown inside one. */
const readFor = (shown: Shown): string[] => [
  ...columnsOf(shown).map(({ key }) => key),
  ...shown.fields.filter((key) => key.includes('.')),
];

const DAY = { type: { kind: 'date' } } as const;

/** What of a request is told besides its fields. Whoever comes by a link is told stages as requesters are. */
function factOf({ register, audience, spoken }: Shown, row: ShownRow, fact: SharedFact, zone: string): Words {
  const dayOf = (at: number | null): Words => (at === null ? '' : sayValue(DAY, dateAt(at, zone)));
  const stage = stageOf(register, row.stage);
  switch (fact) {
    case 'number':
      return row.number;
    case 'stage':
      return audience === null ? publicLabelIn(stage, spoken) : stage.label;
    case 'arrived':
      return dayOf(row.createdAt);
    case 'finished':
      return dayOf(row.finishedAt);
  }
}

/** Some requests as somebody is shown them, with all that is asked of the house for it. */
function* told(
  db: Reader,
  shown: Shown,
  reader: Viewer,
  rows: Iterable<ShownRow>,
): Generator<{ readonly facts: Words[]; readonly cells: Revealed<readonly Words[]> }> {
  const { register, sharer, spoken } = shown;
  const { registers, nameOf } = readOnce(db, undefined, spoken);
  const { zone } = deskOf(db);
  const [keys, fields] = [readFor(shown), wordedFor(shown)];
  for (const row of rows) {
    const open = openShared(db, row, { reader, sharer }, 'list', { register, registers, names: nameOf });
    if (!open) continue;
    yield {
      facts: shown.facts.map((fact) => factOf(shown, row, fact, zone)),
      cells: open.row(keys, row.values, nameOf, fields),
    };
  }
}

/** Why nobody is shown something by now; null where it is shown. */
function closedWhy(db: Reader, row: SharedRow, today: string): Words | null {
  const register = registerById(db, row.registerId);
  if (row.endedAt !== null) return said('sharedPage:wasEnded');
  if (today > row.until) return said('sharedPage:isOver');
  const sharer = viewerOf(db, row.by);
  if (!sharer || !maySharesOf(sharer, register)) return said('sharedPage:mayNotShare', { name: nameOf(db, row.by) });
  const hidden = asksHidden(db, register, row.when);
  return hidden.length > 0 ? said('sharedPage:closedAsksHidden', { fields: hidden }) : null;
}

const nameOf = (db: Reader, id: string): string => personById(db, id)?.name ?? '';

/** Who reads something that is shared, by which way. */
interface ReadBy {
  readonly reader: Viewer;
  readonly reads: Language;
  readonly isLink: boolean;
}

/** @throws Problem 410 for what is over, 404 for who it is not for: to them it does not exist. */
function shownTo(db: Reader, row: SharedRow | undefined, { reader, reads, isLink }: ReadBy, now: number): Shown {
  const today = todayAt(db, now);
  const isFor = row && (isLink || row.by === reader.personId || isSharedTo({ ...row, until: '9999' }, reader, today));
  if (!isFor || (isLink && row.audience !== null)) throw notFound('sharedResult');
  const closed = closedWhy(db, row, today);
  if (closed !== null) throw new Problem(410, 'shared-over', refused('sharedClosed', { why: closed }));
  const register = registerById(db, row.registerId);
  return { ...row, register, sharer: viewerOf(db, row.by) as Viewer, spoken: spokenIn(db, register, reads) };
}

interface Asked {
  readonly after?: string | undefined;
}

/** A page of what is shared, for somebody. */
function pageOf(db: Reader, row: SharedRow, shown: Shown, reader: Viewer, { after }: Asked): AnswerOf<'sharedResult'> {
  const { rows, reached } = found(db, shown, PAGE + 1, after === undefined ? undefined : readPlace(after));
  const last = rows[PAGE - 1];
  const next = rows.length > PAGE && last ? { at: last.createdAt, id: last.id } : reached;
  return {
    ...{ name: row.name, register: shown.register.name, by: nameOf(db, row.by), until: row.until },
    takesOut: row.takesOut,
    facts: [...shown.facts],
    columns: columnsOf(shown),
    rows: [...told(db, shown, reader, rows.slice(0, PAGE))],
    ...countOf(db, shown),
    next: next && `${next.at}.${next.id}`,
  };
}

/** A page of a shared result for one of the staff. @throws Problem 404, 410 */
export function sharedPage(
  db: Reader,
  viewer: Viewer,
  id: string,
  { reads, ...asked }: Asked & { readonly reads: Language },
  now: number,
): AnswerOf<'sharedResult'> {
  const row = sharedById(db, id);
  const shown = shownTo(db, row, { reader: viewer, reads, isLink: false }, now);
  return pageOf(db, row as SharedRow, shown, viewer, asked);
}

/** The same for whoever holds a link. */
export function linkedPage(
  db: Reader,
  token: string,
  { reads, ...asked }: Asked & { readonly reads: Language },
  now: number,
): AnswerOf<'sharedByLink'> {
  const row = sharedById(db, openLink(db, token, 'shared', now).targetId);
  const shown = shownTo(db, row, { reader: STRANGER, reads, isLink: true }, now);
  return pageOf(db, row as SharedRow, shown, STRANGER, asked);
}

/** Lines of a file of what is shared, with its head first; nothing where it can’t be taken out. */
export function* sharedLines(
  db: Reader,
  row: SharedRow | undefined,
  by: ReadBy,
  now: number,
): Generator<readonly string[]> {
  const shown = shownTo(db, row, by, now);
  const { register, sharer, facts, spoken } = shown;
  const { reader, reads } = by;
  if (!row?.takesOut || register.staysIn) throw notFound('sharedResult');
  const { registers, nameOf: names } = readOnce(db, undefined, spoken);
  const around = { vocabularies: vocabulariesFor(db, register.fields, spoken), people: staffIn(db, 'all') };
  const { zone } = deskOf(db);
  const [keys, fields] = [readFor(shown), wordedFor(shown)];
  const { say } = speechFor({ language: reads, zone });
  yield [...facts.map((fact) => say(`sharedPage:fact.${fact}`)), ...columnsOf(shown).map(({ label }) => label)];
  let after: Place | undefined;
  for (;;) {
    const { rows, reached } = found(db, shown, PAGE, after);
    for (const each of rows) {
      const open = openShared(db, each, { reader, sharer }, 'taking-out', { register, registers, names });
      if (!open) continue;
      const references = requestsNamed(db, register.fields, each.values);
      const cells: Revealed<readonly string[]> = open.cells(
        keys,
        each.values,
        names,
        { ...around, references },
        fields,
      );
      yield [...facts.map((fact) => factInFile(shown, each, fact, zone)), ...cells];
    }
    if (reached === null) return;
    after = reached;
  }
}

function factInFile(shown: Shown, row: ShownRow, fact: SharedFact, zone: string): string {
  if (fact === 'arrived') return iso(row.createdAt);
  if (fact === 'finished') return row.finishedAt === null ? '' : iso(row.finishedAt);
  const words = factOf(shown, row, fact, zone);
  return typeof words === 'string' ? words : '';
}

/** The active staff that something is for; null where it is by a link. */
function readersOf(db: Reader, { audience }: Pick<SharedResult, 'audience'>): readonly Viewer[] | null {
  if (audience === null) return null;
  return staffIn(db, 'all').flatMap(({ id, groups }) => {
    const viewer: Viewer = { personId: id, kind: 'staff', rights: [], groups };
    return belongs(audience, viewer, NO_REQUEST) ? [viewer] : [];
  });
}

/** Who of some staff has no way to sign in yet, by name. */
function withoutAccount(db: Reader, readers: readonly Viewer[] | null): string[] {
  if (!readers) return [];
  const able = new Set(
    db
      .all<{ id: string }>(sql`select user_id as id from account union select user_id from passkey`)
      .map(({ id }) => id),
  );
  const missing = readers.filter(({ personId }) => !able.has(personId)).map(({ personId }) => personId);
  return [...namesOf(db, missing.slice(0, 200)).values()].toSorted();
}

/** What a shared result would show before it is shared, as those it is for would see it. */
export function lookAtShared(
  db: Reader,
  viewer: Viewer,
  { register: of, ...input }: BodyOf<'lookAtShared'>,
  reads: Language,
): AnswerOf<'lookAtShared'> {
  const register = registerNamed(db, of);
  if (!maySharesOf(viewer, register)) throw notFound('register');
  const allowed = new Set(sharableBy(db, viewer, register).map(({ key }) => key));
  const isSound = asksHidden(db, register, input.when).length === 0;
  const shown: Shown = {
    ...input,
    register,
    sharer: viewer,
    spoken: spokenIn(db, register, reads),
    fields: input.fields.filter((key) => allowed.has(key)),
  };
  const readers = readersOf(db, input);
  const hidden = hiddenFromSome(db, register, shown.fields, readers ?? [STRANGER]);
  // As the one sees it of whom the most is hidden: nothing is promised that somebody does not get.
  const reader = readers === null ? STRANGER : (hidden.worst ?? readers[0] ?? STRANGER);
  const rows = isSound ? found(db, shown, 5).rows : [];
  return {
    facts: [...shown.facts],
    columns: columnsOf(shown),
    rows: [...told(db, shown, reader, rows)],
    ...(isSound ? countOf(db, shown) : { total: 0, more: false }),
    people: readers?.length ?? null,
    cannotOpen: withoutAccount(db, readers),
    hiddenFromSome: [...hidden.labels],
  };
}

/** What can be shared of a register, what a condition on it may ask for, and for whom. */
export function sharableOf(db: Reader, viewer: Viewer, key: string, find: string): AnswerOf<'sharable'> {
  const register = registerNamed(db, key);
  if (!maySharesOf(viewer, register)) throw notFound('register');
  const shares = sharableBy(db, viewer, register).map((field) => field.key);
  const asks = askable(db, register);
  const fields = register.fields.filter((field) => shares.includes(field.key) || asks.includes(field.key));
  const { stages = [], forms = [] } = knownStanding(db, register);
  return {
    ...{ fields, shares, asks: [...asks] },
    stages: stages.map(({ key: stage, label }) => ({ key: stage, label })),
    forms: [...forms],
    vocabularies: vocabulariesFor(db, fields),
    ...targetsFound(db, find),
  };
}

/** What is shared with one of the staff, and shown today. */
export function sharedFor(db: Reader, viewer: Viewer, now: number): AnswerOf<'sharedResults'>['forMe'] {
  const today = todayAt(db, now);
  return sharedNow(db).flatMap((row) =>
    row.by !== viewer.personId && isSharedTo(row, viewer, today) && closedWhy(db, row, today) === null
      ? [
          {
            ...{ id: row.id, name: row.name, register: registerById(db, row.registerId).name },
            ...{ by: nameOf(db, row.by), until: row.until },
          },
        ]
      : [],
  );
}

/** What somebody shares, and what is shared with them. */
export function sharedList(db: Reader, secret: string, viewer: Viewer, now: number): AnswerOf<'sharedResults'> {
  const today = todayAt(db, now);
  const groups = groupNames(db);
  const nameOfWord = (word: string): Words =>
    word.startsWith('@') ? nameOf(db, word.slice(1)) : (groups.get(word) ?? word);
  return {
    mine: sharedNow(db, viewer.personId).map((row) => ({
      ...{ id: row.id, register: registerById(db, row.registerId).key, name: row.name },
      ...{ facts: [...row.facts], fields: [...row.fields], when: row.when, audience: row.audience },
      ...{ until: row.until, takesOut: row.takesOut },
      who: row.audience && audienceInWords(row.audience, nameOfWord),
      path:
        row.audience === null && row.linkId !== null
          ? `/shared/link/${tokenOf(secret, row.linkId)}`
          : `/shared/${row.id}`,
      cannotOpen: withoutAccount(db, readersOf(db, row)),
      closed: closedWhy(db, row, today),
    })),
    forMe: sharedFor(db, viewer, now),
    registers: allRegisters(db).flatMap((register) =>
      maySharesOf(viewer, register) ? [{ key: register.key, name: register.name }] : [],
    ),
  };
}
