import type { AnswerOf } from '@tolvek/contract';
import { rightsAt } from '@tolvek/core/people';
import { shapeOfFigure } from '@tolvek/core/report';
import { calledIn, isFact, measured, subjectsOfShape, type ViewShape } from '@tolvek/core/view';
import { said, type Words } from '@tolvek/words';
import { and } from 'drizzle-orm';
import { inList } from '../platform/prepared.ts';
import { registersOnce } from '../register/queries.ts';
import { openRequest } from '../request/open.ts';
import { requests } from '../request/tables.ts';
import { isToldTo, type ServedRow, standingIn } from '../service/served.ts';
import { timesTold } from '../service/times.ts';
import { pointsOf, sayer } from '../view/chartLook.ts';
import { openedRow, rowsOf, sharedBy } from '../view/ledger.ts';
import type { ViewLook } from '../view/viewLook.ts';
import type { Behind, KeptChart, KeptFigure, KeptPart, KeptTable, KeptTimes } from './kept.ts';
import { lookAt, type Reading } from './reading.ts';

export type ToldPart = AnswerOf<'reportCopy'>['parts'][number];

/** To whom something is told. `isOwn`: they gathered it themselves just now, and read all of it. */
interface Telling extends Reading {
  readonly isOwn: boolean;
}

/**
 * What somebody is told of what a report keeps: of requests that they may read with all that is asked of them. What is there
 * no more counts for whoever may read every request of its register.
 */
export const toldTo = (reading: Telling, parts: readonly KeptPart[]): readonly ToldPart[] =>
  parts.map((part) => partTold(reading, part));

function partTold(reading: Telling, part: KeptPart): ToldPart {
  switch (part.is) {
    case 'words':
    case 'missing':
      return part;
    case 'table':
      return tableTold(reading, part);
    case 'chart':
      return chartTold(reading, part);
    case 'figures':
      return figuresTold(reading, part);
    case 'times':
      return servedTold(reading, part);
  }
}

/** Which of those behind a part count, by their places, and how many. Of the others nothing is told, not even that they are there. */
interface Seen {
  readonly counts: (place: number) => boolean;
  readonly total: number;
}

function seenOf(
  { db, isOwn }: Telling,
  look: ViewLook,
  { behind, registers }: { readonly behind: readonly Behind[]; readonly registers: readonly string[] },
  subjects: readonly string[],
): Seen {
  if (isOwn) return { counts: () => true, total: behind.length };
  const ids = behind.map(([id]) => id);
  const found = (where: Parameters<typeof and>[0]): ReadonlySet<string> =>
    new Set(
      db
        .select({ id: requests.id })
        .from(requests)
        .where(and(inList(requests.id, ids), where))
        .all()
        .map(({ id }) => id),
    );
  const [there, read] = [found(undefined), found(look.reads(subjects))];
  const all = registers.map((id) => look.readsAll(id, subjects));
  const counts = behind.map(([id, register]) => (there.has(id) ? read.has(id) : all[register] === true));
  return { counts: (place) => counts[place] === true, total: counts.filter(Boolean).length };
}

type OfView = KeptTable | KeptChart | KeptFigure;

/** What is behind a part of a view, for whoever looks; null where they may not name what it is made of. */
function opened(reading: Telling, part: OfView, shape: ViewShape, more: readonly string[]) {
  const { meant, by } = part;
  const groups = shape.is === 'table' ? meant.groups : [];
  const { look, says } = lookAt(reading, meant, shape, { groups, says: part.design });
  if (!look) return null;
  const subjects = [...subjectsOfShape(shape), ...more, ...(by === null ? [] : [by])];
  const parts = says.map(({ words }) => words);
  return {
    look,
    seen: seenOf(reading, look, part, subjects),
    says:
      by === null
        ? said('views:sentence', { parts })
        : said('reports:saysIn', { parts, what: calledIn(by, look.given.fields) }),
  };
}

const mayNot = ({ title, view }: KeptTable | KeptChart): ToldPart => ({
  ...{ is: 'missing', title, why: said('reports:mayNotRead', { view: view.name }) },
});

function chartTold(reading: Telling, part: KeptChart): ToldPart {
  const found = opened(reading, part, part.shape, []);
  if (!found) return mayNot(part);
  const { look, seen, says } = found;
  const { title, view, shape, fields, more, isAll, places } = part;
  const rows = places.flatMap(([step, beside, figure], place) =>
    seen.counts(place) ? [{ step, part: beside, figure }] : [],
  );
  // What stands for somebody or something is told of by its rows; what can be chosen is known.
  const [had, has] = [places, rows.map((row) => [row.step, row.part] as const)].map((all) => ({
    steps: new Set(all.map(([step]) => step)),
    parts: new Set(all.map(([, beside]) => beside)),
  }));
  const steps = part.steps.flatMap((step, at) => (had?.steps.has(at) && !has?.steps.has(at) ? [] : [{ step, at }]));
  const placeOf = new Map(steps.map(({ at }, place) => [at, place]));
  const parts = part.parts.map((each, at) =>
    had?.parts.has(at) && !has?.parts.has(at) ? { ...each, label: '' } : each,
  );
  return {
    ...{ is: 'chart', title, view, says, shape, fields, parts, more, isAll, total: seen.total },
    steps: steps.map(({ step }) => step),
    points: pointsOf(
      shape,
      rows.map((row) => ({ ...row, step: placeOf.get(row.step) ?? row.step })),
      look.given,
    ),
    without: rows.filter(({ step }) => step === -1).length,
  };
}

