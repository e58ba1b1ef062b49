import type { Audience } from '../people/index.ts';
import type { OptionColour } from '../register/index.ts';

/** How many columns, groups, orders and marks a view has at most, and how many registers it looks at. */
export const MOST_OF_VIEW = {
  registers: 8,
  columns: 60,
  groups: 2,
  orders: 4,
  marks: 12,
  shapes: 6,
  totals: 8,
} as const;

/** Requests that are looked at, the newest first, where the database can’t decide which a view means. */
export const VIEW_LOOKS_AT = 5_000;

/** What of every request a view can show, group by and put in order besides its fields. Named as conditions name it. */
export const VIEW_FACTS = [
  'request.number',
  'request.subject',
  'requester.person',
  'request.form',
  'request.stage',
  'request.team',
  'request.handler',
  'request.priority',
  'request.arrived',
  'request.due',
  'request.finished',
] as const;
export type ViewFact = (typeof VIEW_FACTS)[number];

export const isFact = (subject: string): subject is ViewFact => (VIEW_FACTS as readonly string[]).includes(subject);

/** A column: a fact, or a field by its key. */
export interface ViewColumn {
  readonly of: string;
  /** Pixels; as wide as its kind needs when nothing is said. */
  readonly width?: number | undefined;
}

/** In which order rows stand: the first that tells two apart decides. Empty is last, either way round. */
export interface ViewOrder {
  readonly of: string;
  readonly down: boolean;
}

/** Rows that meet a condition have a colour, and the word for it stands beside. */
export interface ViewMark {
  /** FEEL, as the condition of the view. */
  readonly when: string;
  readonly colour: OptionColour;
  readonly word: string;
}

/** Rows and columns. */
export interface TableShape {
  readonly is: 'table';
}

/** A column for each value of one thing, with lanes for each of another: what stands in them is moved from one to the other. */
export interface BoardShape {
  readonly is: 'board';
  readonly by: string;
  readonly lanes: string | null;
}

/** Days, with what begins on them, or lasts from one to the other; with a line for each value of a thing. */
export interface CalendarShape {
  readonly is: 'calendar';
  readonly from: string;
  readonly to: string | null;
  readonly lines: string | null;
}

/** By which stretches of time a chart puts days together. */
export const STRETCHES = ['day', 'week', 'month', 'year'] as const;
export type ChartStretch = (typeof STRETCHES)[number];

/** What is measured of the rows that stand together: how many they are, or something of what a field of theirs holds. */
export const MEASURES = ['count', 'sum', 'mean', 'median', 'least', 'most'] as const;
export type MeasureKind = (typeof MEASURES)[number];
export interface Measure {
  readonly is: MeasureKind;
  /** A field that holds figures; null for how many there are. */
  readonly of: string | null;
}

/** What is measured, for each value of one thing or each stretch of time, parted by another. */
export interface ChartShape {
  readonly is: 'chart';
  readonly as: 'bars' | 'line';
  readonly by: string;
  /** Where it is days that it goes by. */
  readonly each: ChartStretch;
  readonly parts: string | null;
  readonly measure: Measure;
}

/** What a cell of a matrix tells of the rows that stand in it: something measured, or what the newest of them holds. */
export const CELLS = [...MEASURES, 'newest'] as const;
export interface MatrixCell {
  readonly is: (typeof CELLS)[number];
  /** A field; null for how many there are. */
  readonly of: string | null;
}

/**
 * Two things across and down, and what is told where they meet. `wanted`: in each column so many cells at least whose figure
 * is so high. `fresh`: what a date older than so many days tells is stale.
 */
export interface MatrixShape {
  readonly is: 'matrix';
  readonly down: string;
  readonly across: string;
  readonly cell: MatrixCell;
  readonly wanted: { readonly figure: number; readonly cells: number } | null;
  readonly fresh: { readonly of: string; readonly days: number } | null;
}

/** Pictures first, with what the columns say below each. */
export interface GalleryShape {
  readonly is: 'gallery';
  /** A field for pictures. */
  readonly picture: string;
}

/**
 * What a column of totals tells of the rows that stand together: something measured; one sum for each one of another; or how
 * many of them meet a condition (FEEL), among those of which it can be said.
 */
export type Total =
  | Measure
  | { readonly is: 'rate'; readonly of: string; readonly per: string }
  | { readonly is: 'share'; readonly when: string; readonly word: string };

/** Several totals for each value of one thing or each stretch of time, and for each of another within it. */
export interface TotalsShape {
  readonly is: 'totals';
  readonly by: string;
  /** Where it is days that it goes by. */
  readonly each: ChartStretch;
  readonly parts: string | null;
  readonly totals: readonly Total[];
}

/** How a view is looked at. */
export type ViewShape = TableShape | BoardShape | CalendarShape | ChartShape | MatrixShape | GalleryShape | TotalsShape;

/** What a shape is made by, besides what the view is. */
export function subjectsOfShape(shape: ViewShape): readonly string[] {
  const named = (...subjects: readonly (string | null)[]): readonly string[] =>
    subjects.filter((subject) => subject !== null);
  switch (shape.is) {
    case 'table':
      return [];
    case 'board':
      return named(shape.by, shape.lanes);
    case 'calendar':
      return named(shape.from, shape.to, shape.lines);
    case 'chart':
      return named(shape.by, shape.parts, shape.measure.of);
    case 'matrix':
      return named(shape.down, shape.across, shape.cell.of, shape.fresh?.of ?? null);
    case 'gallery':
      return [shape.picture];
    case 'totals':
      return named(shape.by, shape.parts, ...shape.totals.flatMap(subjectsOfTotal));
  }
}

/** The fields that a total adds up or measures. */
export const subjectsOfTotal = (total: Total): readonly string[] =>
  total.is === 'share' ? [] : total.is === 'rate' ? [total.of, total.per] : total.of === null ? [] : [total.of];

/**
 * A way to look at the requests or things of a register, or of several that share fields. It restricts nobody’s access and
 * gives nobody any: whoever looks sees what they may read of what it means.
 */
export interface ViewDesign {
  readonly name: string;
  /** Keys of the registers; of several, only the fields that all of them have can be used. */
  readonly of: readonly string[];
  /** FEEL over the fields and where a request stands; empty: all of them. */
  readonly when: string;
  readonly columns: readonly ViewColumn[];
  /** Facts or fields by which rows are put together: at most two, the outer one first. */
  readonly groups: readonly string[];
  readonly orders: readonly ViewOrder[];
  /** The first that holds of a row marks it. */
  readonly marks: readonly ViewMark[];
  /** How it is looked at: the first is how it opens. */
  readonly shapes: readonly ViewShape[];
  /** Who finds it among their views; null: only who made it. */
  readonly audience: Audience | null;
}

/** The fields and facts that a view names, each once: what it shows, groups by, orders by, and what its shapes are made by. */
export const subjectsOfView = ({ columns, groups, orders, shapes }: ViewDesign): readonly string[] => [
  ...new Set([
    ...columns.map(({ of }) => of),
    ...groups,
    ...orders.map(({ of }) => of),
    ...shapes.flatMap(subjectsOfShape),
  ]),
];
