import type { AccessRule } from '@tolvek/core/access';
import { reports, requests } from '@tolvek/server/schema';
import { eq } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { calendarOf } from '../../server/src/calendar/queries.ts';
import type { DemoClock } from '../../server/src/platform/clock.ts';
import { sendDue, sendReports } from '../../server/src/report/sending.ts';
import { type Answer, type Caller, Desk, ok, onVersion } from './desk.ts';

let desk: Desk;
const PEOPLE = ['Ada Quillfeather', 'Maren Okafor', 'Ilse Brandvold', 'Tomas Achterberg', 'Bram Solheim'] as const;
type Somebody = (typeof PEOPLE)[number];
const callers = new Map<Somebody, Caller>();
const as = (name: Somebody): Caller => callers.get(name) as Caller;
beforeAll(async () => {
  desk = await Desk.open(70);
  for (const name of PEOPLE) callers.set(name, await desk.as(name));
});
afterAll(() => desk.close());

const NOVEMBER = { from: '2026-11-01', to: '2026-11-30' };
const OCTOBER = { from: '2026-10-01', to: '2026-10-31' };
const BEFORE = { from: '2024-01-01', to: '2024-01-31' };
const everyone = { in: { everyone: true }, outOf: [] };
let asked = 0;
const HIDDEN: AccessRule = {
  ...{ id: 'x', name: 'Hidden from Estates', level: 'hidden', fields: [] },
  audience: { in: { anyOf: ['estates'] }, outOf: [] },
};
const freshly = () => ({ 'Idempotency-Key': `report-${++asked}` });
const COLUMNS = ['request.number', 'request.stage', 'visitor', 'escort'];
const VIEW = {
  ...{ name: 'Visits', of: ['site-access'], when: '', groups: [], marks: [], audience: everyone },
  columns: COLUMNS.map((of) => ({ of })),
  orders: [{ of: 'request.number', down: false }],
  shapes: [{ is: 'table' }],
};
const CHART = { is: 'chart', as: 'bars', by: 'request.stage', each: 'month', parts: null } as const;
const COUNT = { is: 'count', of: null };
const made = async (view: object = VIEW): Promise<string> =>
  ok(await as('Ada Quillfeather').call('makeView', { headers: freshly(), body: { view } })).id;

const reportOf = (view: string, part: object = {}) => ({
  ...{ name: 'The month', over: 'month', sends: [], audience: everyone },
  parts: [
    { is: 'words', title: 'How it went', text: 'It went well.' },
    { is: 'figures', title: '', figures: [{ view, by: 'request.arrived', label: 'Visits', measure: COUNT }] },
    { is: 'view', title: 'By stage', view, by: 'request.arrived', shape: { ...CHART, measure: COUNT }, rows: 10 },
    { is: 'view', title: 'The first', view, by: 'request.arrived', shape: { is: 'table' }, rows: 50 },
    { is: 'times', title: 'Service', of: 'site-access', by: 'handler', shown: 'open' },
  ],
  ...part,
});
const keep = async (report: object, who: Somebody = 'Ada Quillfeather'): Promise<string> =>
  ok(await as(who).call('makeReport', { headers: freshly(), body: { report } })).id;
const look = async (who: Somebody, report: object, days: object = NOVEMBER): Promise<Answer['body']> =>
  ok(await as(who).call('lookAtReport', { body: { report, ...days } })).parts;
const freeze = async (id: string, who: Somebody = 'Ada Quillfeather'): Promise<string> =>
  ok(await as(who).call('freezeReport', { params: { id }, headers: freshly(), body: NOVEMBER })).id;
const copy = async (who: Somebody, id: string, of: string): Promise<Answer['body']> =>
  ok(await as(who).call('reportCopy', { params: { id, copy: of } })).parts;

