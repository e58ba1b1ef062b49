import type { AnswerOf } from '@tolvek/contract';
import { dateAt } from '@tolvek/core/deadline';
import {
  calledIn,
  type Findable,
  faultsBetween,
  faultsIn,
  findableIn,
  isCalled,
  PLACES,
  personTag,
  requestTag,
  type Sought,
  soughtBy,
  standsIn,
  widened,
  wordsOf,
} from '@tolvek/core/find';
import { rightsAt, type Viewer } from '@tolvek/core/people';
import { fieldKeyOf, partsOf } from '@tolvek/core/register';
import { LANGUAGES } from '@tolvek/words/speech';
import { and, asc, eq, like, or, type SQL, sql } from 'drizzle-orm';
import { formsOf } from '../form/queries.ts';
import { people } from '../people/tables.ts';
import type { Reader } from '../platform/database.ts';
import { askableIn } from '../request/asking.ts';
import { openRequest } from '../request/open.ts';
import type { ShownRow } from '../request/queries.ts';
import { requests } from '../request/tables.ts';
import { deskOf } from '../settings/queries.ts';
import { isFewFor, numberedAs, openedRow, readInLists, rowsOf, sharedBy } from '../view/ledger.ts';
import { viewsFor } from '../view/savedViews.ts';
import { idsNear, type Looking, lookingAt } from '../view/workedBy.ts';
import { allVocabularies } from '../vocabulary/queries.ts';
import { peopleOf, ROWS_EACH, saidTo, wordsDue } from './keepWords.ts';

type Found = AnswerOf<'find'>;
type FoundRequest = Found['requests'][number];

/** A part of a query: what is given as a parameter is no whole number to SQLite. */
const EACH = sql.raw(String(ROWS_EACH));

/** Requests that are told. */
const MOST = 30;
/** Fewer than that are found: what is nearly written so is looked for as well. */
const FEW = 5;
/** Places that are read at once, and at most: of more it is said that there may be more. */
const PAGE = 60;
const LOOKED = 3_000;
/** People of a name, and words that are nearly written so. */
const NAMED = 50;
const NEARLY = 50;
/** Places that are told of a request. */
const PLACES_TOLD = 3;
/** A word alone. */
const NO_TAGS: ReadonlySet<string> = new Set();
/** People who are told. */
const PEOPLE_TOLD = 8;
/** Words in which a word that is written with a fault is looked for. */
const VOCABULARY = 20_000;
/** How often something is counted at most, to look for the rarest first. */
const COUNTED = 5_000;

/** What months are called in the languages there are, and shortly. */
const MONTHS: ReadonlyMap<string, number> = new Map(
  LANGUAGES.flatMap((language) =>
    (['long', 'short'] as const).flatMap((month) => {
      const format = new Intl.DateTimeFormat(language, { month, timeZone: 'UTC' });
      return Array.from(
        { length: 12 },
        (_, at) => [wordsOf(format.format(Date.UTC(2026, at, 1)))[0] ?? '', at + 1] as const,
      );
    }),
  ),
);

/** What a viewer finds by some words: only in what they may read, and look through. */
export function findBy(db: Reader, viewer: Viewer, text: string, now: number): Found {
  const finding = new Finding(lookingAt(db, viewer), now);
  const { zone } = deskOf(db);
  const vocabularies = allVocabularies(db);
  const fields = finding.looking.registers.flatMap((register) => partsOf(register.fields));
  const labelled = calledIn(fields, vocabularies);
  const sought = soughtBy(text, {
    ...{ today: dateAt(now, zone), months: MONTHS },
    called: (word) => [...labelled(word), ...peopleCalled(db, word).map(personTag), ...finding.numbered(word)],
  });
  const behind = wordsDue(db);
  const called = calledSo(db, viewer, finding.looking, sought);
  if (sought.length === 0) return { requests: [], more: false, words: [], behind, ...called };
  const exact = finding.all(sought, false);
  const byNumber = finding.rowsFrom(numberedAs(finding.looking, text.trim()).slice(0, MOST), [], false);
  const nearly = exact.found.length + byNumber.length < FEW ? sought.map((each) => finding.nearly(each)) : null;
  const near = nearly?.some((each, at) => each !== sought[at]) ? finding.all(nearly, true) : null;
  const first = new Map<string, FoundRequest>();
  for (const each of [...byNumber, ...exact.found, ...(near?.found ?? [])])
    if (!first.has(each.number)) first.set(each.number, each);
  return {
    requests: [...first.values()].slice(0, MOST),
    more: exact.more || first.size > MOST,
    words: [...finding.met],
    ...{ behind, ...called },
  };
}

