import type { ReportDesign, ReportPart, ReportSend } from '@tolvek/core/report';

/** A report as it is when one begins. */
export const newReport = (): ReportDesign => ({ name: '', over: 'month', parts: [], sends: [], audience: null });

/** A part as it is when one is added. `view`: the first there is to show. */
export function newPart(is: ReportPart['is'], view: string): ReportPart {
  switch (is) {
    case 'words':
      return { is, title: '', text: '' };
    case 'view':
      return { is, title: '', view, by: null, shape: { is: 'table' }, rows: 10 };
    case 'figures':
      return { is, title: '', figures: [{ view, by: null, label: '', measure: { is: 'count', of: null } }] };
    case 'times':
      return { is, title: '', of: '', by: 'form', shown: 'lines' };
  }
}

/** A list with something else in a place; null takes out what is there. */
export const putAt = <T>(list: readonly T[], at: number, one: T | null): readonly T[] => [
  ...list.slice(0, at),
  ...(one === null ? [] : [one]),
  ...list.slice(at + 1),
];

/** Moves a part one place up or down; no further than there are places. */
export function movedPart(report: ReportDesign, at: number, by: 1 | -1): ReportDesign {
  const [one, other] = [report.parts[at], report.parts[at + by]];
  if (!one || !other) return report;
  return { ...report, parts: putAt(putAt(report.parts, at, other), at + by, one) };
}

/** Sends a report to nobody yet, by some hours. */
export const newSend = (calendar: string): ReportSend => ({ calendar, to: { in: { anyOf: [] }, outOf: [] } });