/** What somebody reads sheet by sheet: when it arrived, at what stage it is, and what some fields say. */
async function slowly(who: Somebody) {
  const found = new Map<
    string,
    { readonly month: string; readonly stage: string; readonly shown: ReadonlyMap<string, string> }
  >();
  for (let after = ''; ; ) {
    const { body } = await as(who).call('ledger', { query: { tray: 'all', ...(after ? { after } : {}) } });
    for (const { number } of body.rows) {
      const sheet = ok(await as(who).call('sheet', { params: { number } }));
      const register = desk.running.house.db.select().from(requests).where(eq(requests.number, number)).get();
      if (register?.registerId !== desk.register('site-access').id) continue;
      found.set(number, {
        month: new Date(register?.createdAt ?? 0).toLocaleDateString('sv', { timeZone: 'Europe/Dublin' }).slice(0, 7),
        stage: sheet.stage.label,
        shown: new Map(sheet.values.fields.map((field: { key: string; shown: string }) => [field.key, field.shown])),
      });
    }
    if (!body.next) return found;
    after = body.next;
  }
}
const partOf = (parts: Answer['body'], is: string): Answer['body'] =>
  parts.find((part: { is: string }) => part.is === is);
const stagesIn = (chart: Answer['body']): Record<string, number> =>
  Object.fromEntries(
    chart.points.map(({ step, count }: { step: number; count: number }) => [chart.steps[step].label, count]),
  );
const cellsOf = (table: Answer['body'], row: Answer['body']): Record<string, string> =>
  Object.fromEntries(table.columns.map((label: string, at: number) => [label, row.cells[at]]));
const counted = (stages: readonly string[]): Record<string, number> =>
  Object.fromEntries(stages.map((stage) => [stage, stages.filter((each) => each === stage).length]));

