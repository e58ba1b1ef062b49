import type { AnswerOf } from '@tolvek/contract';
import type { Viewer } from '@tolvek/core/people';
import { type FieldValue, priorities, sayValue } from '@tolvek/core/register';
import type { BoardShape, ViewDesign } from '@tolvek/core/view';
import { said, type Words } from '@tolvek/words';
import { type SQL, sql } from 'drizzle-orm';
import type { Reader } from '../platform/database.ts';
import { requests } from '../request/tables.ts';
import { rowsOf } from './ledger.ts';
import type { Nameable } from './nameable.ts';
import { shownBy } from './shownRows.ts';
import { beganLook, groupsOf } from './viewed.ts';
import { ViewLook } from './viewLook.ts';
import { type Key, keyAt, ordersOf } from './viewOrder.ts';
import { countedOf } from './viewWay.ts';

/** Slips that stand in one place of a board; of more it is said how many they are. */
const SLIPS = 30;
/** Slips of a whole board. */
const SLIPS_IN_ALL = 900;

interface Value {
  readonly value: Key;
  readonly label: Words;
}

/** The values there are of something, in their order, whether anything has them or not; none where that is not known. */
function valuesOf(subject: string, { fields, known, registers }: Nameable): readonly Value[] {
  if (subject === 'request.stage') {
    const stages = new Map(registers.flatMap((register) => register.stages.map(({ key, label }) => [key, label])));
    return [...stages].map(([value, label]) => ({ value, label }));
  }
  if (subject === 'request.priority') return priorities.map((value) => ({ value, label: said(`priorities:${value}`) }));
  if (subject === 'request.form') return (known.forms ?? []).map(({ key, label }) => ({ value: key, label }));
  const field = fields.find(({ key }) => key === subject);
  const say = (value: FieldValue): Words => (field ? sayValue(field, value) : '');
  switch (field?.type.kind) {
    case 'choice':
      return field.type.options.filter(({ retired }) => !retired).map(({ key, label }) => ({ value: key, label }));
    case 'level':
      return field.type.levels.filter(({ retired }) => !retired).map(({ worth, label }) => ({ value: worth, label }));
    case 'yes-no':
      return [
        { value: 1, label: say(true) },
        { value: 0, label: say(false) },
      ];
    default:
      return [];
  }
}

/** The values there are, and others that something has; nothing entered is last. With how many have each, and what they add up to. */
export function columnsOf(look: ViewLook, subject: string, where: SQL | undefined): AnswerOf<'lookAtBoard'>['columns'] {
  const { groups } = groupsOf(new ViewLook({ ...look.view, groups: [subject] }, look.given, look.now), where);
  const counted = new Map(
    groups.map(({ id, path, count, sums }) => {
      const [value = null] = JSON.parse(id) as readonly Key[];
      return [value, { value, label: path[0] ?? '', count, sums }];
    }),
  );
  const known = valuesOf(subject, look.given);
  const isKnown = new Set(known.map(({ value }) => value));
  return [
    ...known.map((each) => ({ count: 0, sums: [], ...counted.get(each.value), ...each })),
    ...[...counted.values()].filter(({ value }) => !isKnown.has(value)),
  ];
}

/** What somebody sees of a view as a board: its columns and lanes, and the first slips in each place. */
export function lookAtBoard(
  db: Reader,
  viewer: Viewer,
  { view, shape }: { readonly view: ViewDesign; readonly shape: BoardShape },
  now: number,
  most?: number,
): AnswerOf<'lookAtBoard'> {
  const by = [shape.by, ...(shape.lanes === null ? [] : [shape.lanes])];
  const { look, ...said } = beganLook(db, viewer, { ...view, groups: by, shapes: [shape] }, now, view);
  const nothing = { columns: [], lanes: [], places: [], total: 0, more: false, isAll: true };
  if (!look) return { ...nothing, ...said };
  const { where, isAll } = look.meant();
  const counted = countedOf(look, where, { most });
  if (counted.more) return { ...nothing, ...counted, isAll, ...said };
  const columns = columnsOf(look, shape.by, where);
  const lanes = shape.lanes === null ? [] : columnsOf(look, shape.lanes, where);
  const { orders } = ordersOf(new ViewLook({ ...look.view, groups: [] }, look.given, now));
  const order = orders.flatMap(({ read, down }) => [sql`${read} is null`, down ? sql`${read} desc` : read]);
  const keys = look.groups().map(({ is }) => is);
  const found = db.all<Record<string, Key>>(
    sql`select * from (select ${requests.id} as id, ${sql.join(
      keys.map((is, place) => sql`${is} as ${keyAt(place)}`),
      sql`, `,
    )}, row_number() over (partition by ${sql.join(keys, sql`, `)} order by ${sql.join(order, sql`, `)}) as place from ${requests} where ${where}) where place <= ${SLIPS} order by place limit ${SLIPS_IN_ALL}`,
  );
  const placesOf = (values: AnswerOf<'lookAtBoard'>['columns']): ReadonlyMap<Key, number> =>
    new Map(values.map(({ value }, place) => [value, place]));
  const [columnAt, laneAt] = [placesOf(columns), placesOf(lanes)];
  const placeOf = (column: Key = null, lane: Key = null) => ({
    column: columnAt.get(column) ?? -1,
    lane: shape.lanes === null ? 0 : (laneAt.get(lane) ?? -1),
  });
  const slips = rowsOf(
    db,
    found.map(({ id }) => String(id)),
  );
  const standing = new Map(found.map(({ id, k0, k1 }) => [String(id), placeOf(k0, k1)]));
  const shown = shownBy(look, slips).map((row, nth) => ({ row, at: standing.get(slips[nth]?.id ?? '') }));
  const { groups } = groupsOf(look, where);
  return {
    ...{ columns, lanes, ...counted, isAll, ...said },
    places: groups.map(({ id, count }) => {
      const place = placeOf(...(JSON.parse(id) as readonly Key[]));
      const here = shown.filter(({ at }) => at?.column === place.column && at.lane === place.lane);
      return { ...place, count, rows: here.map(({ row }) => row) };
    }),
  };
}
