import type { RouteName } from '@tolvek/contract';
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
  return {
    nameable: named,
    view: ids.map((id) => ({ params: { id } })),
    lookThrough: views.map((each) => ({ body: { view: each } })),
    lookAtBoard: boards.map((body) => ({ body })),
    lookAtCalendar: calendars.map((body) => ({ body })),
    lookAtChart: charts.map((body) => ({ body })),
    lookAtMatrix: matrices.map((body) => ({ body })),
    takeOutView: wholes.flatMap((each) => [{ body: { view: each, as: 'csv' } }, { body: { view: each, as: 'json' } }]),
    makeView: [{ headers: once('again'), body: { view } }],
    changeView: [{ params: { id: changed }, headers: onVersion(1), body: { view: { ...view, name: 'Changed' } } }],
    removeView: [{ params: { id: removed }, body: { removed: true } }],
  };
}