describe('a report', () => {
  it('tells each person what a slow reading of their sheets counts, live and frozen', async () => {
    const view = await made();
    const id = await keep(reportOf(view));
    const frozen = await freeze(id);
    const { access } = desk.register('site-access');
    desk.protect('site-access', { ...access, rules: [...access.rules, { ...HIDDEN, fields: ['escort'] }] });
    const ada = await slowly('Ada Quillfeather');
    const covered = { counted: 0, fewer: 0, empty: 0, rows: 0, elsewhen: 0, hidden: 0 };
    for (const who of PEOPLE) {
      const read = await slowly(who);
      for (const days of [NOVEMBER, OCTOBER, BEFORE]) {
        const meant = [...read].filter(([, { month }]) => days.from.startsWith(month));
        covered.elsewhen += Number(days === OCTOBER && meant.length > 0);
        const live = await look(who, reportOf(view), days);
        // The copy is of one month, and of what was read by whoever froze it.
        const tellings =
          days !== NOVEMBER
            ? [[live, meant]]
            : [
                [live, meant],
                [await copy(who, id, frozen), meant.filter(([number]) => ada.has(number))],
              ];
        for (const [told, rows] of tellings as [Answer['body'], typeof meant][]) {
          expect([who, partOf(told, 'figures').figures]).toEqual([
            who,
            [{ label: 'Visits', said: String(rows.length), count: rows.length }],
          ]);
          expect([who, stagesIn(partOf(told, 'chart'))]).toEqual([who, counted(rows.map(([, { stage }]) => stage))]);
          const table = partOf(told, 'table');
          expect(table.total).toBe(rows.length);
          expect(table.rows.map(({ number }: { number: string }) => number)).toEqual(
            rows
              .map(([number]) => number)
              .sort()
              .slice(0, 50),
          );
          for (const row of table.rows) {
            const sheet = read.get(row.number);
            const cells = cellsOf(table, row);
            expect([row.number, cells.Number, cells.Stage]).toEqual([row.number, row.number, sheet?.stage]);
            for (const [key, label] of [
              ['visitor', 'Visitor'],
              ['escort', 'Escort'],
            ] as const) {
              expect([row.number, key, cells[label] ?? '']).toEqual([row.number, key, sheet?.shown.get(key) ?? '']);
              covered.hidden += Number(cells[label] === undefined);
            }
            covered.rows += 1;
          }
          covered.counted += Number(rows.length > 0);
          covered.fewer += Number(rows.length < ada.size);
          covered.empty += Number(rows.length === 0);
        }
      }
    }
    desk.protect('site-access', access);
    console.info('reports:', covered);
    expect(Object.values(covered).every((count) => count > 0)).toBe(true);
  });

  it('tells of service times what their page does, to each, and the same when it is frozen', async () => {
    const view = await made();
    const id = await keep(reportOf(view));
    const frozen = await freeze(id);
    for (const who of PEOPLE) {
      const { registers: _, ...page } = ok(
        await as(who).call('serviceTimes', { query: { ...NOVEMBER, of: 'site-access', by: 'handler' } }),
      );
      const told = { is: 'times', title: 'Service', of: 'site-access', by: 'handler', shown: 'open' };
      expect(partOf(await look(who, reportOf(view)), 'times')).toEqual({ ...page, ...told });
      const kept = partOf(await copy(who, id, frozen), 'times');
      expect([kept.all.came, kept.all.went, kept.all.open, kept.untold]).toEqual([
        ...[page.all.came, page.all.went, page.all.open, page.untold],
      ]);
    }
  });

  it('stays as it was frozen when requests change, and hides by then what may not be read any more', async () => {
    const view = await made();
    const id = await keep(reportOf(view));
    const frozen = await freeze(id);
    const before = await copy('Ada Quillfeather', id, frozen);
    const [first] = partOf(before, 'table').rows;
    const ilse = await copy('Ilse Brandvold', id, frozen);
    const params = { number: first.number };
    const { version } = ok(await as('Ada Quillfeather').call('sheet', { params }));
    const db = desk.running.house.db;
    const row = db.select().from(requests).where(eq(requests.number, first.number)).get();
    db.update(requests)
      .set({ values: { ...row?.values, visitor: 'Somebody else' }, stage: 'papers', version: version + 1 })
      .where(eq(requests.number, first.number))
      .run();
    // What a request is called is as it is now.
    const without = (parts: Answer['body']) =>
      JSON.stringify(parts, (key, value) => (key === 'subject' ? null : value));
    expect(without(await copy('Ada Quillfeather', id, frozen))).toEqual(without(before));
    expect(partOf(await look('Ada Quillfeather', reportOf(view)), 'table').rows[0].cells).not.toEqual(first.cells);
    // The words are the same, in the copy as in a request of today: read by whom the plan lets read them.
    const { access } = desk.register('site-access');
    desk.protect('site-access', { ...access, rules: [...access.rules, { ...HIDDEN, fields: ['visitor'] }] });
    const closed = await copy('Ilse Brandvold', id, frozen);
    const labels = (parts: Answer['body']): readonly string[] => partOf(parts, 'table').columns;
    expect([labels(ilse).includes('Visitor'), labels(closed).includes('Visitor')]).toEqual([true, false]);
    const numbers = (parts: Answer['body']) =>
      partOf(parts, 'table').rows.map(({ number }: { number: string }) => number);
    expect(numbers(closed)).toEqual(numbers(ilse));
    // What is asked for by such a field is not told at all.
    const asking = await made({ ...VIEW, when: 'visitor = "Somebody else"' });
    const told = await look('Ilse Brandvold', reportOf(asking));
    expect(told.map(({ is }: { is: string }) => is)).toEqual(['words', 'figures', 'missing', 'missing', 'times']);
    expect(told[1].figures).toEqual([]);
    desk.protect('site-access', access);
  });

  it('counts what was deleted for whoever may read every request, and says so to the others', async () => {
    const view = await made();
    const id = await keep(reportOf(view));
    const frozen = await freeze(id);
    const before = new Map(await Promise.all(PEOPLE.map(async (who) => [who, await copy(who, id, frozen)] as const)));
    const [gone] = partOf(before.get('Ilse Brandvold'), 'table').rows;
    const params = { number: gone.number };
    const { version } = ok(await as('Ada Quillfeather').call('sheet', { params }));
    const { id: deletion } = ok(
      await as('Ada Quillfeather').call('deleteRequest', {
        ...{ params, headers: onVersion(version), body: { reason: 'A trial.' } },
      }),
    );
    const kinds = { all: 0, fewer: 0 };
    for (const who of PEOPLE) {
      const [was, is] = [before.get(who), await copy(who, id, frozen)];
      const counts = (parts: Answer['body']) => [
        partOf(parts, 'figures').figures[0]?.count ?? 0,
        partOf(parts, 'times').all.came,
      ];
      const had = partOf(was, 'table').rows.some(({ number }: { number: string }) => number === gone.number);
      const lost = counts(was).map((count, at) => count - (counts(is)[at] ?? 0));
      expect(partOf(is, 'table').rows).toEqual(
        partOf(was, 'table').rows.filter(({ number }: { number: string }) => number !== gone.number),
      );
      expect(lost[0]).toBeLessThanOrEqual(Number(had));
      if (had && lost[0] === 0) kinds.all += 1;
      if (had && lost[0] === 1) kinds.fewer += 1;
    }
    console.info('reports, deleted:', kinds);
    // Put back, all of it is as it was.
    ok(await as('Ada Quillfeather').call('putBackRequest', { params: { id: deletion } }));
    for (const who of PEOPLE) expect([who, await copy(who, id, frozen)]).toEqual([who, before.get(who)]);
    expect(Object.values(kinds).every((count) => count > 0)).toBe(true);
  });
});

