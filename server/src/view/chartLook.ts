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
import { beganLook, countedOf } from './viewed.ts';
import type { ViewLook } from './viewLook.ts';
import type { Key } from './viewOrder.ts';

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

/** What is put together in a chart, before it is. `look`: one whose groups are what it goes by. */
export function chartRows(look: ViewLook, shape: Together, where: SQL | undefined): ChartRows {
  const [step, part] = look.groups().map(({ is }) => is);
  const figure = shape.of === null ? null : look.subject(shape.of);
  const rows = look.db.all<Record<'step' | 'part' | 'figure', Key> & Record<'id' | 'registerId', string>>(
    sql`select ${requests.id} as id, ${requests.registerId} as registerId, ${step ?? sql`null`} as step, ${part ?? sql`null`} as part, ${figure?.is ?? sql`null`} as figure from ${requests} where ${where}`,
  );
  const isTime = canDate(shape.by, look.given.fields);
  const stepOf = (value: Key): Key =>
    isTime && typeof value === 'string' ? beginOf(value.slice(0, 10), shape.each) : value;
  const days = isTime
    ? rows.flatMap((row) => (typeof row.step === 'string' ? [row.step.slice(0, 10)] : [])).sort()
    : [];
  const steps: Steps = isTime
    ? stretchesBetween(days[0] ?? '9', days.at(-1) ?? '', shape.each, STEPS).map((value) => ({ value, label: value }))
    : columnsOf(look, shape.by, where).map(({ value, label }) => ({ value, label }));
  const parts =
    shape.parts === null ? [] : columnsOf(look, shape.parts, where).map(({ value, label }) => ({ value, label }));
  const placeOf = (among: Steps): ReadonlyMap<Key, number> => new Map(among.map(({ value }, place) => [value, place]));
  const [stepAt, partAt] = [placeOf(steps), placeOf(parts)];
  return {
    ...{ steps, parts },
    rows: rows.map((row) => {
      const at = stepAt.get(stepOf(row.step)) ?? (isTime && row.step === null ? -1 : -2);
      const beside = shape.parts === null ? 0 : (partAt.get(row.part) ?? -2);
      return {
        ...{
          id: row.id,
          registerId: row.registerId,
          step: Math.min(at, beside) < 0 ? Math.min(at, beside) : at,
          part: beside,
        },
        figure: typeof row.figure === 'number' ? row.figure : null,
      };
    }),
  };
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
): AnswerOf<'lookAtChart'> {
  const by = [shape.by, ...(shape.parts === null ? [] : [shape.parts])];
  const { look, ...said } = beganLook(db, viewer, { ...view, groups: by, shapes: [shape] }, now, view);
  const nothing = { steps: [], parts: [], points: [], without: 0, total: 0, more: false, isAll: true };
  if (!look) return { ...nothing, ...said };
  const { where, isAll } = look.meant();
  const counted = countedOf(look, where);
  if (counted.more) return { ...nothing, ...counted, isAll, ...said };
  const { steps, parts, rows } = chartRows(look, { ...shape, of: shape.measure.of }, where);
  return {
    ...{ steps, parts, ...counted, isAll, ...said },
    points: pointsOf(shape, rows, look.given),
    without: rows.filter(({ step }) => step === -1).length,
  };
}
