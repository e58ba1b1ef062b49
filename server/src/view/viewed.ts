import type { AnswerOf, BodyOf } from '@tolvek/contract';
import type { Viewer } from '@tolvek/core/people';
import { sayValue } from '@tolvek/core/register';
import { canSum, isFact, kindIn, VIEW, type ViewDesign, type ViewFact } from '@tolvek/core/view';
import { said, type Words } from '@tolvek/words';
import { type SQL, sql } from 'drizzle-orm';
import type { Reader } from '../platform/database.ts';
import { requests } from '../request/tables.ts';
import { openedRow, rowsOf, sharedBy } from './ledger.ts';
import { aroundView, type Nameable, nameableIn, saysOf } from './nameable.ts';
import { rowsShown } from './shownRows.ts';
import { groupsIn, heldBy, indexedPage, keyIn, orderedBy, type ViewIndex } from './viewIndex.ts';
import { ViewLook } from './viewLook.ts';
import { type Key, keyedPage } from './viewOrder.ts';
import { countedAlong, countedOf, type Way, wayOf } from './viewWay.ts';
import { lookingAt, readsMost } from './workedBy.ts';

/** Rows that are counted, put in groups and added up while a page waits; of more it is said that they are more. */
const AT_ONCE = 2_000;
/** The same off the thread that answers. */
export const IN_TIME = 2_000_000;
const GROUPS = 500;

/** What a row says of a fact, but for moments: they are said by whoever knows how. */
export function sayFact(fact: ViewFact, row: ReturnType<typeof openedRow>['row']): Words {
  switch (fact) {
    case 'request.number':
      return row.number;
    case 'request.subject':
      return row.subject;
    case 'requester.person':
      return row.requester;
    case 'request.form':
      return row.form;
    case 'request.stage':
      return row.stage.label;
    case 'request.team':
      return row.team;
    case 'request.handler':
      return row.handler ?? '';
    case 'request.priority':
      return row.priority === null ? '' : said(`priorities:${row.priority}`);
    default:
      return '';
  }
}

/** What a group is called, by one of its requests. */
function calledBy(look: ViewLook, subject: string, is: Key, one: ReturnType<typeof openedRow>): Words {
  const { open, row } = one;
  if (is === null) return '';
  if (kindIn(subject, look.given.fields) === 'date-time') return said('values:date', { day: String(is) });
  if (isFact(subject)) return sayFact(subject, row);
  const [cell = ''] = open.cellsOf([subject]);
  return cell;
}

type Looked = AnswerOf<'lookThrough'>;

/** Adds up columns: what SQL reads for it, and how a sum is said. */
function summing(look: ViewLook) {
  const { fields } = look.given;
  return look.view.columns.flatMap(({ of }, place) => {
    const field = canSum(of, fields) ? fields.find(({ key }) => key === of) : undefined;
    const found = field && look.subject(of);
    if (!field || !found) return [];
    const say = (sum: number | null): Words => {
      if (sum === null) return '';
      return sayValue(field, field.type.kind === 'money' ? { minor: sum, currency: field.type.currency } : sum);
    };
    return [{ place, read: found.is, say }];
  });
}

/** Groups in their order, each with what it is, how many rows are in it, one of them, and sums. */
function groupedBy(
  look: ViewLook,
  where: SQL | undefined,
  added: readonly SQL[],
  { from, index }: Pick<Way, 'from' | 'index'>,
): readonly Readonly<Record<string, Key>>[] {
  const found = look.groups();
  const told = sql.join([sql`count(*) as n`, sql`min(${requests.id}) as one`, ...added], sql`, `);
  const named = (reads: readonly SQL[], name: string): readonly SQL[] =>
    reads.map((read, place) => sql`${read} as ${sql.raw(`${name}${place}`)}`);
  if (index) {
    // They stand together there, and in their order.
    const keys = groupsIn(look);
    const are = keys.flatMap((key, place) => (place % 2 === 1 ? [heldBy(key)] : []));
    const by = sql.join(keys.map(heldBy), sql`, `);
    const order = sql.join(keys.map(orderedBy), sql`, `);
    return look.db
      .all<Record<string, Key | Buffer>>(
        sql`select ${sql.join([...named(are, 'g'), told], sql`, `)} from ${from} where ${where} group by ${by} order by ${order} limit ${GROUPS + 1}`,
      )
      .map((row) => Object.fromEntries(Object.entries(row).map(([name, held]) => [name, keyIn(held)])));
  }
  const by = found.map((_, place) => sql.raw(`g${place}`));
  const order = found.flatMap(({ order: read, down }, place) => [
    sql`min(${read}) is null`,
    down ? sql`min(${read}) desc` : sql`min(${read})`,
    sql.raw(`g${place}`),
  ]);
  const are = named(
    found.map(({ is }) => is),
    'g',
  );
  // The outer groups are in the order of the least of all that is in them, and that is the order of what they are.
  return look.db.all<Record<string, Key>>(
    sql`select ${sql.join([...are, told], sql`, `)} from ${from} where ${where} group by ${sql.join(by, sql`, `)} order by ${sql.join(order, sql`, `)} limit ${GROUPS + 1}`,
  );
}