function tableTold(reading: Telling, part: KeptTable): ToldPart {
  const { db, viewer, now } = reading;
  const asked = [...part.meant.groups, ...part.meant.orders.map(({ of }) => of)];
  const found = opened(reading, part, { is: 'table' }, asked);
  if (!found) return mayNot(part);
  const { look, seen, says } = found;
  const { title, view, more, isAll } = part;
  const { fields } = look.given;
  const columns = part.columns.flatMap((column, at) =>
    isFact(column.of) || fields.some(({ key }) => key === column.of) ? [{ ...column, at }] : [],
  );
  const place = new Map(part.behind.map(([id], at) => [id, at]));
  const kept = part.rows.filter(({ id }) => seen.counts(place.get(id) ?? -1));
  const rows = rowsOf(
    db,
    kept.map(({ id }) => id),
  );
  const shared = sharedBy(look.looking, rows);
  const known = new Map(rows.map((request) => [request.id, openedRow(viewer, request, shared, now)]));
  return {
    ...{ is: 'table', title, view, says, columns: columns.map(({ label }) => label), more, isAll, total: seen.total },
    rows: kept.flatMap(({ id, cells }) => {
      const one = known.get(id);
      if (!one) return [];
      const { open, row } = one;
      const reads = (of: string): boolean => {
        if (of === 'request.due') return isToldTo(db, open);
        return isFact(of) || open.readable.has(of);
      };
      // What a request is called is made for each reader.
      const shown = columns.map(
        ({ of, at }): Words => (of === 'request.subject' ? row.subject : reads(of) ? (cells[at] ?? '') : ''),
      );
      return [{ number: row.number, subject: row.subject, cells: shown }];
    }),
  };
}

function figuresTold(reading: Telling, { title, figures }: Extract<KeptPart, { is: 'figures' }>): ToldPart {
  const told = figures.flatMap((figure) => {
    const found = figure && opened(reading, figure, shapeOfFigure(figure.measure), []);
    if (!figure || !found || figure.more) return [];
    const { seen, look } = found;
    const held = figure.figures.flatMap((each, place) => (each !== null && seen.counts(place) ? [each] : []));
    const says = sayer(figure.measure.of, look.given)(measured(figure.measure.is, held, seen.total));
    return [{ label: figure.label, said: says, count: seen.total }];
  });
  return { is: 'figures', title, figures: told };
}

/** What is told of kept service times: of requests whose history may be read. Whether one was in time is asked anew. */
function servedTold(reading: Telling, part: KeptTimes): ToldPart {
  const { db } = reading;
  const { title, of, by, shown, days, between, zone, isAll } = part;
  const standings = new Map(Object.entries(part.stages).map(([id, stages]) => [id, standingIn({ stages })]));
  const back = ({ times, ...row }: KeptTimes['rows'][number]): ServedRow => ({
    ...row,
    times: { ...times, stages: new Map(times.stages) },
    standing: standings.get(row.registerId) ?? (() => 'works'),
  });
  const seen = reading.isOwn ? part : readable(reading, part);
  const [only] = Object.values(part.stages);
  const told = timesTold(db, { rows: seen.rows.map(back), between, zone }, { ...days, of, by }, of === '' ? [] : only);
  return { ...{ is: 'times', title, of, by, shown, isAll }, ...told, unread: seen.unread };
}

function readable({ db, viewer, looking }: Reading, { rows, stages }: KeptTimes) {
  const once = registersOnce(db, looking.registers);
  const known = new Map(
    rowsOf(
      db,
      rows.map(({ id }) => id),
    ).map((request) => [request.id, request]),
  );
  const whole = Object.keys(stages).filter((id) =>
    (['read:all', 'history:all'] as const).every((right) => rightsAt(viewer, id).includes(right)),
  );
  let unread = 0;
  const read = rows.flatMap((row) => {
    const request = known.get(row.id);
    if (!request) return whole.includes(row.registerId) ? [withoutPromise(row)] : [];
    const open = openRequest(db, request, viewer, 'list', { registers: once });
    if (!open.relation.isDesk) return [];
    if (!open.may('history')) {
      unread += 1;
      return [];
    }
    return isToldTo(db, open) ? [row] : [withoutPromise(row)];
  });
  return { rows: read, unread };
}

/** A request of which is not told whether it was in time, nor by which row it went. */
const withoutPromise = (row: KeptTimes['rows'][number]) => ({ ...row, inTime: null, isTold: false, row: '' });
