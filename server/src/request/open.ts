import { createHash } from 'node:crypto';
import {
  hasToDoWith,
  mayDo,
  type Purpose,
  prepareAccess,
  type Reading,
  type Relation,
  type Revealed,
  readsAlso,
  relationTo,
  SHARED_READER,
  type Situation,
  type ValueChange,
  type VisibleChange,
  type VisibleValues,
} from '@tolvek/core/access';
import { mayStill } from '@tolvek/core/door';
import { type Edition, type FormDesign, inLanguage, type Layout, layoutOf, readIn } from '@tolvek/core/form';
import { own } from '@tolvek/core/own';
import { holdersOf, inRegister, mayWith, type RequestRight, type Viewer } from '@tolvek/core/people';
import {
  calledFields,
  type Field,
  fieldKeyOf,
  fieldsIn,
  type NameOf,
  partsOf,
  publicLabelIn,
} from '@tolvek/core/register';
import { said, type Words } from '@tolvek/words';
import type { Language } from '@tolvek/words/speech';
import { sql } from 'drizzle-orm';
import { doorOf } from '../door/queries.ts';
import { releaseById, releaseInForce } from '../form/queries.ts';
import { canonicalJson } from '../platform/canonical.ts';
import type { Reader } from '../platform/database.ts';
import { listed } from '../platform/prepared.ts';
import { notFound } from '../platform/problem.ts';
import { mayHaveTold } from '../platform/reads.ts';
import { type RegisterRow, type Registers, registerById, registersOnce, stageOf } from '../register/queries.ts';
import { editionGiven } from './editions.ts';
import { followersFor } from './followers.ts';
import { momentOf } from './moment.ts';
import { nameOf } from './names.ts';
import { protectionFor } from './protection.ts';
import { isOwnOf, partiesIn, type RequestRow, requestById, requestByNumber, type ShownRow } from './queries.ts';
import { isSharedWith, sharesOf } from './shares.ts';
import type { history } from './tables.ts';

/** What many requests have in common, read before. */
interface Shared {
  readonly register?: RegisterRow;
  readonly registers?: Registers;
  readonly names?: NameOf;
  /** The ids of requests that the viewer reads by what stands in them, where they were listed by that. */
  readonly along?: ReadonlySet<string>;
  /** The id of the edition it is looked at in, null: the form as it is; undefined: the one its viewer is given. */
  readonly edition?: string | null | undefined;
  /** Who looks through the eyes of the viewer: what is hidden from them stays so, and it is they who look. */
  readonly looker?: OpenRequest;
}

/**
 * A stored request as one viewer may have it for one purpose. What it holds is read through here
 * and nowhere else.
 */
export class OpenRequest<Row extends ShownRow = ShownRow> {
  private visible: Revealed<VisibleValues> | undefined;
  private ended: boolean | undefined;
  private laid: Layout | null | undefined;

  constructor(
    readonly request: Row,
    readonly register: RegisterRow,
    /** The design of the release it came by, in the language that its viewer reads. */
    readonly design: FormDesign,
    readonly relation: Relation,
    readonly reading: Reading,
    private readonly names: NameOf,
    /** Whether its viewer takes a place at a seat that is open. */
    private readonly standsIn: boolean,
    private readonly looker: OpenRequest | null = null,
    private readonly given: () => Edition | null = () => null,
    /** Whether the door it came by lets whoever asked change nothing of it any more. */
    private readonly over: () => boolean = () => false,
    /** The language that its viewer reads it in; null: as it was written. */
    readonly spoken: Language | null = null,
  ) {}

  /** How the edition of its form that its viewer is given lays it out; null where they are given the form as it is. */
  get layout(): Layout | null {
    if (this.laid === undefined) {
      const edition = this.given();
      this.laid = edition && layoutOf(this.design, edition);
    }
    return this.laid;
  }

  /** Whether its viewer may change a field: by the plan, and as it is laid out. */
  mayWrite(key: string): boolean {
    return this.reading.levelOf(key).level === 'write' && !this.isLaidClosed(key);
  }

  private get isOver(): boolean {
    this.ended ??= this.over();
    return this.ended;
  }

  private isLaidClosed(key: string): boolean {
    if (this.isOver) return true;
    return this.layout !== null && (this.layout.leavesOut(key) || this.layout.locks(key));
  }