/** The groups of a view with how many rows are in each and what its columns add up to. */
export function groupsOf(
  look: ViewLook,
  where: SQL | undefined,
  by: Pick<Way, 'from' | 'index'> = { from: sql`${requests}`, index: null },
): Pick<Looked, 'groups' | 'moreGroups' | 'sums'> {
  const { db, viewer } = look;
  const sums = summing(look);
  const found = look.groups();
  const added = sums.map(({ read }, place) => sql`sum(${read}) as ${sql.raw(`s${place}`)}`);
  const told = (row: Readonly<Record<string, Key>>): Looked['sums'] =>
    sums.map(({ place, say }, at) => ({ column: place, sum: say(row[`s${at}`] as number | null) }));
  const all =
    sums.length === 0
      ? {}
      : db.get<Record<string, Key>>(sql`select ${sql.join(added, sql`, `)} from ${by.from} where ${where}`);
  if (found.length === 0) return { groups: [], moreGroups: false, sums: told(all) };
  const rows = groupedBy(look, where, added, by);
  const shown = rows.slice(0, GROUPS);
  const some = rowsOf(
    db,
    shown.map(({ one }) => String(one)),
  );
  const shared = sharedBy(look.looking, some);
  const known = new Map(some.map((row) => [row.id, openedRow(viewer, row, shared, look.now)]));
  return {
    groups: shown.flatMap((row) => {
      const one = known.get(String(row.one));
      const is = found.map((_, place) => row[`g${place}`] ?? null);
      return one
        ? [
            {
              id: JSON.stringify(is),
              path: found.map(({ subject }, place) => calledBy(look, subject, is[place] ?? null, one)),
              count: Number(row.n),
              sums: told(row),
            },
          ]
        : [];
    }),
    moreGroups: rows.length > GROUPS,
    sums: told(all),
  };
}

/**
 * A look through a view, with what its sentence says and what is wrong. What somebody may not ask for is answered as what
 * is not there: there is no look then. `says`: the view whose sentence it is, where it is looked through in a shape.
 */
export const beganLook = (db: Reader, viewer: Viewer, view: ViewDesign, now: number, says = view) =>
  beganWith(nameableIn(lookingAt(db, viewer), view.of), view, now, says);

/** The same where it is known what the view can name. */
export function beganWith(given: Nameable, view: ViewDesign, now: number, says = view) {
  const findings = VIEW.findings(view, aroundView(given)).map(({ at, message }) => ({ at, message }));
  const isWrong = findings.some(({ at }) => at !== 'name' && at !== 'audience');
  return { look: isWrong ? null : new ViewLook(view, given, now), findings, says: [...saysOf(says, given)] };
}

/** How many rows are in a view, counted up to so many, with its groups and sums where it has no more. */
function summaryOf(look: ViewLook, way: Way, most: number): AnswerOf<'addUpView'> {
  const { where, index } = way;
  const counted =
    index && most === AT_ONCE && !readsMost(look.viewer)
      ? countedAlong(look, way, most)
      : countedOf(look, where, { most, from: way.from });
  return counted.more
    ? { ...counted, groups: [], moreGroups: look.view.groups.length > 0, sums: [] }
    : { ...counted, ...groupsOf(look, where, way) };
}

interface LookAsked {
  readonly view: ViewDesign;
  readonly after?: string | undefined;
  readonly most: number;
  readonly picture?: string | undefined;
}

/**
 * A page of what somebody sees through a view; the first one tells how many there are as well, and groups and sums of
 * few. What they may not ask for is answered as what is not there: such a view shows nothing, and says what has to be
 * changed. `wants`: told the index by which the view is found, whether it is there or not.
 */
export function lookThrough(
  db: Reader,
  viewer: Viewer,
  { view, after, most, picture }: LookAsked,
  now: number,
  wants: (index: ViewIndex) => void = () => undefined,
): Looked {
  const { look, ...said } = beganLook(db, viewer, view, now);
  if (!look) return { ...{ rows: [], isAll: true, next: null }, ...noSummary(), ...said };
  const way = wayOf(look);
  const { index, wanted, isAll } = way;
  if (wanted && after === undefined) wants(wanted);
  const { page, next, groupAt } = index
    ? indexedPage(look, way, index, { after, most })
    : keyedPage(look, way, { after, most });
  return {
    rows: rowsShown(look, page, groupAt, picture),
    ...(after === undefined ? summaryOf(look, way, AT_ONCE) : noSummary()),
    ...{ isAll, next, ...said },
  };
}

/** How many rows are in a view, its groups, and what they add up to, however many there are. */
export function addUpView(
  db: Reader,
  viewer: Viewer,
  { view }: BodyOf<'addUpView'>,
  now: number,
): AnswerOf<'addUpView'> {
  const { look } = beganLook(db, viewer, view, now);
  if (!look) return noSummary();
  return summaryOf(look, wayOf(look), IN_TIME);
}

const noSummary = (): AnswerOf<'addUpView'> => ({ groups: [], moreGroups: false, sums: [], total: 0, more: false });