/** People, views, and forms that the viewer builds, which are called by all that is looked for. */
function calledSo(
  db: Reader,
  viewer: Viewer,
  { registers }: Looking,
  sought: readonly Sought[],
): Pick<Found, 'people' | 'views' | 'forms'> {
  const words = sought.flatMap(({ words: [word] }) => word ?? []);
  if (words.length === 0 || words.length < sought.length) return { people: [], views: [], forms: [] };
  const built = registers.filter(({ id }) => rightsAt(viewer, id).includes('configure'));
  return {
    people: words.every((word) => word.length > 1) ? named(db, words).filter(({ name }) => isCalled(name, words)) : [],
    views: viewsFor(db, viewer).filter(({ name }) => isCalled(name, words)),
    forms: built
      .flatMap(({ id }) => formsOf(db, id))
      .map((form) => ({ key: form.key, title: form.draft.title }))
      .filter(({ title }) => isCalled(title, words)),
  };
}

/** One look for something. */
class Finding {
  private places: SQL | undefined;
  private few: boolean | undefined;
  /** The words that were met in what is told: of what is nearly written so, no other may be. */
  readonly met = new Set<string>();

  constructor(
    readonly looking: Looking,
    private readonly now: number,
  ) {}

  private get db(): Reader {
    return this.looking.db;
  }

  /** Tags of the requests whose number a word is, for what refers to them. */
  numbered(word: string): readonly string[] {
    return /\d/.test(word) ? numberedAs(this.looking, word).map(requestTag) : [];
  }

  /** Where the viewer may look: the plan decides, whatever stands there. */
  private get mayLook(): SQL {
    this.places ??= this.placesAllowed();
    return this.places;
  }

  private placesAllowed(): SQL {
    const { db, viewer, registers } = this.looking;
    const place = sql`(found.rowid % ${EACH})`;
    const within = (keys: readonly string[]): SQL =>
      sql`${place} in (select id from find_places where key in (select value from json_each(${JSON.stringify(keys)})))`;
    const each = registers.flatMap((register) => {
      const open: string[] = [];
      const partly: SQL[] = [];
      const askable = askableIn(db, viewer, register);
      for (const field of register.fields) {
        const { where, isAll, unknown } = askable([field.key]);
        const keys = partsOf([field]).map(({ key }) => key);
        if (isAll) open.push(...keys);
        else if (unknown.length === 0 && where) partly.push(and(within(keys), where) ?? sql`0`);
      }
      return [and(eq(requests.registerId, register.id), or(within(open), ...partly)) ?? sql`0`];
    });
    return or(within(Object.values(PLACES)), ...each) ?? sql`0`;
  }

  /** The requests that hold all of it, the newest first. */
  all(sought: readonly Sought[], nearly: boolean): { readonly found: readonly FoundRequest[]; readonly more: boolean } {
    const found: FoundRequest[] = [];
    const seen = new Set<string>();
    const pages = this.pagesOf(sought.map(matchOf));
    let looked = 0;
    for (const page of pages) {
      const fresh = [...new Set(page)].filter((id) => !seen.has(id));
      for (const id of fresh) seen.add(id);
      found.push(...this.rowsFrom(fresh, sought, nearly));
      looked += page.length;
      if (found.length > MOST || looked >= LOOKED) return { found, more: true };
    }
    return { found, more: false };
  }