  /** What it holds, laid out: what its edition leaves out or locks can’t be changed. */
  get laidOut(): Revealed<VisibleValues> {
    const { values, layout } = this;
    if (!layout && !this.isOver) return values;
    const why = said('access:lockedInEdition', { edition: layout?.edition.name ?? '' });
    const fields = values.fields.map((field) =>
      field.writable && this.isLaidClosed(field.key)
        ? { ...field, writable: false, ...(this.relation.isDesk ? { why } : {}) }
        : field,
    );
    return { ...values, fields };
  }

  get readable(): ReadonlySet<string> {
    return this.reading.readable;
  }

  /** All its fields, as its viewer reads them. */
  private get worded(): readonly Field[] {
    const { fields } = this.reading.protection;
    const spoken = this.spoken === null ? fields : fieldsIn(fields, this.spoken);
    return isOutside(this.relation) ? calledFields(spoken) : spoken;
  }

  /** Its fields: a trial may have some that its register has not got yet. */
  get fields(): readonly Field[] {
    const fields = this.worded;
    const { left } = this.register;
    // What has left the register is read where a request still has it.
    return left.length === 0
      ? fields
      : fields.filter((field) => !left.includes(field.key) || own(this.request.values, field.key) !== undefined);
  }

  get values(): Revealed<VisibleValues> {
    this.visible ??= this.reading.reveal(this.request.values, this.names, this.fields);
    return this.visible;
  }

  /** Some of its fields. */
  valuesOf(fields: readonly Field[]): Revealed<VisibleValues> {
    return this.reading.reveal(this.request.values, this.names, fields);
  }

  /** Texts with the values they name that its viewer may read. */
  textsOf(texts: readonly string[]): Revealed<readonly Words[]> {
    return this.reading.texts(texts, this.request.values, this.names, this.worded);
  }

  get subject(): Revealed<Words> {
    const { title, subject } = this.design;
    // What is tried is called as its draft calls it.
    const named = this.request.trial ? subject : this.register.subject;
    const fields = this.spoken === null ? undefined : this.worded;
    return this.reading.subject({ subject: named, title }, this.request.values, this.names, fields);
  }

  /** What its requester reads of where it stands. */
  get publicStage(): string {
    return publicLabelIn(stageOf(this.register, this.request.stage), this.spoken);
  }

  /** Whether the viewer may do something with it, besides reading. */
  may(right: RequestRight): boolean {
    // Through the eyes of another one sees no more than by oneself.
    return (this.looker?.may(right) ?? true) && this.mayThere(right);
  }

  /** Whether the one who is looked as may do something with it. */
  mayThere(right: RequestRight): boolean {
    const { viewer } = this.reading.situation;
    // Whoever stands in sees as much of it as whom they stand in for.
    if (this.standsIn && right === 'history') return mayWith(inRegister(viewer, this.register.id), right, 'own');
    return mayDo(partiesIn(this.request, this.register), viewer, right);
  }

  /** Stands for what is in view: another one when a value that may be read has changed. */
  get seen(): string {
    return createHash('sha256')
      .update(canonicalJson(this.values.fields.map(({ key, value }) => [key, value])))
      .digest('base64url')
      .slice(0, 22);
  }

  /** Whether its viewer reads what somebody wrote: notes of the desk are the desk’s, but for one’s own. */
  readsWords({ actorId, comment }: Pick<typeof history.$inferSelect, 'actorId' | 'comment'>): boolean {
    const { isDesk, isRequester, calledIn = false, onlyReads = false } = this.relation;
    if (comment === null || isDesk) return comment !== null;
    if (isRequester) return comment.visibility === 'requester';
    // Who decides is asked about what was sent, and hears nothing of what is talked about.
    const { personId } = this.reading.situation.viewer;
    const isTheirs = actorId === personId || comment.whom === personId;
    return calledIn && !onlyReads && (isTheirs || comment.visibility === 'requester');
  }

  changes(changes: readonly ValueChange[]): Revealed<readonly VisibleChange[]> {
    return this.reading.changes(changes, this.names, this.worded);
  }

  /** Some of its fields, by their keys, each in words; what its viewer may not read is empty, as what holds nothing. */
  cellsOf(keys: readonly string[]): Revealed<readonly Words[]> {
    const columns = partsOf(this.worded).flatMap(({ key }) =>
      fieldKeyOf(key) !== key && keys.includes(fieldKeyOf(key)) ? [key] : [],
    );
    return this.reading.row([...keys, ...columns], this.request.values, this.names, this.worded);
  }

