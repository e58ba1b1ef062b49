import { type Said, said, type Words } from '@tolvek/words';
import {
  compareContents,
  type DesignFinding,
  type DesignKind,
  type MergeRules,
  mergeContents,
} from '../design/index.ts';
import { type Field, namedIn } from '../register/index.ts';
import { calledIn, canBoard, canDate, canGroup, canMeasure, canOrder, canPicture, canSum, kindIn } from './subjects.ts';
import { subjectsOfTotal, subjectsOfView, type ViewDesign, type ViewShape } from './view.ts';

const PLACES: Readonly<Record<string, Said>> = {
  name: said('views:theName'),
  of: said('views:theRegisters'),
  when: said('views:theCondition'),
  columns: said('views:theColumns'),
  groups: said('views:theGroups'),
  orders: said('views:theOrder'),
  marks: said('views:theMarks'),
  shapes: said('views:theShapes'),
  audience: said('views:theAudience'),
};

const RULES: MergeRules = {
  lists: { columns: (item) => String(item.of), orders: (item) => String(item.of) },
  nameOf: ([place = '']) => PLACES[place] ?? said('views:theView'),
};

/** What findings of a view depend on besides it, for who looks: what they may not ask for is not there. */
export interface AroundView {
  /** Keys of the registers there are. */
  readonly registers: readonly string[];
  /** The fields that those it names share. */
  readonly fields: readonly Field[];
  /** Facts that would tell of what they may not ask for: nothing is put together or in order by them. */
  readonly closed: readonly string[];
  /** What is wrong in a condition; null for nothing. */
  readonly unreadable: (condition: string) => Words | null;
}

/** What a shape can’t be made by, though it is there. */
function* unshaped(
  shape: ViewShape,
  can: Readonly<Record<'board' | 'date' | 'sum' | 'measure' | 'picture', (of: string) => boolean>>,
): Generator<string> {
  const made = shape.is === 'board' ? [shape.by, shape.lanes] : shape.is === 'calendar' ? [shape.lines] : [];
  const dated = shape.is === 'calendar' ? [shape.from, shape.to] : [];
  if (shape.is === 'gallery' && !can.picture(shape.picture)) yield shape.picture;
  if (shape.is === 'chart' || shape.is === 'totals') {
    const { by, parts } = shape;
    const summed = shape.is === 'chart' ? subjectsOfTotal(shape.measure) : shape.totals.flatMap(subjectsOfTotal);
    if (!can.board(by) && !can.date(by)) yield by;
    if (parts !== null && !can.board(parts)) yield parts;
    for (const subject of summed) if (!can.sum(subject)) yield subject;
  }
  if (shape.is === 'matrix') {
    const { down, across, cell, fresh } = shape;
    for (const subject of [down, across]) if (!can.board(subject)) yield subject;
    const isCompared = cell.is === 'least' || cell.is === 'most';
    if (cell.of !== null && cell.is !== 'newest' && !(isCompared ? can.measure : can.sum)(cell.of)) yield cell.of;
    if (fresh !== null && !can.date(fresh.of)) yield fresh.of;
  }
  for (const subject of made) if (subject !== null && !can.board(subject)) yield subject;
  for (const subject of dated) if (subject !== null && !can.date(subject)) yield subject;
}

/** Whether a shape is made by one thing in two places. */
const isTwice = (shape: ViewShape): boolean =>
  (shape.is === 'board' && shape.lanes === shape.by) ||
  ((shape.is === 'chart' || shape.is === 'totals') && shape.parts === shape.by) ||
  (shape.is === 'matrix' && shape.down === shape.across);

type Found = readonly [at: string, message: Said];

