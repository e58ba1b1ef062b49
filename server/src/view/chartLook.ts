import type { AnswerOf } from '@tolvek/contract';
import type { Viewer } from '@tolvek/core/people';
import { sayValue } from '@tolvek/core/register';
import { beginOf, type ChartShape, canDate, measured, stretchesBetween, type ViewDesign } from '@tolvek/core/view';
import type { Words } from '@tolvek/words';
import { sql } from 'drizzle-orm';
import type { Reader } from '../platform/database.ts';
import { requests } from '../request/tables.ts';
import { columnsOf } from './board.ts';
import type { Nameable } from './nameable.ts';
import { beganLook, countedOf, type Key } from './viewed.ts';

/** Stretches of time that stand in a chart: of more, the last ones. */
const STEPS = 400;

/** How a figure of a field is said; of how many, as it is. */
export function sayer(of: string | null, { fields }: Nameable): (figure: number | null) => Words {
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
  const [step, part] = look.groups().map(({ is }) => is);
  const figure = shape.measure.of === null ? null : look.subject(shape.measure.of);
  const rows = db.all<Record<'step' | 'part' | 'figure', Key>>(
    sql`select ${step ?? sql`null`} as step, ${part ?? sql`null`} as part, ${figure?.is ?? sql`null`} as figure from ${requests} where ${where}`,
  );
  const isTime = canDate(shape.by, look.given.fields);
  const stepOf = (value: Key): Key =>
    isTime && typeof value === 'string' ? beginOf(value.slice(0, 10), shape.each) : value;
  const days = isTime
    ? rows.flatMap((row) => (typeof row.step === 'string' ? [row.step.slice(0, 10)] : [])).sort()
    : [];
  const steps: AnswerOf<'lookAtChart'>['steps'] = isTime
    ? stretchesBetween(days[0] ?? '9', days.at(-1) ?? '', shape.each, STEPS).map((value) => ({ value, label: value }))
    : columnsOf(look, shape.by, where).map(({ value, label }) => ({ value, label }));
  const parts =
    shape.parts === null ? [] : columnsOf(look, shape.parts, where).map(({ value, label }) => ({ value, label }));
  const placeOf = (among: readonly { readonly value: Key }[]): ReadonlyMap<Key, number> =>
    new Map(among.map(({ value }, place) => [value, place]));
  const [stepAt, partAt] = [placeOf(steps), placeOf(parts)];
  const together = new Map<
    string,
    { readonly step: number; readonly part: number; figures: number[]; count: number }
  >();
  for (const row of rows) {
    const at = { step: stepAt.get(stepOf(row.step)), part: shape.parts === null ? 0 : partAt.get(row.part) };
    if (at.step === undefined || at.part === undefined) continue;
    const key = `${at.step} ${at.part}`;
    const found = together.get(key) ?? { step: at.step, part: at.part, figures: [], count: 0 };
    found.count += 1;
    if (typeof row.figure === 'number') found.figures.push(row.figure);
    together.set(key, found);
  }
  const say = sayer(shape.measure.of, look.given);
  return {
    ...{ steps, parts, ...counted, isAll, ...said },
    points: [...together.values()].map(({ figures, count, ...place }) => {
      const value = measured(shape.measure.is, figures, count);
      return { ...place, figure: value, said: say(value), count };
    }),
    without: isTime ? rows.filter((row) => row.step === null).length : 0,
  };
}
