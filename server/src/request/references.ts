import type { AnswerOf } from '@tolvek/contract';
import {
  type CardFact,
  cardOf,
  labelOf,
  type OfferCard,
  type Revealed,
  readForCard,
  revealReferred,
} from '@tolvek/core/access';
import {
  FORM,
  fieldsBrought,
  isReferring,
  type KnownRegister,
  notOffered,
  type OfferObstacles,
  type OfferTest,
  prepareObstacles,
  prepareOffer,
} from '@tolvek/core/form';
import { own } from '@tolvek/core/own';
import {
  type Field,
  type Problem as FieldProblem,
  fieldsIn,
  type KnownRequest,
  publicLabelIn,
  type ReferenceKind,
  type RequestFacts,
  type Values,
} from '@tolvek/core/register';
import { type Language, said } from '@tolvek/words';
import { and, desc, eq, inArray, ne, or, type SQL, sql } from 'drizzle-orm';
import { referringTo } from '../design/queries.ts';
import { uploads } from '../files/tables.ts';
import { formByKey } from '../form/queries.ts';
import type { Reader, Transaction } from '../platform/database.ts';
import { isListed, listed, prepared } from '../platform/prepared.ts';
import { notFound } from '../platform/problem.ts';
import { allRegisters, type RegisterRow, registerByKey } from '../register/queries.ts';
import { nameOf, TARGET, type Target } from './names.ts';
import { openAsReleased, openToOthers, protectionFor } from './protection.ts';
import { pointers, requests } from './tables.ts';

/** Requests offered at once; who doesn’t find theirs types more of its name. */
const OFFERED = 20;

/** Requests that are read at once, the newest first, when an offer is looked for. */
const AT_ONCE = 500;
/** How long is looked for an offer at most, ms; whoever does not find theirs types more of its name. */
const LONGEST_LOOK = 100;

/**
 * The registers that references can point to: those a form was released for. `keys`: only these of
 * them.
 */
export function knownRegisters(db: Reader, keys?: readonly string[]): readonly KnownRegister[] {
  if (keys?.length === 0) return [];
  const known = keys ? keys.flatMap((key) => registerByKey(db, key) ?? []) : allRegisters(db);
  return [...known]
    .filter((register) => register.fields.length > 0)
    .sort((a, b) => (a.name < b.name ? -1 : a.name > b.name ? 1 : 0))
    .map((register) => {
      const open = new Set(openAsReleased(db, register).map((field) => field.key));
      return {
        key: register.key,
        name: register.name,
        fields: register.fields,
        stages: register.stages.map(({ key, label }) => ({ key, label })),
        restricted: register.fields.filter((field) => !open.has(field.key)).map((field) => field.key),
      };
    });
}

/**
 * A request as a reference’s form may know it: what the reference shows, and what is carried along.
 */
function knownAs(
  db: Reader,
  register: RegisterRow,
  target: Target,
  shows: readonly string[],
  brought: readonly string[],
): Revealed<KnownRequest> {
  const reference = { register: register.key, shows, brings: brought };
  return revealReferred(protectionFor(db, register, target), target, reference, nameOf(db));
}

type Pointing = Field & { readonly type: ReferenceKind };

const pointing = (fields: readonly Field[]): readonly Pointing[] =>
  fields.filter((field): field is Field & { type: Extract<Field['type'], { kind: 'reference' }> } =>
    isReferring(field.type),
  );

const idsIn = (value: unknown): readonly string[] =>
  Array.isArray(value) ? value.filter((each) => typeof each === 'string') : typeof value === 'string' ? [value] : [];

/** Requests of a register by their ids, trials aside. */
const targetsIn = prepared((db) =>
  db
    .select(TARGET)
    .from(requests)
    .where(
      and(
        isListed(requests.id, 'ids'),
        eq(requests.registerId, sql.placeholder('register')),
        eq(requests.trial, false),
      ),
    )
    .prepare(),
);

/**
 * The requests that answers or values name, as far as the form’s references may bring them along.
 * What is stored and not offered any more is known all the same. `typed`: who types these answers;
 * what is not among what a reference offers to them is not known to them.
 */