  /** Ids of requests that may have all of it, the newest first, a page at a time; one may come again. */
  private *pagesOf(asked: readonly string[]): Generator<readonly string[]> {
    const [rarest, isOften] = this.rarestOf(asked);
    if (rarest === undefined) return;
    const all = asked.map((each) => `(${each})`).join(' AND ');
    const visible = readInLists(this.looking);
    // Whoever works on little has what is found looked for among that; of all others what is found is looked at.
    const isFew = (this.few ??= isFewFor(this.looking));
    const mine = sql`with mine as materialized (select findable.n as n, requests.id as id from requests cross join findable on findable.request_id = requests.id where ${and(idsNear(this.looking, undefined), visible)}) `;
    const [begin, among, n, id] = isFew
      ? [mine, sql`mine`, sql`mine.n`, sql`mine.id`]
      : [sql``, sql`findable`, sql`findable.n`, sql`findable.request_id`];
    // Where each of them stands often, the requests that have all are gone through; else the places of the rarest.
    const [match, where] = isOften
      ? [all, sql`(found.rowid % ${EACH}) = 0`]
      : [
          rarest,
          and(
            this.mayLook,
            asked.length > 1
              ? sql`${n} in (select rowid / ${EACH} from found where found match ${all} and (rowid % ${EACH}) = 0)`
              : undefined,
          ),
        ];
    for (let before: number | null = null; ; ) {
      const there = and(
        sql`found match ${match}`,
        before === null ? undefined : sql`found.rowid < ${before}`,
        where,
        isFew ? undefined : visible,
      );
      const rows = this.db.all<{ readonly id: string; readonly row: number }>(
        sql`${begin}select requests.id as id, found.rowid as row from found cross join ${among} on ${n} = found.rowid / ${EACH} cross join requests on requests.id = ${id} where ${there} order by found.rowid desc limit ${PAGE}`,
      );
      yield rows.map(({ id }) => id);
      const last = rows.at(-1);
      if (!last || rows.length < PAGE) return;
      before = last.row;
    }
  }

  /** What stands in the fewest places of some things that are looked for, and whether even that stands often. */
  private rarestOf(asked: readonly string[]): readonly [string | undefined, boolean] {
    if (asked.length < 2) return [asked[0], false];
    const counted = asked.map((match) => ({
      match,
      n: this.db.get<{ readonly n: number }>(
        sql`select count(*) as n from (select 1 from found where found match ${match} limit ${COUNTED})`,
      ).n,
    }));
    const [rarest] = counted.sort((a, b) => a.n - b.n);
    return [rarest?.match, (rarest?.n ?? 0) >= COUNTED];
  }

  /** Requests as they are told, where the viewer reads what is looked for in them. */
  rowsFrom(ids: readonly string[], sought: readonly Sought[], nearly: boolean): readonly FoundRequest[] {
    const told: FoundRequest[] = [];
    const rows = rowsOf(this.db, ids);
    const shared = sharedBy(this.looking, rows);
    for (const row of rows) {
      const found = told.length <= MOST ? this.toldOf(row, shared, sought) : null;
      if (found) told.push({ ...found, nearly });
    }
    return told;
  }

  private toldOf(
    row: ShownRow,
    shared: ReturnType<typeof sharedBy>,
    sought: readonly Sought[],
  ): Omit<FoundRequest, 'nearly'> | null {
    const { open, row: told } = openedRow(this.looking.viewer, row, shared, this.now);
    if (sought.length === 0) return { ...told, places: [] };
    const { registers, along } = shared;
    const counting = { registers, ...(along ? { along } : {}) };
    const { readable } = openRequest(this.db, row, this.looking.viewer, 'counting', counting);
    const keys = new Set([...open.readable].filter((key) => readable.has(key)));
    const [said, parties] = [this.saidIn(row, open), peopleOf(row)];
    const places: readonly Findable[] = [
      ...findableIn(open.fields, row.values, keys),
      ...parties,
      ...said.map(({ words }) => ({ place: PLACES.said, words })),
    ];
    const there = sought.map((each) => places.filter((place) => standsIn(each, place)));
    if (there.some((some) => some.length === 0)) return null;
    for (const [nth, some] of there.entries())
      for (const word of sought[nth]?.words ?? [])
        if (some.some((place) => standsIn({ words: [word], tags: NO_TAGS }, place))) this.met.add(word);
    const shown = [...new Set(there.flatMap((some) => some.slice(0, 1)))].slice(0, PLACES_TOLD);
    return {
      ...told,
      places: shown.map(({ place, words }) => {
        const party = parties.find((each) => each.words === words);
        if (party) {
          const name = party.id === null ? row.claim?.name : (shared.names.get(party.id) ?? shared.nameOf(party.id));
          return { is: party.as, label: null, value: name ?? '' };
        }
        if (place === PLACES.said)
          return { is: 'message', label: null, value: said.find((each) => each.words === words)?.text ?? '' };
        const key = fieldKeyOf(place);
        const field = open.fields.find((each) => each.key === key);
        const [value = ''] = open.cellsOf([key]);
        return { is: 'field', label: field?.label ?? null, value };
      }) as unknown as FoundRequest['places'],
    };
  }

