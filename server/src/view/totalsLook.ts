import type { AnswerOf } from '@tolvek/contract';
import { grouped } from '@tolvek/core/own';
import type { Viewer } from '@tolvek/core/people';
import {
  type Given,
  kindIn,
  narrowed,
  subjectsOfTotal,
  type Total,
  type TotalsShape,
  totalled,
  type ViewDesign,
} from '@tolvek/core/view';
import { said, type Words } from '@tolvek/words';
import { type SQL, sql } from 'drizzle-orm';
import type { Reader } from '../platform/database.ts';
import { requests } from '../request/tables.ts';
import { chartRows, sayer } from './chartLook.ts';
import type { Nameable } from './nameable.ts';
import { beganLook } from './viewed.ts';
import { ViewLook } from './viewLook.ts';
import type { Key } from './viewOrder.ts';
import { countedOf } from './viewWay.ts';

const MINUTES = 60;

type Line = AnswerOf<'lookAtTotals'>['lines'][number];
type Row = ReturnType<typeof chartRows>['rows'][number];

/** What each row gives to a total, by the row’s id, and whether all rows were looked at for it. */
interface Giving {
  readonly give: (id: string) => Given;
  readonly isAll: boolean;
}

function giving(look: ViewLook, total: Total, where: SQL | undefined): Giving {
  if (total.is === 'share') {
    // What one may not ask for of a row says neither yes nor no of it.
    const asked = new ViewLook(narrowed(look.view, [`(${total.when})`]), look.given, look.now);
    const meant = asked.meant();
    const meets = idsOf(look, meant.where);
    const sayable = idsOf(look, sql`${where} and ${asked.reads([]) ?? sql`1`}`);
    return { give: (id) => (sayable.has(id) ? meets.has(id) : null), isAll: meant.isAll };
  }
  const subjects = subjectsOfTotal(total);
  if (subjects.length === 0) return { give: () => 0, isAll: true };
  const reads = subjects.map((subject, at) => sql`${look.subject(subject)?.is ?? sql`null`} as ${sql.raw(`f${at}`)}`);
  const rows = look.db.all<Record<'id' | 'f0' | 'f1', Key>>(
    sql`select ${requests.id} as id, ${sql.join(reads, sql`, `)} from ${requests} where ${where}`,
  );
  const isHours = total.is === 'rate' && kindIn(total.per, look.given.fields) === 'duration';
  const found = new Map<string, Given>(
    rows.map(({ id, f0, f1 }) => [
      String(id),
      total.is !== 'rate'
        ? figureOf(f0)
        : typeof f0 === 'number' && typeof f1 === 'number'
          ? [f0, isHours ? f1 / MINUTES : f1]
          : null,
    ]),
  );
  return { give: (id) => found.get(id) ?? null, isAll: true };
}

const figureOf = (held: Key): number | null => (typeof held === 'number' ? held : null);

const idsOf = (look: ViewLook, where: SQL | undefined): ReadonlySet<string> =>
  new Set(
    look.db
      .all<{ readonly id: string }>(sql`select ${requests.id} as id from ${requests} where ${where}`)
      .map(({ id }) => id),
  );

/** How a total is said. */
function sayTotal(total: Total, given: Pick<Nameable, 'fields'>): (figure: number | null) => Words {
  if (total.is === 'share')
    return (figure) => (figure === null ? '' : said('service:percent', { share: Math.round(figure * 1_000) / 10 }));
  return sayer(total.of, given);
}

/** What somebody sees of a view as totals. */
export function lookAtTotals(
  db: Reader,
  viewer: Viewer,
  { view, shape }: { readonly view: ViewDesign; readonly shape: TotalsShape },
  now: number,
  most?: number,
): AnswerOf<'lookAtTotals'> {
  const by = [shape.by, ...(shape.parts === null ? [] : [shape.parts])];
  const { look, ...said } = beganLook(db, viewer, { ...view, groups: by, shapes: [shape] }, now, view);
  const nothing = { steps: [], parts: [], lines: [], total: 0, more: false, isAll: true };
  if (!look) return { ...nothing, ...said };
  const { where, isAll } = look.meant();
  const counted = countedOf(look, where, { most });
  if (counted.more) return { ...nothing, ...counted, isAll, ...said };
  const placed = chartRows(look, { by: shape.by, each: shape.each, parts: shape.parts, of: null }, where);
  const rows = placed.rows.filter(({ step, part }) => step >= -1 && part >= 0);
  const totals = shape.totals.map((total) => ({
    ...{ total, ...giving(look, total, where), say: sayTotal(total, look.given) },
  }));
  const line = (step: number | null, part: number | null, some: readonly Row[]): Line => ({
    ...{ step, part, count: some.length },
    totals: totals.map(({ total, give, say }) => {
      const figure = totalled(
        total,
        some.map(({ id }) => give(id)),
      );
      return { figure, said: say(figure) };
    }),
  });
  const bySteps = grouped(rows, ({ step }) => step);
  const places = [...placed.steps.keys(), ...(bySteps.has(-1) ? [-1] : [])];
  return {
    ...{ steps: placed.steps, parts: placed.parts, ...counted, ...said },
    isAll: isAll && totals.every((each) => each.isAll),
    lines: [
      ...places.flatMap((step) => {
        const some = bySteps.get(step) ?? [];
        const byParts = grouped(some, ({ part }) => part);
        const within = placed.parts.flatMap((_, part) => {
          const there = byParts.get(part);
          return there ? [line(step, part, there)] : [];
        });
        return [line(step, null, some), ...within];
      }),
      line(null, null, rows),
    ],
  };
}