describe('whoever a report is not for', () => {
  it('does not find it, and whoever may only read it does not change it', async () => {
    const view = await made();
    const id = await keep(reportOf(view, { audience: null }), 'Ilse Brandvold');
    const params = { id };
    expect((await as('Ada Quillfeather').call('report', { params })).status).toBe(404);
    const { report } = ok(await as('Ilse Brandvold').call('report', { params }));
    const to = { in: { anyOf: [`@${desk.idOf('Bram Solheim')}`] }, outOf: [] };
    const body = { report: { ...report, audience: to } };
    ok(await as('Ilse Brandvold').call('changeReport', { params, headers: onVersion(1), body }));
    expect(ok(await as('Bram Solheim').call('report', { params }))).toMatchObject({ mine: false, changes: false });
    const refused = await as('Bram Solheim').call('changeReport', { params, headers: onVersion(2), body });
    expect([refused.status, refused.body.title ?? refused.body.detail]).toEqual([
      403,
      expect.stringContaining('Ilse Brandvold'),
    ]);
    // Ada sets up the desk: of what is shared she may.
    expect(ok(await as('Ada Quillfeather').call('report', { params }))).toMatchObject({ changes: true });
    const wide = await as('Ilse Brandvold').call('changeReport', {
      ...{ params, headers: onVersion(2), body: { report: { ...report, audience: everyone } } },
    });
    expect([wide.status, wide.body.problems?.[0]?.field]).toEqual([422, 'audience']);
    ok(await as('Ilse Brandvold').call('removeReport', { params, body: { removed: true } }));
    expect((await as('Bram Solheim').call('report', { params })).status).toBe(404);
    ok(await as('Ilse Brandvold').call('removeReport', { params, body: { removed: false } }));
    expect(ok(await as('Bram Solheim').call('report', { params })).report.name).toBe('The month');
  });

  it('is told what is wrong where it stands', async () => {
    const view = await made();
    const wrong = async (part: object) => {
      const { status, body } = await as('Ada Quillfeather').call('makeReport', {
        ...{ headers: freshly(), body: { report: reportOf(view, part) } },
      });
      return [status, (body.problems ?? []).map(({ field }: { field: string }) => field)];
    };
    const parts = reportOf(view).parts;
    expect(await wrong({ name: ' ' })).toEqual([422, ['name']]);
    expect(await wrong({ parts: [] })).toEqual([422, ['parts']]);
    expect(await wrong({ parts: [parts[0], { ...parts[2], view: 'none' }] })).toEqual([422, ['parts 1']]);
    expect(await wrong({ parts: [{ ...parts[2], by: 'request.stage' }] })).toEqual([422, ['parts 0']]);
    expect(await wrong({ sends: [{ calendar: 'desk', to: everyone }] })).toEqual([422, ['sends 0']]);
    expect(await wrong({ sends: [{ calendar: 'none', to: { in: { anyOf: ['estates'] }, outOf: [] } }] })).toEqual([
      422,
      ['sends 0'],
    ]);
  });
});