function* foundIn(view: ViewDesign, { registers, fields, closed, unreadable }: AroundView): Generator<Found> {
  const { name, of, when, columns, groups, orders, marks, shapes, audience } = view;
  const isThere = (subject: string): boolean => kindIn(subject, fields) !== null;
  const called = (subject: string): Words => calledIn(subject, fields);
  if (name.trim() === '') yield ['name', said('views:noName')];
  if (of.length === 0 || of.some((key) => !registers.includes(key))) yield ['of', said('views:noRegister')];
  const wrong = when === '' ? null : unreadable(when);
  if (wrong !== null) yield ['when', said('views:unreadable', { message: wrong })];
  if (columns.length === 0) yield ['columns', said('views:noColumns')];
  const gone = subjectsOfView(view).filter((subject) => !isThere(subject));
  const placeOf = (subject: string): string =>
    columns.some((each) => each.of === subject)
      ? 'columns'
      : groups.includes(subject)
        ? 'groups'
        : orders.some((each) => each.of === subject)
          ? 'orders'
          : 'shapes';
  for (const subject of gone) yield [placeOf(subject), said('views:noField', { field: subject })];
  for (const subject of groups)
    if (isThere(subject) && (closed.includes(subject) || !canGroup(subject, fields)))
      yield ['groups', said('views:noGroup', { what: called(subject) })];
  for (const { of: subject } of orders)
    if (isThere(subject) && (closed.includes(subject) || !canOrder(subject, fields)))
      yield ['orders', said('views:noOrder', { what: called(subject) })];
  for (const list of [columns.map((each) => each.of), groups, orders.map((each) => each.of)])
    if (new Set(list).size < list.length) yield [placeOf(list[0] ?? ''), said('views:twice')];
  if (shapes.length === 0) yield ['shapes', said('views:noShape')];
  const can = {
    board: (subject: string): boolean => !isThere(subject) || (canBoard(subject, fields) && !closed.includes(subject)),
    sum: (subject: string): boolean => !isThere(subject) || canSum(subject, fields),
    measure: (subject: string): boolean => !isThere(subject) || canMeasure(subject, fields),
    date: (subject: string): boolean => !isThere(subject) || (canDate(subject, fields) && !closed.includes(subject)),
    picture: (subject: string): boolean => !isThere(subject) || canPicture(subject, fields),
  };
  for (const [at, shape] of shapes.entries()) {
    for (const subject of unshaped(shape, can))
      yield [`shapes ${at}`, said(`views:cannot.${shape.is}`, { what: called(subject) })];
    if (isTwice(shape)) yield [`shapes ${at}`, said('views:twice')];
    const measures =
      shape.is === 'totals'
        ? shape.totals
        : 'measure' in shape
          ? [shape.measure]
          : 'cell' in shape
            ? [shape.cell]
            : null;
    const isNothing = measures?.some((each) => 'of' in each && (each.of === null) !== (each.is === 'count'));
    if (isNothing || measures?.length === 0) yield [`shapes ${at}`, said('views:noMeasure')];
    for (const total of shape.is === 'totals' ? shape.totals : []) {
      if (total.is !== 'share') continue;
      const message = total.when === '' ? said('views:emptyShare') : unreadable(total.when);
      if (message !== null) yield [`shapes ${at}`, said('views:unreadableShare', { message })];
      if (total.word.trim() === '') yield [`shapes ${at}`, said('views:noShareWord')];
    }
  }
  for (const [at, mark] of marks.entries()) {
    const message = mark.when === '' ? said('views:emptyMark') : unreadable(mark.when);
    if (message !== null) yield [`marks ${at}`, said('views:unreadableMark', { message })];
    if (mark.word.trim() === '') yield [`marks ${at}`, said('views:noWord')];
  }
  if (audience && 'anyOf' in audience.in && audience.in.anyOf.length === 0) yield ['audience', said('views:toNobody')];
}

/** Views as designs. They are in force at once. */
export const VIEW: DesignKind<ViewDesign, AroundView | null> = {
  kind: 'view',
  titleOf: ({ name }) => name,
  compare: (before, after) => compareContents(before, after, RULES),
  merge: (base, mine, theirs) => mergeContents(base, mine, theirs, RULES),
  findings: (view, around): readonly DesignFinding[] =>
    around === null
      ? []
      : [...foundIn(view, around)].map(([at, message]) => ({ severity: 'error', page: 'views', at, message })),
  refersTo: ({ of, audience }) => [
    ...of.map((key) => ({ kind: 'register' as const, key, at: said('views:theRegisters') })),
    ...(audience ? namedIn(audience).map((each) => ({ ...each, at: said('views:theAudience') })) : []),
  ],
};
