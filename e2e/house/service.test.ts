import { history, requests } from '@tolvek/server/schema';
import { and, asc, eq } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { isOpen, type WorkingCalendar } from '../../core/src/deadline/index.ts';
import { calendarOf } from '../../server/src/calendar/queries.ts';
import { planningOf } from '../../server/src/form/queries.ts';
import { type Caller, Desk, ok } from './desk.ts';

let desk: Desk;
let ada: Caller;
beforeAll(async () => {
  desk = await Desk.open(80);
  ada = await desk.as('Ada Quillfeather');
});
afterAll(() => desk.close());

const MINUTE = 60_000;
const span = { from: '2026-09-01', to: '2026-11-23' };
const times = async (query: object, who = ada) => ok(await who.call('serviceTimes', { query: { ...span, ...query } }));
const behind = async (query: object, who = ada) => ok(await who.call('servedRows', { query: { ...span, ...query } }));
const minutesOf = (length: { minutes?: number; days?: number }, day: number): number =>
  length.minutes ?? (length.days ?? 0) * day;

/** A request as its history tells of it, looked at minute by minute: nothing is reckoned. */
function slowly(number: string) {
  const { db } = desk.running.house;
  const request = db.select().from(requests).where(eq(requests.number, number)).get();
  if (!request) throw new Error(`There is no ${number}.`);
  const happened = db
    .select()
    .from(history)
    .where(and(eq(history.requestId, request.id)))
    .orderBy(asc(history.at), asc(history.id))
    .all();
  const { stages } = desk.running.house.db.$client
    .prepare('select draft as stages from designs where id = (select id from registers where id = ?)')
    .get(request.registerId) as { stages: string };
  const design = JSON.parse(stages) as { stages: { key: string; phase: string; role?: string }[] };
  const phaseOf = (key: string): string => design.stages.find((stage) => stage.key === key)?.phase ?? '';
  const deciding = design.stages.find(({ role }) => role === 'deciding')?.key ?? '';
  const refused = design.stages.find(({ role }) => role === 'refused')?.key ?? '';
  const first = design.stages.find(({ phase, role }) => phase === 'arrived' && role === undefined)?.key ?? '';
  const moves = happened.flatMap(({ at, data }) => {
    if (!data) return [];
    if (data.kind === 'decided')
      return data.leadsTo === 'refused'
        ? [{ at, from: deciding, to: refused }]
        : data.leadsTo === 'approved'
          ? [{ at, from: deciding, to: data.to ?? first }]
          : [];
    return 'to' in data && 'from' in data && phaseOf(String(data.to)) !== ''
      ? [{ at, from: String(data.from), to: String(data.to) }]
      : [];
  });
  const end = request.finishedAt ?? desk.running.house.clock.now();
  const answered = happened.find(
    ({ data, comment }) =>
      (data?.kind === 'said' && comment?.visibility === 'requester' && !data.byRequester) ||
      data?.kind === 'returned' ||
      (data?.kind === 'decided' && (data.leadsTo === 'approved' || data.leadsTo === 'refused')),
  );
  const firstAt = answered?.at ?? request.finishedAt;
  const calendar: WorkingCalendar = calendarOf(db, planningOf(db, request).release.design.deadline.calendar);
  const counted = { first: 0, finish: 0, paused: 0 };
  let stage = moves[0]?.from ?? request.stage;
  let next = 0;
  for (let at = request.createdAt; at < end; at += MINUTE) {
    while (next < moves.length && (moves[next]?.at ?? 0) <= at) stage = moves[next++]?.to ?? stage;
    if (!isOpen(calendar, at)) continue;
    if (phaseOf(stage) === 'paused') counted.paused += 1;
    else if (phaseOf(stage) !== 'finished') {
      counted.finish += 1;
      if (firstAt !== null && at < firstAt) counted.first += 1;
    }
  }
  return { ...counted, moves: moves.length };
}

describe('service times', () => {
  it('are what a slow reading of the history counts, minute by minute', async () => {
    const { rows, total } = await behind({ figure: 'went' });
    expect(total).toBeGreaterThan(40);
    const covered = { looked: 0, paused: 0, moved: 0 };
    // Lengths of more than two days are told in halves of the longest one.
    const { week } = calendarOf(desk.running.house.db, 'desk');
    const at = (clock: string): number => Number(clock.slice(0, 2)) * 60 + Number(clock.slice(3));
    const day = Math.max(...week.map((hours) => hours.reduce((sum, [from, to]) => sum + at(to) - at(from), 0)));
    for (const row of rows.slice(0, 60)) {
      const counted = slowly(row.number);
      const told = { first: row.first, finish: row.finish, paused: row.paused };
      for (const figure of ['first', 'finish', 'paused'] as const) {
        const said = told[figure];
        if (!said) continue;
        const within = 'days' in said ? day / 2 : counted.moves + 2;
        const off = Math.abs(minutesOf(said, day) - counted[figure]);
        expect([row.number, figure, off <= within ? 'as counted' : [said, counted[figure]]]).toEqual([
          ...[row.number, figure, 'as counted'],
        ]);
      }
      covered.looked += 1;
      covered.paused += Number(counted.paused > 0);
      covered.moved += Number(counted.moves > 1);
    }
    console.info('service times:', covered);
    expect(Object.values(covered).every((count) => count > 0)).toBe(true);
  });

  it('agree with the rows behind each figure, however they are put together', async () => {
    for (const by of ['form', 'team', 'row', 'handler', 'month', 'week']) {
      const { all, lines } = await times({ by });
      expect(lines.length).toBeGreaterThan(1);
      for (const figure of ['came', 'went', 'open', 'late'] as const) {
        expect((await behind({ by, figure })).total).toBe(all[figure]);
        for (const line of lines.slice(0, 6))
          expect([by, line.key, figure, (await behind({ by, figure, line: line.key })).total]).toEqual([
            ...[by, line.key, figure, line[figure]],
          ]);
        // Open is counted at the end of each stretch.
        if (figure !== 'open' || !/week|month/.test(by))
          expect(lines.reduce((sum: number, line: Record<string, number>) => sum + (line[figure] ?? 0), 0)).toBe(
            all[figure],
          );
      }
    }
  });

  it('are of one register by its stages, and of what somebody reads alone', async () => {
    const whole = await times({ of: 'site-access' });
    expect(whole.all.stages.length).toBeGreaterThan(1);
    const bram = await desk.as('Bram Solheim');
    const theirs = await times({ by: 'team' }, bram);
    expect(theirs.all.went).toBeLessThan((await times({ by: 'team' })).all.went);
    const { rows } = await behind({ figure: 'went' }, bram);
    for (const { number } of rows.slice(0, 10))
      expect((await bram.call('sheet', { params: { number } })).status).toBe(200);
    const priya = await desk.as('Priya Nakamura-Lind');
    expect((await times({}, priya)).all).toMatchObject({ came: 0, went: 0, open: 0 });
  });
});
