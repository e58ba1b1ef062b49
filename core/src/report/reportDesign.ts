import { type Said, said, type Words } from '@tolvek/words';
import {
  compareContents,
  type DesignFinding,
  type DesignKind,
  type MergeRules,
  mergeContents,
} from '../design/index.ts';
import { namedIn } from '../register/index.ts';
import type { ViewShape } from '../view/index.ts';
import { type ReportDesign, type ReportPart, shapeOfFigure } from './report.ts';

const PLACES: Readonly<Record<string, Said>> = {
  name: said('reports:theName'),
  over: said('reports:theStretch'),
  parts: said('reports:theParts'),
  sends: said('reports:theSends'),
  audience: said('reports:theAudience'),
};
const RULES: MergeRules = { lists: {}, nameOf: ([place = '']) => PLACES[place] ?? said('reports:theReport') };

/** What findings of a report depend on besides it, for who makes it. */
export interface AroundReport {
  /** Keys of the registers there are, and of the calendars. */
  readonly registers: readonly string[];
  readonly calendars: readonly string[];
  /** What is wrong with a view as it is shown here: with its shape, and the day by which it is parted; null for nothing. */
  readonly unseen: (view: string, shape: ViewShape, by: string | null) => Words | null;
}

function* ofPart(part: ReportPart, { registers, unseen }: AroundReport): Generator<Said> {
  switch (part.is) {
    case 'words':
      if (part.title.trim() === '' && part.text.trim() === '') yield said('reports:noWords');
      break;
    case 'view': {
      const message = unseen(part.view, part.shape, part.by);
      if (message !== null) yield said('reports:unseen', { message });
      break;
    }
    case 'figures':
      if (part.figures.length === 0) yield said('reports:noFigures');
      for (const { view, measure, by, label } of part.figures) {
        const message = unseen(view, shapeOfFigure(measure), by);
        if (message !== null) yield said('reports:unseen', { message });
        if (label.trim() === '') yield said('reports:noLabel');
      }
      break;
    case 'times':
      if (part.of !== '' && !registers.includes(part.of)) yield said('reports:noRegister');
  }
}

type Found = readonly [at: string, message: Said];

function* foundIn({ name, parts, sends, audience }: ReportDesign, around: AroundReport): Generator<Found> {
  if (name.trim() === '') yield ['name', said('reports:noName')];
  if (parts.length === 0) yield ['parts', said('reports:noParts')];
  for (const [at, part] of parts.entries()) for (const message of ofPart(part, around)) yield [`parts ${at}`, message];
  for (const [at, { calendar, to }] of sends.entries()) {
    if (!around.calendars.includes(calendar)) yield [`sends ${at}`, said('reports:noCalendar')];
    if ('everyone' in to.in) yield [`sends ${at}`, said('reports:toEverybody')];
    else if ('anyOf' in to.in && to.in.anyOf.length === 0) yield [`sends ${at}`, said('reports:toNobody')];
  }
  if (audience && 'anyOf' in audience.in && audience.in.anyOf.length === 0) yield ['audience', said('views:toNobody')];
}

/** Reports as designs. They are in force at once. */
export const REPORT: DesignKind<ReportDesign, AroundReport | null> = {
  kind: 'report',
  titleOf: ({ name }) => name,
  compare: (before, after) => compareContents(before, after, RULES),
  merge: (base, mine, theirs) => mergeContents(base, mine, theirs, RULES),
  findings: (report, around): readonly DesignFinding[] =>
    around === null
      ? []
      : [...foundIn(report, around)].map(([at, message]) => ({ severity: 'error', page: 'reports', at, message })),
  refersTo: ({ parts, sends, audience }) => [
    ...parts.flatMap((part) =>
      part.is === 'times' && part.of !== ''
        ? [{ kind: 'register' as const, key: part.of, at: said('reports:theParts') }]
        : [],
    ),
    ...sends.flatMap(({ to }) => namedIn(to).map((each) => ({ ...each, at: said('reports:theSends') }))),
    ...(audience ? namedIn(audience).map((each) => ({ ...each, at: said('reports:theAudience') })) : []),
  ],
};