describe('a report that is sent', () => {
  it('goes once, as soon as its hours begin after the stretch, to each with the figures they may read', async () => {
    const { house } = desk.running;
    const clock = house.clock as DemoClock;
    const view = await made();
    const to = {
      in: { anyOf: ['Ilse Brandvold', 'Tomas Achterberg'].map((name) => `@${desk.idOf(name)}`) },
      outOf: [],
    };
    const report = reportOf(view, {
      name: 'The week',
      over: 'week',
      audience: null,
      sends: [{ calendar: 'desk', to }],
    });
    const id = await keep(report);
    const [next] = ok(await as('Ada Quillfeather').call('report', { params: { id } })).next;
    const opens = calendarOf(house.db, 'desk').week[0]?.[0]?.[0];
    expect([next.from, next.to, next.at]).toEqual([
      '2026-11-23',
      '2026-11-29',
      new Date(`2026-11-30T${opens}:00Z`).toISOString(),
    ]);
    const ofWeek = { from: next.from, to: next.to };
    const letters = async () => (await desk.letters()).filter(({ subject }) => subject.startsWith('The week:'));
    clock.advance(Date.parse(next.at) - clock.now() - 120_000);
    expect(await sendReports(house)).toBe(0);
    expect(await letters()).toEqual([]);
    clock.advance(180_000);
    // The house looks by itself as well: whichever comes first sends it.
    await sendReports(house);
    clock.advance(61_000);
    expect(await sendReports(house)).toBe(0);
    const sent = await letters();
    expect(sent.map((letter) => letter.to.replace(/^.*<|>$/g, '')).sort()).toEqual([
      'ilse.brandvold@skerrow.example',
      'tomas.achterberg@skerrow.example',
    ]);
    // What is set up later sends nothing of before.
    const ada = await desk.anew('Ada Quillfeather');
    const { sends, ...unsent } = report;
    const late = { ...unsent, name: 'Late', sends: [] };
    const { id: later } = ok(await ada.call('makeReport', { headers: freshly(), body: { report: late } }));
    house.db.update(reports).set({ sentUntil: 0 }).where(eq(reports.id, later)).run();
    const body = { report: { ...late, sends } };
    ok(await ada.call('changeReport', { params: { id: later }, headers: onVersion(1), body }));
    expect(await sendDue(house)).toBe(0);
    for (const who of ['Ilse Brandvold', 'Tomas Achterberg'] as const) {
      const caller = await desk.anew(who);
      const { report: kept, copies } = ok(await caller.call('report', { params: { id } }));
      expect([kept.name, copies.length, copies[0].sent, copies[0].from]).toEqual(['The week', 1, 2, ofWeek.from]);
      const { parts } = ok(await caller.call('reportCopy', { params: { id, copy: copies[0].id } }));
      const letter = sent.find(({ to: address }) => address.includes(who));
      const { count } = partOf(parts, 'figures').figures[0];
      const { came } = partOf(parts, 'times').all;
      expect(letter?.text).toContain(`Visits: ${count}`);
      expect(letter?.text).toContain(`${came} requests came`);
      expect(letter?.text).toContain(`/floor/reports/${id}/copies/${copies[0].id}`);
    }
  });
});
