import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { dayAfter, isStretch, REPORT, REPORTS_OVER, type ReportDesign, stretchBeside, stretchOf } from './index.ts';

const days = Array.from({ length: 800 }, (_, at) =>
  new Date(Date.UTC(2027, 11, 20) + at * 86_400_000).toISOString().slice(0, 10),
);

describe('the stretch of a report', () => {
  it('holds each of its days and no other, and the next begins where it ends', () => {
    const lengths = new Set<number>();
    for (const over of REPORTS_OVER)
      for (const day of days) {
        const { from, to } = stretchOf(over, day);
        expect(from <= day && day <= to).toBe(true);
        // Counted day by day, by a clock that knows no stretches.
        const held = days.filter((each) => each >= from && each <= to);
        if (days.includes(from) && days.includes(to)) lengths.add(held.length);
        const besides = [stretchBeside(over, day, 'before'), stretchBeside(over, day, 'after')];
        const told = [besides[1]?.from, dayAfter(besides[0]?.to ?? ''), isStretch(over, { from, to })];
        expect([over, day, ...told, isStretch(over, { from, to: dayAfter(to) })]).toEqual([
          ...[over, day, dayAfter(to), from, true, false],
        ]);
        if (day === from) expect(held.every((each) => stretchOf(over, each).from === from)).toBe(true);
      }
    expect([...lengths].sort((a, b) => a - b)).toEqual([7, 28, 29, 30, 31, 365, 366]);
    expect(new Date(`${stretchOf('week', '2028-02-29').from}T00:00:00Z`).getUTCDay()).toBe(1);
  });
});

const someDay = fc
  .integer({ min: 0, max: 40_000 })
  .map((at) => new Date(Date.UTC(1990, 0, 1 + at)).toISOString().slice(0, 10));

describe('months', () => {
  it('follow one another, and each day is in its own', () => {
    fc.assert(
      fc.property(someDay, (day) => {
        const { from, to } = stretchOf('month', day);
        expect([from <= day, day <= to]).toEqual([true, true]);
        const after = new Date(Date.parse(to) + 86_400_000).toISOString().slice(0, 10);
        expect(stretchBeside('month', day, 'after').from).toBe(after);
        expect(stretchBeside('month', after, 'before')).toEqual({ from, to });
      }),
    );
    expect(stretchOf('month', '2028-02-11')).toEqual({ from: '2028-02-01', to: '2028-02-29' });
  });
});

describe('a report', () => {
  const view = { is: 'view', title: '', view: 'a', by: 'leaves', shape: { is: 'table' }, rows: 5 } as const;
  const measure = { is: 'count', of: null } as const;
  const report: ReportDesign = {
    ...{ name: 'The month', over: 'month', audience: null },
    parts: [
      view,
      {
        is: 'figures',
        title: '',
        figures: [
          { view: 'b', by: null, label: 'All', measure },
          { view: 'a', by: null, label: 'Some', measure },
        ],
      },
      { is: 'times', title: '', of: 'trips', by: 'form', shown: 'lines' },
    ],
    sends: [{ calendar: 'desk', to: { in: { anyOf: ['boats'] }, outOf: ['@one'] } }],
  };
  const around = { registers: ['trips'], calendars: ['desk'], unseen: () => null };
  const wrong = (part: Partial<ReportDesign>, more: object = {}): readonly string[] =>
    REPORT.findings({ ...report, ...part }, { ...around, ...more }).map(({ at }) => at);

  it('names the registers, groups and people it hangs on', () => {
    expect(REPORT.refersTo(report).map(({ kind, key }) => `${kind} ${key}`)).toEqual([
      'register trips',
      'group boats',
      'person one',
    ]);
  });

  it('says what is wrong where it stands', () => {
    expect(wrong({})).toEqual([]);
    expect(wrong({ name: '', parts: [] })).toEqual(['name', 'parts']);
    expect(wrong({}, { registers: [] })).toEqual(['parts 2']);
    expect(wrong({}, { calendars: [] })).toEqual(['sends 0']);
    expect(wrong({}, { unseen: (id: string) => (id === 'b' ? 'not there' : null) })).toEqual(['parts 1']);
    expect(wrong({ parts: [{ is: 'words', title: ' ', text: '' }] })).toEqual(['parts 0']);
    expect(wrong({ parts: [{ is: 'figures', title: '', figures: [] }] })).toEqual(['parts 0']);
    expect(wrong({ sends: [{ calendar: 'desk', to: { in: { anyOf: [] }, outOf: [] } }] })).toEqual(['sends 0']);
    expect(wrong({ sends: [{ calendar: 'desk', to: { in: { everyone: true }, outOf: [] } }] })).toEqual(['sends 0']);
    expect(wrong({ audience: { in: { anyOf: [] }, outOf: [] } })).toEqual(['audience']);
  });
});