  /** The id of the first file of a field, where its viewer may read it; null for none, or of no field. */
  fileOf(key: string | null): Revealed<string | null> {
    return this.reading.file(key ?? '', this.request.values);
  }

  /** Its cells in a sheet. `fields`: the columns. */
  cells(fields: readonly Field[], around: Parameters<Reading['cells']>[3]): Revealed<readonly string[]> {
    return this.reading.cells(fields, this.request.values, this.names, around);
  }
}

/**
 * Whether a viewer takes a place at a seat of a request that is open, and is not the one who asks. The seats are those of approvals, an area above
 * this one: asked by their names.
 */
const isAskedFor = (
  db: Reader,
  request: Pick<ShownRow, 'id' | 'requesterId' | 'onBehalfId'>,
  { personId, standsIn = [] }: Viewer,
): boolean => standsIn.length > 0 && !isOwnOf(request, personId) && isAskedAt(db, request, standsIn);

/** Whether any of some holders has a seat of a request that is open. */
const isAskedAt = (db: Reader, { id }: Pick<ShownRow, 'id'>, holders: readonly string[]): boolean =>
  db.all(
    sql`select 1 from seats where request_id = ${id} and state = 'open' and holder in (select value from json_each(${listed(holders)})) limit 1`,
  ).length > 0;

/** How somebody stands to a request: who was asked from outside to decide, and has, has nothing to do with it any more. */
function stillStands(db: Reader, request: ShownRow, relation: Relation, viewer: Viewer): Relation {
  if (!relation.calledIn || !relation.onlyReads || isAskedAt(db, request, holdersOf(viewer))) return relation;
  const { calledIn: _, onlyReads: __, ...left } = relation;
  return left;
}

/**
 * Opens a stored request for a viewer: the one door to what it holds. Whoever has nothing to do with
 * it can open it too, and reads nothing.
 */
export function openRequest<Row extends ShownRow>(
  db: Reader,
  request: Row,
  viewer: Viewer,
  purpose: Purpose,
  {
    register: read,
    registers = registersOnce(db, read && [read]),
    names = nameOf(db, registers),
    along,
    looker,
    edition,
  }: Shared = {},
): OpenRequest<Row> {
  const register = registers.byId(request.registerId);
  const parties = partiesIn(request, register, followersFor(db, register.access, request.id));
  const own = stillStands(db, request, relationTo(parties, viewer), viewer);
  // Whoever takes the place of somebody who is away reads what that one is asked, as long as it is open; and whoever
  // it is shared with.
  const takesPlace = isAskedFor(db, request, viewer);
  const standsIn = !own.isDesk && takesPlace;
  const at = momentOf(db, request, register);
  const readsAlong =
    standsIn ||
    (!own.isDesk &&
      ((along ? along.has(request.id) : readsAlso(register.access, viewer, own, at.holds).isDesk) ||
        isSharedWith(db, request.id, viewer)));
  // To the plan they are who decides, as whom they stand in for.
  const placed = takesPlace ? { ...own, as: [...new Set([...(own.as ?? []), 'decider' as const])] } : own;
  const known = readsAlong ? { ...placed, isDesk: true, onlyReads: true as const } : placed;
  // Whoever also works at the desk reads the rest on the Floor.
  const relation = { ...known, isDesk: known.isDesk && purpose !== 'following' };
  const itself = prepareAccess(protectionFor(db, register, request, registers))({ viewer, relation, purpose, at });
  const reading = looker ? itself.through(looker.reading) : itself;
  if (purpose !== 'letter') noteTold(request, register, reading, (looker?.reading ?? reading).situation);
  const { design, spoken } = designRead(db, request, isOutside(relation) ? viewer.reads : undefined);
  const given = (): Edition | null =>
    edition === undefined
      ? editionGiven(db, { request, register, design, reading, relation })
      : ((design.editions ?? []).find(({ id }) => id === edition) ?? null);
  const over = (): boolean => relation.isRequester && !relation.isDesk && isOverFor(db, request);
  const called = spoken === null ? names : nameOf(db, registers, spoken);
  return new OpenRequest(request, register, design, relation, reading, called, standsIn, looker, given, over, spoken);
}

