import type { RouteName } from '@tolvek/contract';
import { reports } from '@tolvek/server/schema';
import { eq } from 'drizzle-orm';
import { sendDue } from '../../server/src/report/sending.ts';
import { type Caller, type Desk, ok, onVersion } from './desk.ts';

type Input = NonNullable<Parameters<Caller['call']>[1]>;

/** Days around those of the demo. */
const WEEKS = { first: '2026-10-26', last: '2026-12-20' };

const MET = { is: 'matrix', cell: { is: 'count', of: null }, wanted: null, fresh: null };
const COUNTED = { is: 'chart', as: 'bars', each: 'month', measure: { is: 'count', of: null } };

/** Views of all that there is to name in some registers, looked through; and what is done with views. */
export async function viewCalls(
  desk: Desk,
  registers: readonly string[],
): Promise<Partial<Record<RouteName, readonly Input[]>>> {
  const maren = await desk.as('Maren Okafor');
  const once = (name: string): Readonly<Record<string, string>> => ({ 'Idempotency-Key': `view-${name}` });
  const named = registers.map((of) => ({ query: { of, find: 'bo' } }));
  const views: object[] = [];
  const wholes: object[] = [];
  const boards: object[] = [];
  const calendars: object[] = [];
  const charts: object[] = [];
  const matrices: object[] = [];
  const totals: object[] = [];
  const ids: string[] = [];
  for (const of of registers) {
    const { fields } = ok(await maren.call('nameable', { query: { of } })) as {
      fields: readonly { key: string; type: { kind: string } }[];
    };
    const columns = ['request.subject', 'requester.person', ...fields.map(({ key }) => key)].map((each) => ({
      of: each,
    }));
    const whole = {
      ...{ name: 'All there is', of: [of], when: '', orders: [], marks: [], shapes: [{ is: 'table' }] },
      columns,
    };
    const everyone = { in: { everyone: true as const }, outOf: [] };
    const view = { ...whole, groups: ['request.stage', 'requester.person'], audience: everyone };
    views.push(view);
    wholes.push(view);
    ids.push(ok(await maren.call('makeView', { headers: once(of), body: { view } })).id);
    // What is put in order or marked by something tells of it as well.
    for (const { key, type } of fields) {
      const isGrouped = ['choice', 'level', 'yes-no', 'person', 'term', 'reference'].includes(type.kind);
      const fresh = ['date', 'date-time'].includes(type.kind) ? { of: key, days: 1 } : null;
      totals.push({
        view,
        shape: {
          ...{ is: 'totals', by: isGrouped ? key : 'request.stage', each: 'month', parts: null },
          totals: [COUNTED.measure, { is: 'share', when: `${key} != null`, word: 'are there' }],
        },
      });
      const met = { down: isGrouped ? key : 'request.team', across: 'request.stage' };
      matrices.push({ view, shape: { ...MET, ...met, cell: { is: 'newest', of: key }, fresh } });
      if (isGrouped) {
        boards.push({ view, shape: { is: 'board', by: key, lanes: 'request.stage' } });
        calendars.push({ view, shape: { is: 'calendar', from: 'request.arrived', to: null, lines: key }, ...WEEKS });
        charts.push({ view, shape: { ...COUNTED, by: 'request.stage', parts: key } });
      }
      if (['number', 'money', 'duration'].includes(type.kind))
        charts.push({
          view,
          shape: { ...COUNTED, by: 'request.stage', parts: null, measure: { is: 'most', of: key } },
        });
      if (['date', 'date-time'].includes(type.kind)) {
        charts.push({ view, shape: { ...COUNTED, by: key, parts: null } });
        calendars.push({ view, shape: { is: 'calendar', from: 'request.arrived', to: key, lines: null }, ...WEEKS });
      }
      views.push({ ...view, groups: [], orders: [{ of: key, down: false }] });
      views.push({ ...view, groups: [], when: `${key} != null` });
      views.push({
        ...view,
        groups: [],
        marks: [{ when: `${key} != null`, colour: 'sea' as const, word: 'is there' }],
      });
    }
  }
  const [view] = views as readonly Record<string, unknown>[];
  const theirs: string[] = [];
  for (const name of ['changed', 'removed'])
    theirs.push(
      ok(await maren.call('makeView', { headers: once(name), body: { view: { ...view, audience: null } } })).id,
    );
  const [changed = '', removed = ''] = theirs;
  // Each view as a table, parted by a day, and counted; frozen for whoever looks next.
  const everyone = { in: { everyone: true as const }, outOf: [] };
  const days = { from: '2026-09-01', to: '2026-12-31' };
  const report = (parts: readonly object[]) => ({
    ...{ name: 'All there is to tell', over: 'month' as const, sends: [], audience: everyone },
    parts,
  });
  const shown = ids.flatMap((id) => [
    { is: 'view', title: '', view: id, by: 'request.arrived', shape: { is: 'table' }, rows: 50 },
    {
      ...{ is: 'view', title: '', view: id, by: null, rows: 10 },
      shape: { ...COUNTED, by: 'requester.person', parts: 'request.stage' },
    },
    { is: 'figures', title: '', figures: [{ view: id, by: null, label: 'All', measure: COUNTED.measure }] },
  ]);
  const told = [
    { is: 'words', title: 'Words', text: 'Some words.' },
    ...shown.slice(0, 20),
    { is: 'times', title: '', of: '', by: 'handler', shown: 'lines' },
  ];
  const keptReport = async (name: string) =>
    ok(await maren.call('makeReport', { headers: once(`report-${name}`), body: { report: report(told) } })).id;
  const [first, second, third] = [await keptReport('1'), await keptReport('2'), await keptReport('3')];
  const frozen = async (name: string) =>
    ok(await maren.call('freezeReport', { params: { id: first }, headers: once(`copy-${name}`), body: days })).id;
  const [copy, other] = [await frozen('1'), await frozen('2')];
  // One goes out by itself, as if it had been made before the last week was over.
  const to = { in: { anyOf: ['Ilse Brandvold', 'Bram Solheim'].map((name) => `@${desk.idOf(name)}`) }, outOf: [] };
  const weekly = { ...report(told), over: 'week' as const, sends: [{ calendar: 'desk', to }] };
  const { id: sent } = ok(await maren.call('makeReport', { headers: once('weekly'), body: { report: weekly } }));
  const { house } = desk.running;
  house.db.update(reports).set({ sentUntil: 0 }).where(eq(reports.id, sent)).run();
  await sendDue(house);
  return {
    lookAtReport: [0, 20, 40].map((from) => ({
      body: { report: report([...shown.slice(from, from + 20), ...told.slice(-1)]), ...days },
    })),
    report: [{ params: { id: first } }],
    makeReport: [{ headers: once('report-again'), body: { report: report(told) } }],
    changeReport: [
      { params: { id: second }, headers: onVersion(1), body: { report: { ...report(told), name: 'Changed' } } },
    ],
    removeReport: [{ params: { id: third }, body: { removed: true } }],
    freezeReport: [{ params: { id: first }, headers: once('copy-again'), body: days }],
    reportCopy: [{ params: { id: first, copy } }],
    removeReportCopy: [{ params: { id: first, copy: other }, body: { removed: true } }],
    nameable: named,
    view: ids.map((id) => ({ params: { id } })),
    lookThrough: views.map((each) => ({ body: { view: each } })),
    addUpView: views.map((each) => ({ body: { view: each } })),
    lookAgain: views.map((each) => ({ body: { view: each, only: ['AC-00001', 'AC-00002', 'PU-00001', 'VT-00001'] } })),
    lookAtBoard: boards.map((body) => ({ body })),
    lookAtCalendar: calendars.map((body) => ({ body })),
    lookAtChart: charts.map((body) => ({ body })),
    lookAtMatrix: matrices.map((body) => ({ body })),
    lookAtTotals: totals.map((body) => ({ body })),
    takeOutView: wholes
      .flatMap((each) => [{ body: { view: each, as: 'csv' } }, { body: { view: each, as: 'json' } }])
      .concat(wholes.slice(0, 1).map((each) => ({ body: { view: each, as: 'csv', only: ['AC-00001', 'none'] } }))),
    makeView: [{ headers: once('again'), body: { view } }],
    changeView: [{ params: { id: changed }, headers: onVersion(1), body: { view: { ...view, name: 'Changed' } } }],
    removeView: [{ params: { id: removed }, body: { removed: true } }],
  };
}
