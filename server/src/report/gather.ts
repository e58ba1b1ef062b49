import {
  type Days,
  dayAfter,
  type ReportDesign,
  type ReportFigure,
  type ReportPart,
  shapeOfFigure,
  type TimesPart,
  type ViewPart,
} from '@tolvek/core/report';
import {
  type ChartShape,
  calledIn,
  conditionBetween,
  isFact,
  narrowed,
  subjectsOfShape,
  type ViewFact,
  type ViewShape,
} from '@tolvek/core/view';
import { said, type Words } from '@tolvek/words';
import { type SQL, sql } from 'drizzle-orm';
import type { Reader } from '../platform/database.ts';
import { requests } from '../request/tables.ts';
import { type ServedRow, servedIn } from '../service/served.ts';
import { chartRows } from '../view/chartLook.ts';
import { rowsOf } from '../view/ledger.ts';
import { viewById } from '../view/savedViews.ts';
import { shownBy } from '../view/shownRows.ts';
import { sayFact } from '../view/viewed.ts';
import type { ViewLook } from '../view/viewLook.ts';
import { keyedPage } from '../view/viewOrder.ts';
import { countedOf } from '../view/viewWay.ts';
import type { Behind, KeptFigure, KeptPart, KeptServed, MissingPart } from './kept.ts';
import { lookAt, type Reading } from './reading.ts';

/** Everything a report tells of some days, as somebody reads it. */
export const gathered = (reading: Reading, { parts }: Pick<ReportDesign, 'parts'>, days: Days): readonly KeptPart[] =>
  parts.map((part) => partOf({ ...reading, days }, part));

interface Gathering extends Reading {
  readonly days: Days;
}

function partOf(on: Gathering, part: ReportPart): KeptPart {
  switch (part.is) {
    case 'words':
      return part;
    case 'view':
      return part.shape.is === 'chart' ? chartOf(on, part, part.shape) : tableOf(on, part);
    case 'figures':
      return { is: 'figures', title: part.title, figures: part.figures.map((figure) => figureOf(on, figure)) };
    case 'times':
      return timesOf(on, part);
  }
}

const missing = (title: string, why: Words): MissingPart => ({ is: 'missing', title, why });

const groupsOf = (shape: ViewShape): readonly string[] =>
  shape.is === 'chart' ? [shape.by, ...(shape.parts === null ? [] : [shape.parts])] : [];

interface Looked {
  readonly look: ViewLook;
  readonly where: SQL | undefined;
  readonly of: Omit<KeptFigure, 'label' | 'measure' | 'figures' | 'behind'>;
}

/** A look through a view, of the days told of. Words: why there is none. */
function lookedAt(
  on: Gathering,
  { view: id, by }: { readonly view: string; readonly by: string | null },
  shape: ViewShape,
): Looked | Words {
  const design = viewById(on.db, id);
  if (!design) return said('reports:viewGone');
  const own = lookAt(on, design, shape);
  if (!own.look) return said('reports:mayNotRead', { view: design.name });
  const { fields, registers } = own.look.given;
  const within = by === null ? [] : [conditionBetween(by, on.days.from, dayAfter(on.days.to), fields)];
  const meant = narrowed(design, within);
  const { look } = lookAt(on, meant, shape, { groups: shape.is === 'table' ? design.groups : groupsOf(shape) });
  if (!look) return said('reports:mayNotRead', { view: design.name });
  const { where, isAll } = look.meant();
  const { more } = countedOf(look, where);
  return {
    ...{ look, where },
    of: {
      ...{ view: { key: id, name: design.name }, design, meant, by, more, isAll },
      registers: registers.map((register) => register.id),
    },
  };
}

const isLooked = (looked: Looked | Words): looked is Looked => typeof looked === 'object' && 'look' in looked;

/** All rows that are meant, with what they hold of something. */
const rowsMeant = (db: Reader, where: SQL | undefined, figure: SQL = sql`null`) =>
  db.all<{ readonly id: string; readonly registerId: string; readonly figure: number | string | null }>(
    sql`select ${requests.id} as id, ${requests.registerId} as registerId, ${figure} as figure from ${requests} where ${where}`,
  );

