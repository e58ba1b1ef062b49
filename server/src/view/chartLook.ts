import type { AnswerOf } from '@tolvek/contract';
import type { Viewer } from '@tolvek/core/people';
import { sayValue } from '@tolvek/core/register';
import {
  beginOf,
  type ChartShape,
  canDate,
  type MeasuredAt,
  measuredTogether,
  stretchesBetween,
  type ViewDesign,
} from '@tolvek/core/view';
import type { Words } from '@tolvek/words';
import { type SQL, sql } from 'drizzle-orm';
import type { Reader } from '../platform/database.ts';
import { requests } from '../request/tables.ts';
import { columnsOf } from './board.ts';
import type { Nameable } from './nameable.ts';
import { beganLook } from './viewed.ts';
import type { ViewLook } from './viewLook.ts';
import type { Key } from './viewOrder.ts';
import { countedOf } from './viewWay.ts';

/** Stretches of time that stand in a chart: of more, the last ones. */
const STEPS = 400;

/** How a figure of a field is said; of how many, as it is. */
export function sayer(of: string | null, { fields }: Pick<Nameable, 'fields'>): (figure: number | null) => Words {
  const field = fields.find(({ key }) => key === of);
  return (figure) => {
    if (figure === null) return '';
    if (!field) return String(figure);
    const { type } = field;
    // A mean can lie between what the field can hold.
    if (type.kind === 'money') return sayValue(field, { minor: Math.round(figure), currency: type.currency });
    return sayValue(field, type.kind === 'number' ? Math.round(figure * 1e4) / 1e4 : Math.round(figure));
  };
}

type Steps = AnswerOf<'lookAtChart'>['steps'];

/** The rows of a chart, each with its place: the step is -1 where they hold no day, and -2 where none stands for them. */
export interface ChartRows {
  readonly steps: Steps;
  readonly parts: Steps;
  readonly rows: readonly (MeasuredAt & { readonly id: string; readonly registerId: string })[];
}

/** What rows are put together by, and the field that holds what is measured of each; null for nothing. */
type Together = Pick<ChartShape, 'by' | 'each' | 'parts'> & { readonly of: string | null };

/** What is read of rows to put them together. `look`: one whose groups are what it goes by. */
function readsOf(look: ViewLook, { of }: Together): SQL {
  const [step, part] = look.groups().map(({ is }) => is);
  const figure = of === null ? null : look.subject(of);
  return sql`${step ?? sql`null`} as step, ${part ?? sql`null`} as part, ${figure?.is ?? sql`null`} as figure`;
}
type Held = Record<'step' | 'part' | 'figure', Key>;

/** The steps and parts of a chart, and where a row stands among them. */
function placesOf(look: ViewLook, shape: Together, where: SQL | undefined, rows: readonly Held[]) {
  const isTime = canDate(shape.by, look.given.fields);
  const days = isTime ? rows.flatMap(({ step }) => (typeof step === 'string' ? [step.slice(0, 10)] : [])) : [];
  let [first, last] = ['9', ''];
  for (const day of days) {
    if (day < first) first = day;
    if (day > last) last = day;
  }
  const steps: Steps = isTime
    ? stretchesBetween(first, last, shape.each, STEPS).map((value) => ({ value, label: value }))
    : columnsOf(look, shape.by, where).map(({ value, label }) => ({ value, label }));
  const parts =
    shape.parts === null ? [] : columnsOf(look, shape.parts, where).map(({ value, label }) => ({ value, label }));
  const placeOf = (among: Steps): ReadonlyMap<Key, number> => new Map(among.map(({ value }, place) => [value, place]));
  const [stepAt, partAt] = [placeOf(steps), placeOf(parts)];
  const began = new Map<string, string>();
  const stepOf = (value: Key): Key => {
    if (!isTime || typeof value !== 'string') return value;
    const day = value.slice(0, 10);
    const begin = began.get(day) ?? beginOf(day, shape.each);
    began.set(day, begin);
    return begin;
  };
  const at = ({ step, part, figure }: Held): MeasuredAt => {
    const along = stepAt.get(stepOf(step)) ?? (isTime && step === null ? -1 : -2);
    const beside = shape.parts === null ? 0 : (partAt.get(part) ?? -2);
    return {
      step: Math.min(along, beside) < 0 ? Math.min(along, beside) : along,
      ...{ part: beside, figure: typeof figure === 'number' ? figure : null },
    };
  };
  return { steps, parts, at };
}

/** What is put together in a chart, before it is. */
export function chartRows(look: ViewLook, shape: Together, where: SQL | undefined): ChartRows {
  const rows = look.db.all<Held & Record<'id' | 'registerId', string>>(
    sql`select ${requests.id} as id, ${requests.registerId} as registerId, ${readsOf(look, shape)} from ${requests} where ${where}`,
  );
  const { steps, parts, at } = placesOf(look, shape, where, rows);
  return { steps, parts, rows: rows.map((row) => ({ id: row.id, registerId: row.registerId, ...at(row) })) };
}

/** What stands in a chart of some rows. */
export const pointsOf = (
  shape: ChartShape,
  rows: readonly MeasuredAt[],
  given: Pick<Nameable, 'fields'>,
): AnswerOf<'lookAtChart'>['points'] => {
  const say = sayer(shape.measure.of, given);
  return measuredTogether(
    shape.measure.is,
    rows.filter(({ step }) => step >= 0),
  ).map((point) => ({ ...point, said: say(point.figure) }));
};

/** What somebody sees of a view as a chart. */
export function lookAtChart(
  db: Reader,
  viewer: Viewer,
  { view, shape }: { readonly view: ViewDesign; readonly shape: ChartShape },
  now: number,
  most?: number,
): AnswerOf<'lookAtChart'> {
  const by = [shape.by, ...(shape.parts === null ? [] : [shape.parts])];
  const { look, ...said } = beganLook(db, viewer, { ...view, groups: by, shapes: [shape] }, now, view);
  const nothing = { steps: [], parts: [], points: [], without: 0, total: 0, more: false, isAll: true };
  if (!look) return { ...nothing, ...said };
  const { where, isAll } = look.meant();
  const counted = countedOf(look, where, { most });
  if (counted.more) return { ...nothing, ...counted, isAll, ...said };
  // Those that hold the same are read once, with how many they are.
  const alike = db.all<Held & { readonly times: number }>(
    sql`select ${readsOf(look, { ...shape, of: shape.measure.of })}, count(*) as times from ${requests} where ${where} group by step, part, figure`,
  );
  const { steps, parts, at } = placesOf(look, { ...shape, of: shape.measure.of }, where, alike);
  const rows = alike.map((row) => ({ ...at(row), times: row.times }));
  return {
    ...{ steps, parts, ...counted, isAll, ...said },
    points: pointsOf(shape, rows, look.given),
    without: rows.reduce((n, { step, times }) => (step === -1 ? n + times : n), 0),
  };
}
