import { dateAt, wallClockAt } from '@tolvek/core/deadline';
import {
  CalendarDate,
  type Compiled,
  chainOf,
  compile,
  DateTime,
  type Node,
  namesRead,
  parseExpression,
} from '@tolvek/core/expression';
import { rightsAt, type Viewer } from '@tolvek/core/people';
import { meOf, type RequestStanding, standingSlots, type Values } from '@tolvek/core/register';
import { canPicture, isFact, kindIn, VIEW_LOOKS_AT, type ViewDesign } from '@tolvek/core/view';
import { and, desc, eq, inArray, or, type SQL, sql } from 'drizzle-orm';
import { formsOf, releaseInForce } from '../form/queries.ts';
import type { Reader } from '../platform/database.ts';
import { literal } from '../platform/literal.ts';
import type { RegisterRow } from '../register/queries.ts';
import { splitCondition } from '../request/conditionSql.ts';
import { factsOfRequest, type Picked, pickedBy } from '../request/facts.ts';
import type { OpenRequest } from '../request/open.ts';
import { SHOWN_COLUMNS, type ShownRow } from '../request/queries.ts';
import { meIn, standingOf } from '../request/standing.ts';
import { requests } from '../request/tables.ts';
import { deskOf } from '../settings/queries.ts';
import type { Nameable } from './nameable.ts';
import { type SubjectSql, type SubjectsIn, subjectSql } from './subjectSql.ts';
import { type Looking, workedBy } from './workedBy.ts';

/** A condition taken apart: what the database decides, what of that is so whoever looks and whenever, and what is asked of each row besides. */
interface Asked {
  readonly lasting: SQL | undefined;
  readonly where: SQL | undefined;
  readonly rest: Node | null;
}

/** What a view means, as the database finds it. */
export interface Meant {
  readonly where: SQL | undefined;
  readonly isAll: boolean;
  /** What of that is so whoever looks and whenever, as an index of such rows says it; null where none can. */
  readonly lasting: SQL | null;
  /** What is asked besides. */
  readonly beside: SQL | undefined;
}

/** Names that stand for something else for others, or later. */
const PASSING: ReadonlySet<string> = new Set(['today', 'now', 'me', 'requester', 'door']);

/** Everything that one look through a view needs. */
export class ViewLook {
  readonly db: Reader;
  readonly viewer: Viewer;
  readonly looking: Looking;
  private readonly zone: string;
  private readonly me: ReturnType<typeof meIn>;
  private readonly subjects: SubjectsIn;
  private readonly read = new Map<string, SubjectSql | null>();
  private readonly picked = new Map<string, Picked>();
  private readonly asked = new Map<string, SQL | undefined>();

  constructor(
    readonly view: ViewDesign,
    readonly given: Nameable,
    readonly now: number,
  ) {
    this.looking = given.looking;
    const { db, viewer } = given.looking;
    this.db = db;
    this.viewer = viewer;
    this.zone = deskOf(db).zone;
    this.me = meIn(db, viewer);
    const { registers, fields, vocabularies } = given;
    this.subjects = {
      ...{ registers, fields, zone: this.zone },
      forms: registers.flatMap(({ id }) =>
        formsOf(db, id).map((form) => ({
          id: form.id,
          title: releaseInForce(db, form.id)?.design.title ?? form.draft.title,
        })),
      ),
      vocabularies: (key) => vocabularies.find((each) => each.key === key) ?? { key, name: '', terms: [] },
    };
  }

  /** The requests on which the viewer may read all of some fields; undefined: all there are. */
  private askable(names: readonly string[]): SQL | undefined {
    const key = names.join();
    if (!this.asked.has(key)) this.asked.set(key, this.askableAnew(names));
    return this.asked.get(key);
  }

  private askableAnew(names: readonly string[]): SQL | undefined {
    const asked = this.given.registers.map(({ id }) => ({ id, ...this.given.asking(id)(names) }));
    return asked.every(({ isAll }) => isAll)
      ? undefined
      : or(...asked.map(({ id, where }) => and(eq(requests.registerId, id), where)));
  }

  /** What has to be readable where some things are, and all that the view asks for. */
  private needed(subjects: readonly string[]): readonly string[] {
    const parsed = this.view.when === '' ? null : parseExpression(this.view.when);
    return [...subjects.filter((subject) => !isFact(subject)), ...(parsed?.ok ? namesRead([parsed.value]) : [])];
  }

  /** The requests of which the viewer may read some things, and all that the view asks for: whatever it asks of them. */
  reads(subjects: readonly string[]): SQL | undefined {
    const ids = this.given.registers.map(({ id }) => id);
    return and(
      eq(requests.trial, false),
      inArray(requests.registerId, ids),
      workedBy({ ...this.looking, along: undefined }, requests),
      this.askable(this.needed(subjects)),
    );
  }

  /** Whether that is every request there was or will be of a register. */
  readsAll(registerId: string, subjects: readonly string[]): boolean {
    if (!rightsAt(this.viewer, registerId).includes('read:all')) return false;
    return this.given.asking(registerId)(this.needed(subjects)).isAll;
  }

  /** Whether what is read of a fact or a field is the same for whoever looks. */
  isOpen(subject: string): boolean {
    return isFact(subject) || this.askable([subject]) === undefined;
  }

  /** What is read of a field only where the viewer may read it. */
  private guarded(subject: string, { is, order }: SubjectSql): SubjectSql {
    const where = isFact(subject) ? undefined : this.askable([subject]);
    const guarded = (read: SQL): SQL => (where ? sql`(case when ${where} then ${read} end)` : read);
    return { is: guarded(is), order: guarded(order) };
  }

