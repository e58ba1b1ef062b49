import type { Audience } from '../people/index.ts';
import type { SERVED_BY } from '../service/index.ts';
import { beginOf, type ChartShape, type Measure, nextOf, type TableShape } from '../view/index.ts';

/** How many parts a report has at most, figures one of them, and ways it is sent. */
export const MOST_OF_REPORT = { parts: 24, figures: 8, rows: 50, sends: 4 } as const;

/** The stretch of time that a report tells of; weeks begin on Monday (ISO 8601). */
export const REPORTS_OVER = ['week', 'month', 'year'] as const;
export type ReportOver = (typeof REPORTS_OVER)[number];

/** A heading with what is said below it; one of both can be empty. */
export interface WordsPart {
  readonly is: 'words';
  readonly title: string;
  readonly text: string;
}

/** Of a view, by its id; `by`: a day or moment by which only what falls into the days told of is meant, null for all as it stands. */
interface OfView {
  readonly view: string;
  readonly by: string | null;
}

/** A view as a table of its first rows, or as a chart. */
export interface ViewPart extends OfView {
  readonly is: 'view';
  readonly title: string;
  readonly shape: TableShape | ChartShape;
  /** Rows of a table. */
  readonly rows: number;
}

/** One figure: what is measured of the rows of a view. */
export interface ReportFigure extends OfView {
  readonly label: string;
  readonly measure: Measure;
}
/** As what a figure is looked at: a chart, all its rows together. */
export const shapeOfFigure = (measure: Measure): ChartShape => ({
  ...{ is: 'chart', as: 'bars', by: 'request.stage', each: 'month', parts: null, measure },
});

export interface FiguresPart {
  readonly is: 'figures';
  readonly title: string;
  readonly figures: readonly ReportFigure[];
}

/** What of service times stands in a picture; `lines`: all of it, as lines. */
export const TIMES_SHOWN = ['lines', 'came', 'went', 'open', 'late'] as const;

/** How long requests took, and what came, went and is open: of a register by its key, or of all. */
export interface TimesPart {
  readonly is: 'times';
  readonly title: string;
  readonly of: string;
  readonly by: (typeof SERVED_BY)[number];
  readonly shown: (typeof TIMES_SHOWN)[number];
}

export type ReportPart = WordsPart | ViewPart | FiguresPart | TimesPart;

/** To whom a copy goes, as soon as a calendar is open after the days that it tells of. */
export interface ReportSend {
  /** Its key. */
  readonly calendar: string;
  readonly to: Audience;
}

/** Views, figures, service times and words on one page, for a stretch of days. */
export interface ReportDesign {
  readonly name: string;
  readonly over: ReportOver;
  readonly parts: readonly ReportPart[];
  readonly sends: readonly ReportSend[];
  /** Who finds it among their reports; null: only who made it, and to whom it is sent. */
  readonly audience: Audience | null;
}

/** The first and the last of some days (ISO 8601). */
export interface Days {
  readonly from: string;
  readonly to: string;
}

const DAY = 86_400_000;
const besides = (day: string, days: number): string =>
  new Date(Date.parse(`${day}T00:00:00Z`) + days * DAY).toISOString().slice(0, 10);

/** The day after one. */
export const dayAfter = (day: string): string => besides(day, 1);

/** The days of the stretch that a day is in. */
export function stretchOf(over: ReportOver, day: string): Days {
  const from = beginOf(day, over);
  return { from, to: besides(nextOf(from, over), -1) };
}

/** The days of the stretch before that of a day, or after it. */
export const stretchBeside = (over: ReportOver, day: string, way: 'before' | 'after'): Days => {
  const { from, to } = stretchOf(over, day);
  return stretchOf(over, way === 'before' ? besides(from, -1) : besides(to, 1));
};

/** Whether days are one whole stretch. */
export const isStretch = (over: ReportOver, { from, to }: Days): boolean =>
  stretchOf(over, from).to === to && beginOf(from, over) === from;