export function requestsNamed(
  db: Reader,
  fields: readonly Field[],
  named: Readonly<Record<string, unknown>>,
  typed?: { readonly by: string | null },
): readonly Revealed<KnownRequest>[] {
  const known: Revealed<KnownRequest>[] = [];
  for (const field of pointing(fields)) {
    const preset = 'preset' in field && field.preset?.from === 'fixed' ? field.preset.value : null;
    const ids = [...idsIn(own(named, field.key)), ...idsIn(preset)]
      .slice(0, 200)
      .filter((id) => !known.some((each) => each.id === id && each.register === field.type.register));
    const register = ids.length > 0 ? registerByKey(db, field.type.register) : undefined;
    if (!register) continue;
    const same = pointing(fields).filter((each) => each.type.register === register.key);
    const brought = [...new Set(same.flatMap((each) => fieldsBrought({ fields }, each)))];
    const rows = targetsIn(db)
      .all({ ids: listed(ids), register: register.id })
      .filter((row) => !typed || isAmong(field.type, row, typed.by));
    known.push(...rows.map((row) => knownAs(db, register, row, field.type.shows, brought)));
  }
  return known;
}

const isAmong = ({ among }: ReferenceKind, target: Target, asker: string | null): boolean =>
  among === 'all' ||
  (among === 'mine'
    ? asker !== null && target.requesterId === asker
    : (target.phase === 'finished') === (among === 'finished'));

const amongCondition = ({ among }: ReferenceKind, asker: string | null): SQL | undefined =>
  among === 'all'
    ? undefined
    : among === 'mine'
      ? eq(requests.requesterId, asker ?? '')
      : among === 'finished'
        ? eq(requests.phase, 'finished')
        : ne(requests.phase, 'finished');

interface Asking {
  readonly fields: readonly Field[];
  readonly values: Values;
  readonly facts: RequestFacts;
  /** Whose own requests “mine” are. */
  readonly asker: string | null;
}

/** How what is offered is told to whoever asks by cards. */
export interface ByCards {
  /** The language they read, where it is theirs; null: as it was written. */
  readonly reads: Language | null;
}

/**
 * What limits the offer of a reference, by fields that others may know: by each request’s own
 * release, whose rules may have made an open field from a closed one.
 */
function offerIn(db: Reader, type: ReferenceKind, fields: readonly Field[], register: RegisterRow): OfferTest<Target> {
  return byRelease(db, register, (open) => prepareOffer(type, fields, { ...register, fields: open }));
}

/** Looks at each request by what its own release leaves open, made ready once for each of these. */
function byRelease<Found>(
  db: Reader,
  register: RegisterRow,
  prepare: (open: readonly Field[]) => (target: Target, values: Values, facts: RequestFacts) => Found,
): (target: Target, values: Values, facts: RequestFacts) => Found {
  const ready = new Map<readonly Field[], ReturnType<typeof prepare>>();
  return (target, values, facts) => {
    const open = openToOthers(db, register, target);
    const look = ready.get(open) ?? prepare(open);
    ready.set(open, look);
    return look(target, values, facts);
  };
}

/** Makes the cards of what a reference has, or might have. */
function cardsIn(db: Reader, field: Pointing, fields: readonly Field[], register: RegisterRow, { reads }: ByCards) {
  const { type } = field;
  const { cards } = type;
  const obstacles: OfferObstacles<Target> = byRelease(db, register, (open) =>
    prepareObstacles(type, fields, { ...register, fields: open }),
  );
  const names = nameOf(db, undefined, reads);
  return {
    /** Whether those that are not offered just now are told of. */
    showsUnavailable: cards?.unavailable === 'grey',
    of: (target: Target, isOffered: boolean, { values, facts }: Asking): Revealed<OfferCard> | undefined => {
      if (!cards) return undefined;
      const protection = protectionFor(db, register, target);
      const named = reads === null ? protection.fields : fieldsIn(protection.fields, reads);
      const reading = readForCard(protection, target, named, names);
      const inTheWay = (): readonly CardFact[] => {
        const { things, answers } = obstacles(target, values, facts);
        return [
          ...things.flatMap((key) => (key === 'stage' ? standing(register, target, reads) : reading.factsOf([key]))),
          ...answers.flatMap((key) => awaited(fields, key)),
        ];
      };
      return cardOf(reading, cards, isOffered ? null : inTheWay());
    },
  };
}

/** A question that has to be answered before it can be said. */
function awaited(fields: readonly Field[], key: string): readonly CardFact[] {
  const field = fields.find((each) => each.key === key);
  return field ? [{ label: '', words: said('answers:answerFirst', { label: field.label }) }] : [];
}