  /** What is read of a fact or a field; null for what is not there. */
  subject(subject: string): SubjectSql | null {
    let found = this.read.get(subject);
    if (found === undefined) {
      const plain = subjectSql(subject, this.subjects);
      // With its values in place, as an index of it says it: what is asked with others is another thing to SQLite.
      const placed = plain && {
        is: literal(plain.is) ?? plain.is,
        order: literal(plain.order) ?? plain.order,
      };
      this.read.set(subject, (found = placed && this.guarded(subject, placed)));
    }
    return found;
  }

  /** What a condition asks, of requests of which the viewer may read all that it asks for. */
  private parted(condition: string): Asked {
    const nothing = { lasting: undefined, where: undefined, rest: null };
    const parsed = condition === '' ? null : parseExpression(condition);
    if (!parsed) return nothing;
    if (!parsed.ok) return { ...nothing, where: sql`0` };
    const { fields, scope } = this.given;
    const facts = {
      today: CalendarDate.read(dateAt(this.now, this.zone)),
      now: DateTime.read(wallClockAt(this.now, this.zone)),
      me: meOf(this.me),
      zone: this.zone,
      requesterIsOutside: sql`(coalesce((select kind from people where id = ${requests.requesterId}), '') <> 'staff')`,
      door: sql`coalesce((select kind from doors where id = ${requests.doorId}), 'staff')`,
    };
    const { rest } = splitCondition(parsed.value, fields, scope, facts);
    const parts = chainOf(parsed.value, 'and').flatMap((part) => {
      const { where } = splitCondition(part, fields, scope, facts);
      const isPassing = namesRead([part]).some((name) => PASSING.has(name));
      return where ? { where, lasting: isPassing ? null : literal(where) } : [];
    });
    return {
      lasting: and(...parts.flatMap(({ lasting }) => lasting ?? [])),
      where: and(
        ...parts.flatMap(({ where, lasting }) => (lasting ? [] : where)),
        this.askable(namesRead([parsed.value])),
      ),
      rest,
    };
  }

  /**
   * The requests that are meant, as the database finds them; `isAll`: whether all were looked at. `among`: only among these.
   */
  meant(among?: SQL): Meant {
    const { lasting: parts, where, rest } = this.parted(this.view.when);
    const ids = this.given.registers.map(({ id }) => id);
    const lasting = literal(and(eq(requests.trial, false), inArray(requests.registerId, ids), parts));
    const beside = and(workedBy({ ...this.looking, along: undefined }, requests), where, among);
    const base = and(lasting ?? sql`0`, beside);
    if (!rest) return { where: base, isAll: true, lasting, beside };
    const holds = compile(rest, this.given.scope);
    const looked: ShownRow[] = this.db
      .select(SHOWN_COLUMNS)
      .from(requests)
      .where(base)
      .orderBy(desc(requests.createdAt), desc(requests.id))
      .limit(VIEW_LOOKS_AT)
      .all();
    const found = looked.filter((row) => holds(this.slotsOf(row, row.values), null) === true).map(({ id }) => id);
    return {
      where: sql`${requests.id} in (select value from json_each(${JSON.stringify(found)}))`,
      isAll: looked.length < VIEW_LOOKS_AT,
      ...{ lasting: null, beside: undefined },
    };
  }

  /** What conditions read of a request, with its moments as the desk’s clock shows them. */
  private slotsOf(row: ShownRow, values: Values) {
    const register = this.given.registers.find(({ id }) => id === row.registerId) as RegisterRow;
    const at = (ms: number | null): string | null => (ms === null ? null : wallClockAt(ms, this.zone));
    const facts = {
      ...factsOfRequest(this.db, row, register, this.now, { picked: this.pickedIn(register) }),
      ...{ today: dateAt(this.now, this.zone), now: wallClockAt(this.now, this.zone) },
    };
    const standing: RequestStanding = {
      ...standingOf(this.db, row, this.now),
      ...{ arrived: wallClockAt(row.createdAt, this.zone), due: at(row.due), finished: at(row.finishedAt) },
    };
    return standingSlots(this.given.fields, values, facts, standing, this.me);
  }

  /** What the fields of a register pick from, read once. */
  private pickedIn(register: RegisterRow): Picked {
    const picked = this.picked.get(register.id) ?? pickedBy(this.db, register.fields);
    this.picked.set(register.id, picked);
    return picked;
  }

  /** Says which mark a row has: the first whose condition holds of what the viewer reads of it. */
  marker(): (open: OpenRequest<ShownRow>) => number | null {
    const marks = this.view.marks.map(({ when }) => {
      const parsed = parseExpression(when);
      return parsed.ok ? compile(parsed.value, this.given.scope) : (): null => null;
    }) as readonly Compiled[];
    if (marks.length === 0) return () => null;
    return ({ request, reading }) => {
      const slots = this.slotsOf(request, reading.only(request.values));
      const at = marks.findIndex((holds) => holds(slots, null) === true);
      return at === -1 ? null : at;
    };
  }

  /** A field for pictures, where it is one that the view can name; null for none. */
  pictured(key: string | undefined): string | null {
    return key !== undefined && canPicture(key, this.given.fields) ? key : null;
  }

  /** What rows are put together by, in the order of the groups. Two that are called alike are two groups; moments are put together by days. */
  groups(): readonly GroupKey[] {
    const { groups, orders } = this.view;
    return groups.flatMap((subject) => {
      const found = this.subject(subject);
      if (!found) return [];
      const isDay = kindIn(subject, this.given.fields) === 'date-time';
      const down = orders.some((each) => each.of === subject && each.down);
      return [{ subject, is: found.is, order: isDay ? found.is : found.order, down }];
    });
  }
}

interface GroupKey extends SubjectSql {
  readonly subject: string;
  readonly down: boolean;
}