  /** What was said to a request that the viewer reads. */
  private saidIn(row: ShownRow, open: ReturnType<typeof openedRow>['open']) {
    return saidTo(this.db, row.id)
      .filter(({ entry }) => open.readsWords(entry))
      .map(({ text }) => ({ text, words: new Set(wordsOf(text)) }));
  }

  /** The same with what is nearly written so; itself where nothing is. */
  nearly(sought: Sought): Sought {
    const { typed } = sought;
    const most = sought.words.length > 0 && !/\d/.test(typed) ? faultsIn(typed) : 0;
    const known = most === 0 ? [] : this.nearlyWritten(typed, most);
    const called = most === 0 ? [] : peopleNearly(this.db, typed, most);
    if (known.length + called.length === 0 && sought.day === undefined) return sought;
    const wide = widened(sought, known);
    return { ...wide, tags: new Set([...wide.tags, ...called.map(personTag)]) };
  }

  private nearlyWritten(typed: string, most: number): readonly string[] {
    const initial = typed.charAt(0);
    return this.db
      .all<{ readonly term: string }>(
        sql`select term from found_words where term >= ${initial} and term < ${`${initial}\u{10ffff}`} and length(term) between ${typed.length - most} and ${typed.length + most} limit ${VOCABULARY}`,
      )
      .map(({ term }) => ({ term, faults: faultsBetween(typed, term, most) }))
      .filter(({ faults }) => faults > 0 && faults <= most)
      .sort((a, b) => a.faults - b.faults || (a.term < b.term ? -1 : 1))
      .slice(0, NEARLY)
      .map(({ term }) => term);
  }
}

/** What is looked for, as FTS5 asks for it: words by how they begin, short ones and tags as they are. */
const matchOf = ({ words, tags }: Sought): string =>
  [...words.map((word) => (word.length < 3 ? `"${word}"` : `"${word}"*`)), ...[...tags].map((tag) => `"${tag}"`)].join(
    ' OR ',
  );

const begins = (word: string): SQL | undefined =>
  or(like(people.sought, `${word}%`), like(people.sought, `% ${word}%`), like(people.sought, `%-${word}%`));

/** Ids of people who are called by a word that begins so. */
function peopleCalled(db: Reader, word: string): readonly string[] {
  if (word.length < 2) return [];
  return db
    .select({ id: people.id, name: people.name })
    .from(people)
    .where(begins(word))
    .orderBy(asc(people.name))
    .limit(NAMED)
    .all()
    .flatMap(({ id, name }) => (isCalled(name, [word]) ? [id] : []));
}

/** Ids of people whose names are nearly written so. */
const peopleNearly = (db: Reader, word: string, most: number): readonly string[] =>
  db
    .select({ id: people.id, name: people.name })
    .from(people)
    .limit(VOCABULARY)
    .all()
    .flatMap(({ id, name }) => (wordsOf(name).some((each) => faultsBetween(word, each, most) <= most) ? [id] : []))
    .slice(0, NAMED);

/** People of the house of whom each word is in a name or an address. */
const named = (db: Reader, words: readonly string[]): Found['people'] =>
  db
    .select({ id: people.id, name: people.name })
    .from(people)
    .where(and(eq(people.kind, 'staff'), eq(people.active, true), ...words.map(begins)))
    .orderBy(asc(people.name))
    .limit(PEOPLE_TOLD)
    .all();