/** Where a request stands, as requesters read it. */
function standing({ stages }: RegisterRow, { stage }: Target, reads: Language | null): readonly CardFact[] {
  const at = stages.find(({ key }) => key === stage);
  return at ? [{ label: '', words: publicLabelIn(at, reads) }] : [];
}

/** Requests as targets, the newest first, a few at a time: whoever has enough stops. */
function* newestFirst(db: Reader, among: SQL | undefined): Generator<Target> {
  for (let beyond: SQL | undefined; ; ) {
    const rows = db
      .select({ ...TARGET, createdAt: requests.createdAt })
      .from(requests)
      .where(and(among, beyond))
      .orderBy(desc(requests.createdAt), desc(requests.id))
      .limit(AT_ONCE)
      .all();
    yield* rows;
    const last = rows.at(-1);
    if (!last || rows.length < AT_ONCE) return;
    beyond = sql`(${requests.createdAt}, ${requests.id}) < (${last.createdAt}, ${last.id})`;
  }
}

/** Kinds that are shown as they are stored. */
const AS_STORED: ReadonlySet<string> = new Set(['text', 'long-text', 'email', 'link', 'running-number']);

/**
 * What the database can say of a word looked for: the number holds it, or one of the fields that are
 * shown does. Undefined where it can’t tell, as something else is shown than is stored.
 */
function mayHold(register: RegisterRow, shows: readonly string[], word: string): SQL | undefined {
  const fields = shows.flatMap((key) => register.fields.find((field) => field.key === key) ?? []);
  if (!/^[!-+\--~]+$/.test(word) || fields.some((field) => !AS_STORED.has(field.type.kind))) return undefined;
  const holds = (text: SQL): SQL => sql`instr(lower(${text}), ${word}) > 0`;
  return or(
    holds(sql`${requests.number}`),
    ...fields.map(({ key }) => holds(sql`coalesce(json_extract(${requests.values}, ${`$."${key}"`}), '')`)),
  );
}

/** The question of a form that is answered by a reference, with the register it points into. @throws Problem 404 */
function referenceAt(db: Reader, key: string, fields: readonly Field[]) {
  const field = pointing(fields).find((each) => each.key === key);
  const register = field && registerByKey(db, field.type.register);
  if (!field || !register) throw notFound('reference');
  return { field, register };
}

/**
 * What a reference offers with the answers as they are, those that fit the words looked for. `by`: they are shown on cards,
 * where the reference has some; those not offered just now have cards as well, where the form says so.
 */
export function offersOf(
  db: Reader,
  key: string,
  find: string,
  asking: Asking,
  by: ByCards | null = null,
): AnswerOf<'offers'> {
  const { fields, values, facts, asker } = asking;
  const { field, register } = referenceAt(db, key, fields);
  const cards = by && cardsIn(db, field, fields, register, by);
  const offered = offerIn(db, field.type, fields, register);
  const words = find.trim().toLowerCase().split(/\s+/).filter(Boolean);
  const among = and(
    ...[eq(requests.registerId, register.id), eq(requests.trial, false), amongCondition(field.type, asker)],
    ...words.map((word) => mayHold(register, field.type.shows, word)),
  );
  const until = performance.now() + LONGEST_LOOK;
  const brought = fieldsBrought({ fields }, field);
  const found: Revealed<KnownRequest>[] = [];
  const shown: Record<string, Revealed<OfferCard>> = {};
  const answer = (more: boolean): AnswerOf<'offers'> => ({
    offers: found.sort((a, b) => a.label.localeCompare(b.label)),
    ...{ cards: shown, more },
  });
  for (const row of newestFirst(db, among)) {
    if (performance.now() > until) return answer(true);
    const findable =
      `${labelOf(protectionFor(db, register, row), row, field.type.shows, nameOf(db))} ${row.number}`.toLowerCase();
    if (!words.every((word) => findable.includes(word))) continue;
    const isOffered = offered(row, values, facts);
    if (!isOffered && !cards?.showsUnavailable) continue;
    if (found.length === OFFERED) return answer(true);
    found.push(knownAs(db, register, row, field.type.shows, brought));
    const card = cards?.of(row, isOffered, asking);
    if (card) shown[row.id] = card;
  }
  return answer(false);
}

