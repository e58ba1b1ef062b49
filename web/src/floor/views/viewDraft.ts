import type { Field } from '@tolvek/core/register';
import {
  canBoard,
  canDate,
  canGroup,
  canMeasure,
  canOrder,
  canPicture,
  canSum,
  isFact,
  subjectsOfShape,
  VIEW_FACTS,
  type ViewDesign,
  type ViewOrder,
  type ViewShape,
} from '@tolvek/core/view';

/** A view as it is when one begins: of some registers, with what tells requests apart, the newest first. */
export const newView = (name: string, of: readonly string[]): ViewDesign => ({
  ...{ name, of, when: '', groups: [], orders: [], marks: [], shapes: [{ is: 'table' }], audience: null },
  columns: ['request.subject', 'request.stage', 'request.handler', 'request.due'].map((each) => ({ of: each })),
});

/** Looks at other registers: what is named and is not there any more goes. */
export function ofRegisters(view: ViewDesign, of: readonly string[], fields: readonly Field[]): ViewDesign {
  const isThere = (subject: string): boolean => isFact(subject) || fields.some(({ key }) => key === subject);
  return {
    ...view,
    of,
    columns: view.columns.filter((each) => isThere(each.of)),
    groups: view.groups.filter(isThere),
    orders: view.orders.filter((each) => isThere(each.of)),
    shapes: shapesLeft(view.shapes.filter((shape) => subjectsOfShape(shape).every(isThere))),
  };
}

/** A view is looked at in one way at least. */
const shapesLeft = (shapes: readonly ViewShape[]): readonly ViewShape[] =>
  shapes.length > 0 ? shapes : [{ is: 'table' }];

/** Groups by something in a place; by nothing ends there. */
export function groupedBy(view: ViewDesign, place: number, subject: string): ViewDesign {
  const before = view.groups.slice(0, place);
  const after = view.groups.slice(place + 1).filter((each) => each !== subject);
  return {
    ...view,
    groups: subject === '' ? before : [...before.filter((each) => each !== subject), subject, ...after],
  };
}

/** Puts in order by something in a place, one way or the other; null takes it away. */
export const orderedBy = (view: ViewDesign, place: number, order: ViewOrder | null): ViewDesign => ({
  ...view,
  orders: [
    ...view.orders.slice(0, place),
    ...(order === null ? [] : [order]),
    ...view.orders.slice(place + 1).filter((each) => each.of !== order?.of),
  ],
});

/** Shows a column last, or hides it. */
export const shows = (view: ViewDesign, subject: string, isShown: boolean): ViewDesign => ({
  ...view,
  columns: isShown
    ? [...view.columns.filter(({ of }) => of !== subject), { of: subject }]
    : view.columns.filter(({ of }) => of !== subject),
});

/** Moves a column so many places to the right; no further than there are places. */
export function moved(view: ViewDesign, subject: string, by: number): ViewDesign {
  const from = view.columns.findIndex(({ of }) => of === subject);
  const to = from + by;
  const column = view.columns[from];
  if (!column || to < 0 || to >= view.columns.length) return view;
  const rest = view.columns.filter(({ of }) => of !== subject);
  return { ...view, columns: [...rest.slice(0, to), column, ...rest.slice(to)] };
}

const CAN = {
  groups: canGroup,
  orders: canOrder,
  boards: canBoard,
  dates: canDate,
  sums: canSum,
  measures: canMeasure,
  pictures: canPicture,
};
type Purpose = 'columns' | keyof typeof CAN;

/** Everything that a view can name for a purpose: facts, then fields. `closed`: facts by which nothing is put together or in order. */
export const subjectsFor = (
  purpose: Purpose,
  fields: readonly Field[],
  closed: readonly string[] = [],
): readonly string[] =>
  [...VIEW_FACTS, ...fields.map(({ key }) => key)].filter((subject) => {
    return purpose === 'columns' || (!closed.includes(subject) && CAN[purpose](subject, fields));
  });

/** Where a column comes from: what everything has, or as its field does. */
export const originOf = (subject: string, fields: readonly Field[]): 'fact' | Field['source'] =>
  fields.find(({ key }) => key === subject)?.source ?? 'fact';
