import type { ReportDesign } from '@tolvek/core/report';
import { describe, expect, it } from 'vitest';
import { movedPart, newPart, newReport, putAt } from './reportDraft.ts';

describe('a report that is made', () => {
  const parts = ['words', 'view', 'times'].map((is) => newPart(is as 'words', 'a'));
  const report = { ...newReport(), parts };
  const kinds = (of: ReportDesign) => of.parts.map(({ is }) => is).join();

  it('has its parts moved one place, and no further than there are places', () => {
    expect(kinds(movedPart(report, 0, 1))).toBe('view,words,times');
    expect(kinds(movedPart(report, 2, -1))).toBe('words,times,view');
    expect(movedPart(report, 0, -1)).toBe(report);
    expect(movedPart(report, 2, 1)).toBe(report);
  });

  it('has one put in a place, after the last, or taken out', () => {
    expect(putAt([1, 2, 3], 1, 9)).toEqual([1, 9, 3]);
    expect(putAt([1, 2], 2, 9)).toEqual([1, 2, 9]);
    expect(putAt([1, 2, 3], 0, null)).toEqual([2, 3]);
  });
});