/**
 * The hash of the file that is the picture on a card of what a reference may offer to somebody.
 *
 * @throws Problem 404 for any other file, as for one that does not exist
 */
export function pictureOnCard(
  db: Reader,
  key: string,
  file: string,
  { fields, asker }: Pick<Asking, 'fields' | 'asker'>,
): string {
  const { field, register } = referenceAt(db, key, fields);
  const { cards } = field.type;
  const upload = cards && db.select().from(uploads).where(eq(uploads.id, file)).get();
  const [target] = upload?.requestId
    ? targetsIn(db).all({ ids: listed([upload.requestId]), register: register.id })
    : [];
  if (!upload || !target || !isAmong(field.type, target, asker)) throw notFound('picture');
  const protection = protectionFor(db, register, target);
  const { pictureIn } = readForCard(protection, target, protection.fields, nameOf(db));
  if (pictureIn(cards.picture) !== file) throw notFound('picture');
  return upload.sha256;
}

/**
 * References to what is not offered with these values. `only`: the fields to look at, when others
 * are not being answered.
 */
export function offerProblems(
  db: Reader,
  { fields, values, facts, asker }: Asking,
  only?: ReadonlySet<string>,
): readonly FieldProblem[] {
  return pointing(fields).flatMap((field): FieldProblem[] => {
    const ids = only && !only.has(field.key) ? [] : idsIn(own(values, field.key));
    const register = ids.length > 0 ? registerByKey(db, field.type.register) : undefined;
    if (!register) return [];
    const offered = offerIn(db, field.type, fields, register);
    const targets = targetsIn(db).all({ ids: listed(ids), register: register.id });
    // What a rule or a default put there may be no request at all.
    const missing = ids.find((id) => !targets.some((target) => target.id === id));
    if (missing !== undefined) return [notOffered(field)];
    const gone = targets.find((target) => !isAmong(field.type, target, asker) || !offered(target, values, facts));
    return gone ? [notOffered(field)] : [];
  });
}

const unpointing = prepared((db) =>
  db
    .delete(pointers)
    .where(eq(pointers.requestId, sql.placeholder('request')))
    .prepare(),
);

/** Stores what a request points to, in place of what it pointed to; `isThere`: what can be pointed to. */
export function point(
  tx: Transaction,
  requestId: string,
  fields: readonly Field[],
  values: Values,
  isThere: (id: string) => boolean = () => true,
): void {
  unpointing(tx).run({ request: requestId });
  const rows = pointing(fields).flatMap((field) =>
    idsIn(own(values, field.key))
      .filter(isThere)
      .map((targetId) => ({ requestId, field: field.key, targetId })),
  );
  if (rows.length > 0) tx.insert(pointers).values(rows).onConflictDoNothing().run();
}

/** Requests whose references point to one, the newest first. */
export const requestsPointingTo = (db: Reader, targetId: string): readonly { requestId: string; field: string }[] =>
  db
    .select({ requestId: pointers.requestId, field: pointers.field })
    .from(pointers)
    .where(eq(pointers.targetId, targetId))
    .orderBy(desc(pointers.requestId))
    .all();

/** The forms whose references point to a register, by title. */
export const formsPointingTo = (db: Reader, registerKey: string): readonly string[] => [
  ...new Set(
    referringTo(db, FORM, { kind: 'register', key: registerKey }).flatMap(({ key, title }) =>
      formByKey(db, key) ? [title] : [],
    ),
  ),
];

/** The requests that cells of references name by number. */
export function requestsByNumber(
  db: Reader,
  fields: readonly Field[],
  rows: readonly { readonly cells: Readonly<Record<string, string>> }[],
): RequestFacts['references'] {
  return fields.flatMap((field) => {
    const { type } = field;
    if (!isReferring(type)) return [];
    const named = [
      ...new Set(
        rows.flatMap((row) => (own(row.cells, field.key) ?? '').split(';').map((part) => part.trim().toUpperCase())),
      ),
    ].filter(Boolean);
    const register = registerByKey(db, type.register);
    if (!register || named.length === 0) return [];
    return db
      .select({ id: requests.id, number: requests.number })
      .from(requests)
      .where(and(eq(requests.registerId, register.id), inArray(requests.number, named.slice(0, 5_000))))
      .all()
      .map(({ id, number }) => ({ id, number, register: register.key, label: number, values: {} }));
  });
}