/** Where the register of a row stands among those looked at. */
const behindOf = ({ registers }: Looked['of'], rows: readonly { readonly id: string; readonly registerId: string }[]) =>
  rows.map(({ id, registerId }): Behind => [id, registers.indexOf(registerId)]);

function tableOf(on: Gathering, part: ViewPart): KeptPart {
  const looked = lookedAt(on, part, part.shape);
  if (!isLooked(looked)) return missing(part.title, looked);
  const { look, where, of } = looked;
  const { columns } = look.view;
  const { page } = keyedPage(look, { where, from: sql`${requests}` }, { most: part.rows });
  const first = rowsOf(
    on.db,
    page.map((keys) => String(keys.at(-1))),
  );
  const all = of.more ? first : rowsMeant(on.db, where);
  const fields = columns.flatMap((each) => (isFact(each.of) ? [] : [each.of]));
  return {
    ...{ is: 'table', title: part.title, ...of, behind: behindOf(of, all) },
    columns: columns.map((each) => ({ of: each.of, label: calledIn(each.of, look.given.fields) })),
    rows: shownBy(look, first).map((row, at) => ({
      id: first[at]?.id ?? '',
      cells: columns.map(
        (each): Words => (isFact(each.of) ? factSaid(each.of, row) : (row.cells[fields.indexOf(each.of)] ?? '')),
      ),
    })),
  };
}

/** What a row says of a fact, with its moments. */
function factSaid(fact: ViewFact, row: ReturnType<typeof shownBy>[number]): Words {
  const moments: Partial<Record<ViewFact, string | null>> = {
    ...{ 'request.arrived': row.arrived, 'request.due': row.due, 'request.finished': row.finished },
  };
  const moment = moments[fact];
  if (moment !== undefined) return moment === null ? '' : said('values:moment', { moment });
  return sayFact(fact, row);
}

function chartOf(on: Gathering, part: ViewPart, shape: ChartShape): KeptPart {
  const { title, by } = part;
  const looked = lookedAt(on, part, shape);
  if (!isLooked(looked)) return missing(title, looked);
  const { look, where, of } = looked;
  const { steps, parts, rows } = of.more
    ? { steps: [], parts: [], rows: [] }
    : chartRows(look, { ...shape, of: shape.measure.of }, where);
  const named = [...subjectsOfShape(shape), by];
  return {
    ...{ is: 'chart', title, ...of, behind: behindOf(of, rows), shape, steps, parts },
    fields: look.given.fields.filter(({ key }) => named.includes(key)),
    places: rows.map(({ step, part: beside, figure }) => [step, beside, figure] as const),
  };
}

function figureOf(on: Gathering, figure: ReportFigure): KeptFigure | null {
  const { label, measure } = figure;
  const looked = lookedAt(on, figure, shapeOfFigure(measure));
  if (!isLooked(looked)) return null;
  const { look, where, of } = looked;
  const read = measure.of === null ? null : look.subject(measure.of);
  const rows = of.more ? [] : rowsMeant(on.db, where, read?.is);
  return {
    ...{ label, measure, ...of, behind: behindOf(of, rows) },
    figures: rows.map((row) => (typeof row.figure === 'number' ? row.figure : null)),
  };
}

function timesOf({ db, viewer, now, days }: Gathering, part: TimesPart): KeptPart {
  const { rows, unread, isAll, registers, between, zone } = servedIn(db, now, viewer, { ...days, of: part.of });
  return {
    ...{ ...part, days, unread, isAll, between, zone, rows: rows.map(writtenDown) },
    stages: Object.fromEntries(
      (part.of === '' ? registers : registers.filter(({ key }) => key === part.of)).map(({ id, stages }) => [
        id,
        stages.map(({ key, label, phase }) => ({ key, label, phase })),
      ]),
    ),
  };
}

const writtenDown = ({ standing: _, times, ...row }: ServedRow): KeptServed => ({
  ...row,
  times: { ...times, stages: [...times.stages] },
});
