import type { Field, Phase } from '@tolvek/core/register';
import type { ReportFigure, TimesPart, WordsPart } from '@tolvek/core/report';
import type { Between, Course, Times } from '@tolvek/core/service';
import type { ChartShape, ViewDesign } from '@tolvek/core/view';
import type { Words } from '@tolvek/words';
import type { ServedRow } from '../service/served.ts';
import type { ChartRows } from '../view/chartLook.ts';

/** A request that stands behind what is told: its id, and the place of its register. */
export type Behind = readonly [id: string, register: number];

/** What is kept of a view: everything that whoever looks sees a part of. */
interface KeptOfView {
  readonly view: { readonly key: string; readonly name: string };
  /** The view as it was, and of only the days told of. */
  readonly design: ViewDesign;
  readonly meant: ViewDesign;
  readonly by: string | null;
  /** Ids of the registers. */
  readonly registers: readonly string[];
  readonly behind: readonly Behind[];
  /** Whether there were more than are kept, and whether all were looked at. */
  readonly more: boolean;
  readonly isAll: boolean;
}

export interface KeptTable extends KeptOfView {
  readonly is: 'table';
  readonly title: string;
  readonly columns: readonly { readonly of: string; readonly label: Words }[];
  /** The first rows; what they say is kept beside, and goes with their requests. */
  readonly rows: readonly { readonly id: string; readonly cells: readonly Words[] }[];
}

/** The steps and parts of a chart, and in the order of the requests behind it the place of each and what it holds. */
export interface KeptChart extends KeptOfView, Pick<ChartRows, 'steps' | 'parts'> {
  readonly is: 'chart';
  readonly title: string;
  readonly shape: ChartShape;
  readonly fields: readonly Field[];
  readonly places: readonly (readonly [step: number, part: number, figure: number | null])[];
}

export interface KeptFigure extends KeptOfView, Pick<ReportFigure, 'label' | 'measure'> {
  readonly figures: readonly (number | null)[];
}

/** How a request was served, as it can be written down. */
export interface KeptServed extends Omit<ServedRow, 'standing' | 'times' | 'course'> {
  readonly course: Course;
  readonly times: Omit<Times, 'stages'> & { readonly stages: readonly (readonly [string, number])[] };
}

export interface KeptTimes extends TimesPart {
  readonly rows: readonly KeptServed[];
  readonly between: Between;
  readonly zone: string;
  /** The stages of each register, by its id. */
  readonly stages: Readonly<
    Record<string, readonly { readonly key: string; readonly label: string; readonly phase: Phase }[]>
  >;
  readonly days: { readonly from: string; readonly to: string };
  readonly unread: number;
  readonly isAll: boolean;
}

/** A part of a report of which nothing can be told, and why. */
export interface MissingPart {
  readonly is: 'missing';
  readonly title: string;
  readonly why: Words;
}

/** What a report tells, before it is told to somebody. A figure of which nothing can be told is null. */
export type KeptPart =
  | WordsPart
  | MissingPart
  | KeptTable
  | KeptChart
  | { readonly is: 'figures'; readonly title: string; readonly figures: readonly (KeptFigure | null)[] }
  | KeptTimes;