/**
 * The design of the release that a request came by, as it is read in a language: by the translations in force now, each
 * where the release still says what it was made from; by its own where there are none any more.
 */
function designRead(db: Reader, { releaseId, formId }: ShownRow, reads: Language | undefined) {
  const { design } = releaseById(db, releaseId).release;
  if (reads === undefined) return { design, spoken: null };
  const translations = releaseInForce(db, formId)?.design.translations ?? design.translations;
  const spoken = readIn({ translations, written: design.written }, reads);
  return { design: spoken === null ? design : inLanguage(design, spoken, translations), spoken };
}

/** Whether the door that a request came by lets whoever asked change nothing any more. */
function isOverFor(db: Reader, request: ShownRow): boolean {
  const until = doorOf(db, request)?.design.changes;
  return until !== undefined && !mayStill(until, request.phase);
}

/**
 * Opens a stored request for somebody it is shown to in a shared result: what who shared it may read, and what the plan hides
 * from nobody who reads it so. Null where who shared it may not share it.
 */
export function openShared(
  db: Reader,
  request: ShownRow,
  { reader, sharer }: { readonly reader: Viewer; readonly sharer: Viewer },
  purpose: 'list' | 'taking-out',
  shared: { readonly register: RegisterRow; readonly registers: Registers; readonly names: NameOf },
): { readonly row: Reading['row']; readonly cells: Reading['rowCells'] } | null {
  const by = openRequest(db, request, sharer, purpose, shared);
  if (!by.relation.isDesk || !by.may('share') || (purpose === 'taking-out' && !by.may('export'))) return null;
  const { register, registers } = shared;
  const at = momentOf(db, request, register);
  const protection = protectionFor(db, register, request, registers);
  const reading = prepareAccess(protection)({ viewer: reader, relation: SHARED_READER, purpose, at }).through(
    by.reading,
  );
  noteTold(request, register, reading, reading.situation);
  return { row: reading.row.bind(reading), cells: reading.rowCells.bind(reading) };
}

/**
 * Opens a request by its number for somebody who works on it.
 *
 * @throws Problem 404 for everybody else: for them it does not exist.
 */
export function openAtDesk(db: Reader, viewer: Viewer, number: string, purpose: Purpose): OpenRequest<RequestRow> {
  const open = openAtWork(db, viewer, number, purpose);
  if (!open.relation.isDesk) throw notFound('request');
  return open;
}

/** Whether somebody reads a request in the words for those who do not work at the desk. */
const isOutside = (relation: Relation): boolean => !relation.isDesk && hasToDoWith(relation);

/**
 * Opens a request by its number for somebody who works on it, at its desk or called in from outside.
 *
 * @throws Problem 404 for everybody else: for them it does not exist.
 */
export function openAtWork(db: Reader, viewer: Viewer, number: string, purpose: Purpose): OpenRequest<RequestRow> {
  const request = requestByNumber(db, number);
  const open = request && openRequest(db, request, viewer, purpose);
  if (!open?.relation.isDesk && !open?.relation.calledIn) throw notFound('request');
  return open;
}

/** Has it noted what is told of a request, where that is wanted; `by`: who looks. Whoever asked reads what they sent. */
function noteTold(request: ShownRow, { id, access }: RegisterRow, reading: Reading, by: Situation): void {
  if (!access.noted?.length || by.relation.isRequester) return;
  mayHaveTold(() =>
    reading.told.size > 0
      ? { by: by.viewer.personId, registerId: id, number: request.number, fields: [...reading.told] }
      : null,
  );
}

/** The number of a request, and whom its changes concern: who works on it, reads along, or asked; null when it is gone. */
export function readersOf(
  db: Reader,
  requestId: string,
): { readonly number: string; readonly concerns: (viewer: Viewer) => boolean } | null {
  const request = requestById(db, requestId);
  if (!request) return null;
  const register = registerById(db, request.registerId);
  const parties = partiesIn(request, register);
  const { holds } = momentOf(db, request, register);
  const isShared = sharesOf(db, requestId).length > 0;
  const concerns = (viewer: Viewer): boolean => {
    if (hasToDoWith(readsAlso(register.access, viewer, relationTo(parties, viewer), holds))) return true;
    return isAskedFor(db, request, viewer) || (isShared && isSharedWith(db, requestId, viewer));
  };
  return { number: request.number, concerns };
}
