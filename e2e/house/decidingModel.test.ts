import type { ApprovalPath, SeatPlan } from '@tolvek/core/approval';
import type { FormDesign } from '@tolvek/core/form';
import { approvalRounds, approvalSteps, groupEntries, notices, requests, seats } from '@tolvek/server/schema';
import { and, eq } from 'drizzle-orm';
import * as fc from 'fast-check';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { often } from '../../core/laws/often.ts';
import { type Answer, type Caller, Desk, freshly, ok, onVersion, WATER } from './desk.ts';

/**
 * Decisions over the whole house, while people leave, come back, are away and change groups: who may decide is what a slow
 * reading says of what this test did itself, every round ends or waits for somebody, and where it can’t, that is told.
 */
let desk: Desk;
let release = 0;
/** They decide, and ask sometimes; the last only takes the place of others. */
const PEOPLE = ['Edda Kilbride', 'Hanne Istvan', 'Oskar Veldhuis', 'Declan Oyelaran', 'Tomas Achterberg'] as const;
const SUBSTITUTE = 'Tomas Achterberg';
type Name = (typeof PEOPLE)[number];
const callers = new Map<string, Caller>();
const as = (name: string): Caller => callers.get(name) as Caller;
const PATHS = ['one', 'pair', 'panel', 'both', 'two-of-three'] as const;
let panel = '';

/** What this test did to people: what it is told by the house is not asked. */
const active = new Set<Name>(PEOPLE);
const away = new Map<Name, boolean>();
const members = new Set<Name>();

beforeAll(async () => {
  desk = await Desk.open();
  for (const name of [...PEOPLE, 'Maren Okafor', 'Priya Nakamura-Lind', 'Ada Quillfeather'])
    callers.set(name, await desk.as(name));
  panel = ok(
    await as('Ada Quillfeather').call('addGroup', { headers: freshly(), body: { name: 'Panel', isTeam: false } }),
  ).key;
  for (const name of ['Edda Kilbride', 'Hanne Istvan', 'Oskar Veldhuis'] as const) await enter(name);
  const person = (name: Name): SeatPlan => ({ person: desk.idOf(name) });
  const step = (id: string, needed: number, some: readonly SeatPlan[], more: object = {}) => ({
    ...{ id, label: `Step ${id}`, needed, seats: some },
    ...more,
  });
  const group = { group: panel };
  const paths: readonly ApprovalPath[] = [
    { id: 'one', label: 'One', steps: [step('one-1', 1, [person('Hanne Istvan')])] },
    {
      id: 'pair',
      label: 'Pair',
      steps: [
        step('pair-1', 2, [person('Edda Kilbride'), person('Oskar Veldhuis')], {
          instead: [person('Declan Oyelaran')],
        }),
      ],
    },
    { id: 'panel', label: 'Panel', steps: [step('panel-1', 2, [group, group, group], { against: 1 })] },
    {
      id: 'both',
      label: 'Both',
      steps: [step('both-1', 1, [group]), step('both-2', 1, [person('Hanne Istvan'), person('Declan Oyelaran')])],
    },
    {
      id: 'two-of-three',
      label: 'Two of three',
      steps: [step('three-1', 2, [person('Edda Kilbride'), person('Hanne Istvan'), group], { against: 0 })],
    },
  ];
  const of = { params: { key: 'site-access' } };
  const maren = as('Maren Okafor');
  const { draft, version } = ok(await maren.call('form', of)) as { draft: FormDesign; version: number };
  const { otherwise } = draft.routing;
  const fresh: FormDesign = {
    ...draft,
    routing: {
      columns: [{ id: 'why', label: 'Why', input: 'reason' }],
      rows: paths.map(({ id }) => ({
        ...{ id: `row-${id}`, note: '', cells: { why: `"${id}"` }, outcome: { ...otherwise, path: id } },
      })),
      otherwise: { ...otherwise, path: null },
    },
    approval: { paths },
  };
  const saved = ok(await maren.call('saveDraft', { ...of, headers: onVersion(version), body: { draft: fresh } }));
  release = ok(
    await maren.call('releaseForm', { ...of, headers: onVersion(saved.version), body: { note: '' } }),
  ).number;
});
afterAll(() => desk.close());

async function enter(name: Name): Promise<void> {
  const body = { person: desk.idOf(name), from: null, until: null };
  ok(await as('Ada Quillfeather').call('enterGroup', { params: { key: panel }, headers: freshly(), body }));
  members.add(name);
}
async function leaveGroup(name: Name): Promise<void> {
  const where = and(eq(groupEntries.groupKey, panel), eq(groupEntries.personId, desk.idOf(name)));
  for (const { id } of desk.running.house.db.select().from(groupEntries).where(where).all())
    await as('Ada Quillfeather').call('leaveGroup', { params: { key: panel, entry: id } });
  members.delete(name);
}
async function setActive(name: Name, is: boolean): Promise<void> {
  const params = { id: desk.idOf(name) };
  const ada = as('Ada Quillfeather');
  const { version } = ok(await ada.call('person', { params }));
  ok(await ada.call('changePerson', { params, headers: onVersion(version), body: { active: is } }));
  if (is) {
    active.add(name);
    callers.set(name, await desk.anew(name));
  } else active.delete(name);
}
async function goAway(name: Name, withSubstitute: boolean): Promise<void> {
  const body = { from: '2026-11-23', until: null, substitute: withSubstitute ? desk.idOf(SUBSTITUTE) : null };
  ok(await as('Ada Quillfeather').call('addAbsence', { params: { id: desk.idOf(name) }, headers: freshly(), body }));
  away.set(name, withSubstitute);
}
async function comeBack(name: Name): Promise<void> {
  const id = desk.idOf(name);
  const { absences } = ok(await as('Ada Quillfeather').call('person', { params: { id } }));
  for (const each of absences)
    ok(await as('Ada Quillfeather').call('endAbsence', { params: { id, absence: each.id } }));
  away.delete(name);
}

/** Who holds a seat by its word, as this test knows them: those who left do not. */
const holding = (word: string): readonly Name[] =>
  PEOPLE.filter(
    (name) => active.has(name) && (word === `@${desk.idOf(name)}` || (word === panel && members.has(name))),
  );
/** Who takes their place today: where all of them are away, the one they named. */
const standingIn = (word: string): readonly Name[] => {
  const all = holding(word);
  return all.length > 0 && all.every((name) => away.has(name)) && all.some((name) => away.get(name))
    ? [SUBSTITUTE]
    : [];
};

/** How many of some seats one person each can take, tried in every way. */
function most([first, ...rest]: readonly (readonly Name[])[]): number {
  if (!first) return 0;
  const without = most(rest);
  return first.reduce((best, name) => {
    const left = rest.map((seat) => seat.filter((each) => each !== name));
    return Math.max(best, 1 + most(left));
  }, without);
}

type Seat = typeof seats.$inferSelect;
function roundsOf(number: string) {
  const { db } = desk.running.house;
  const request = db.select().from(requests).where(eq(requests.number, number)).get();
  if (!request) throw new Error(number);
  const rounds = db.select().from(approvalRounds).where(eq(approvalRounds.requestId, request.id)).all();
  const round = rounds.at(-1);
  const steps = db
    .select()
    .from(approvalSteps)
    .where(eq(approvalSteps.roundId, round?.id ?? ''))
    .all()
    .sort((a, b) => a.place - b.place)
    .map((step) => ({ ...step, seats: db.select().from(seats).where(eq(seats.stepId, step.id)).all() }));
  return { request, round, steps };
}
const count = (some: readonly Seat[], state: Seat['state']): number =>
  some.filter((seat) => seat.state === state).length;
const decidedAt = (some: readonly Seat[]): readonly string[] => some.flatMap(({ decidedBy }) => decidedBy ?? []);

/** Who has said something at the step that is asked. */
const heardAt = (steps: ReturnType<typeof roundsOf>['steps']): readonly string[] =>
  decidedAt(steps.find((each) => count(each.seats, 'open') > 0)?.seats ?? []);

/** Whether somebody may decide on a request just now. */
function mayDecide(name: Name, number: string): boolean {
  const { request, round, steps } = roundsOf(number);
  if (round?.state !== 'open' || request.requesterId === desk.idOf(name)) return false;
  const step = steps.find((each) => count(each.seats, 'open') > 0);
  if (!step || decidedAt(step.seats).includes(desk.idOf(name))) return false;
  return step.seats.some(
    ({ state, holder }) => state === 'open' && (holding(holder).includes(name) || standingIn(holder).includes(name)),
  );
}

const met = {
  ...{ decided: 0, refusedTo: 0, approved: 0, refused: 0, alarms: 0, ended: 0, handed: 0, returned: 0, answered: 0 },
  ...{ back: 0, left: 0, away: 0, grouped: 0, freed: 0 },
};

/** What holds of every request at any time. */
function check(number: string): void {
  const { request, round, steps } = roundsOf(number);
  if (!round) throw new Error(`${number} is not decided at all`);
  const isOpen = round.state === 'open';
  let isAhead = false;
  for (const step of steps) {
    const said = decidedAt(step.seats);
    const [approved, refused, open] = (['approved', 'refused', 'open'] as const).map((state) =>
      count(step.seats, state),
    );
    // Each says something once, and nobody about their own.
    expect([number, new Set(said).size]).toEqual([number, said.length]);
    expect([number, said.includes(request.requesterId ?? '')]).toEqual([number, false]);
    // No more than have to agree, and no more against than a step stands.
    expect([number, Number(approved) <= step.needed]).toEqual([number, true]);
    const isOver = Number(approved) >= step.needed || Number(refused) > (step.against ?? step.seats.length);
    if (isAhead) expect([number, step.label, said.length, open]).toEqual([number, step.label, 0, 0]);
    else if (isOver) expect([number, step.label, open]).toEqual([number, step.label, 0]);
    if (!isOver) isAhead = true;
  }
  const last = steps.at(-1);
  const isApproved = steps.every(({ seats: some, needed }) => count(some, 'approved') >= needed);
  if (round.state === 'approved' || isApproved)
    expect([number, round.state, isApproved]).toEqual([number, 'approved', true]);
  if (!isOpen) {
    expect([number, request.stage === 'deciding', steps.some(({ nobodySince }) => nobodySince !== null)]).toEqual([
      ...[number, false, false],
    ]);
    return;
  }
  expect(last).toBeDefined();
  expect([number, request.phase === 'paused' || request.stage === 'deciding']).toEqual([number, true]);
  // It waits for somebody, or that it does not is told.
  const step = steps.find(({ seats: some }) => count(some, 'open') > 0);
  if (!step) throw new Error(`${number} asks nobody`);
  const heard = decidedAt(step.seats);
  const able = step.seats
    .filter(({ state }) => state === 'open')
    .map(({ holder }) =>
      [...new Set([...holding(holder), ...standingIn(holder)])].filter(
        (name) => desk.idOf(name) !== request.requesterId && !heard.includes(desk.idOf(name)),
      ),
    );
  const lacks = count(step.seats, 'approved') + most(able) < step.needed;
  expect([number, step.label, able, lacks]).toEqual([number, step.label, able, step.nobodySince !== null]);
  if (lacks) met.alarms += 1;
}

const commands = fc.array(
  fc.record({
    what: fc.constantFrom(
      ...(['decide', 'decide', 'decide', 'decide', 'refuse', 'return', 'answer', 'hand', 'back'] as const),
      ...(['leave', 'away', 'group', 'free', 'ask'] as const),
    ),
    who: fc.constantFrom(...PEOPLE),
    other: fc.constantFrom(...PEOPLE),
    at: fc.nat(20),
  }),
  { minLength: 20, maxLength: 35 },
);

let visitors = 0;
async function ask(by: string, path: string): Promise<string> {
  visitors += 1;
  const answers = {
    ...WATER,
    arrival: '2027-01-11',
    departure: '2027-01-12',
    visitor: `Visitor ${visitors}`,
    reason: path,
  };
  return ok(await as(by).submit('come-on-site', answers, { release })).number;
}

async function decide(name: Name, number: string, verdict: string): Promise<Answer> {
  const sheet = await as(name).call('sheet', { params: { number } });
  const seen = sheet.status === 200 ? sheet.body.approval.seen : 'unread';
  const body = { verdict, comment: verdict === 'approve' ? '' : 'Because.', seen };
  return as(name).call('decide', { params: { number }, headers: freshly(), body });
}

it('never ends in nobody unsaid, and lets nobody decide who may not, whatever becomes of people meanwhile', async () => {
  await fc.assert(
    fc.asyncProperty(commands, async (all) => {
      const open: string[] = [];
      for (const [at, path] of PATHS.entries())
        open.push(await ask(at % 2 === 0 ? 'Priya Nakamura-Lind' : 'Oskar Veldhuis', path));
      for (const { what, who, other, at } of all) {
        const waits = (each: string): boolean => {
          const { request, round } = roundsOf(each);
          return round?.state === 'open' && (what !== 'answer' || request.phase === 'paused');
        };
        const some = open.filter(waits);
        const number = (some.length > 0 ? some : open)[at % Math.max(1, some.length)] ?? '';
        const before = roundsOf(number);
        if (what === 'decide' || what === 'refuse' || what === 'return') {
          // Mostly somebody who may, else who has said something there, or anybody.
          const heard = heardAt(before.steps);
          const name =
            PEOPLE.find((each) => (at % 3 > 0 ? mayDecide(each, number) : heard.includes(desk.idOf(each)))) ?? who;
          if (!active.has(name)) continue;
          const may = mayDecide(name, number) && !(what === 'return' && before.request.phase === 'paused');
          const { status } = await decide(name, number, what === 'decide' ? 'approve' : what);
          expect([number, name, what, status === 200]).toEqual([number, name, what, may]);
          met[may ? (what === 'return' ? 'returned' : 'decided') : 'refusedTo'] += 1;
        } else if (what === 'answer') {
          const asker =
            before.request.requesterId === desk.idOf('Oskar Veldhuis') ? 'Oskar Veldhuis' : 'Priya Nakamura-Lind';
          if (asker === 'Oskar Veldhuis' && !active.has(asker)) continue;
          const isPaused = before.request.phase === 'paused' && before.round?.state === 'open';
          ok(await as(asker).call('myMessage', { params: { number }, body: { text: 'As you wish.' } }));
          if (isPaused) {
            expect(roundsOf(number).request.stage).toBe('deciding');
            met.answered += 1;
          }
        } else if (what === 'hand') {
          const body = { to: { person: desk.idOf(other) } };
          const { status } = await as('Maren Okafor').call('handDecision', { params: { number }, body });
          if (status === 200) met.handed += 1;
        } else if (what === 'back') {
          const heard = heardAt(before.steps);
          const name = PEOPLE.find((each) => heard.includes(desk.idOf(each))) ?? who;
          if (!active.has(name)) continue;
          const { status } = await as(name).call('takeBackDecision', { params: { number } });
          if (status === 200) met.back += 1;
        } else if (what === 'free') {
          const sheet = await as('Maren Okafor').sheet(number);
          if (before.round?.state !== 'open' || at % 3 > 0) continue;
          const body = { stage: 'arrived', reason: 'It is small.' };
          ok(
            await as('Maren Okafor').call('freeRequest', {
              params: { number },
              headers: onVersion(sheet.version),
              body,
            }),
          );
          met.freed += 1;
        } else if (what === 'ask') open.push(await ask('Priya Nakamura-Lind', PATHS[at % PATHS.length] ?? 'one'));
        else if (who === SUBSTITUTE) continue;
        else if (what === 'leave') {
          await setActive(who, !active.has(who));
          met.left += 1;
        } else if (what === 'away') {
          if (!active.has(who)) continue;
          if (away.has(who)) await comeBack(who);
          else await goAway(who, at % 2 === 0);
          met.away += 1;
        } else {
          if (!active.has(who)) continue;
          if (members.has(who)) await leaveGroup(who);
          else await enter(who);
          met.grouped += 1;
        }
        await desk.running.dayTurned();
        for (const each of open) check(each);
      }
      // Everybody is here again: whatever is left ends by those whom it waits for, or a coordinator.
      for (const name of PEOPLE) {
        if (!active.has(name)) await setActive(name, true);
        if (away.has(name)) await comeBack(name);
      }
      await desk.running.dayTurned();
      for (const number of open) {
        for (let tries = 0; tries < 8 && roundsOf(number).round?.state === 'open'; tries += 1) {
          const next = PEOPLE.find((name) => mayDecide(name, number));
          if (next) expect([number, next, (await decide(next, number, 'approve')).status]).toEqual([number, next, 200]);
          else {
            expect(roundsOf(number).steps.some(({ nobodySince }) => nobodySince !== null)).toBe(true);
            const sheet = await as('Maren Okafor').sheet(number);
            const body = { stage: 'arrived', reason: 'Nobody is left.' };
            ok(
              await as('Maren Okafor').call('freeRequest', {
                params: { number },
                headers: onVersion(sheet.version),
                body,
              }),
            );
          }
          check(number);
        }
        const { round } = roundsOf(number);
        expect([number, round?.state === 'open']).toEqual([number, false]);
        met.ended += 1;
        if (round?.state === 'approved' || round?.state === 'refused') met[round.state] += 1;
      }
      for (const name of ['Edda Kilbride', 'Hanne Istvan', 'Oskar Veldhuis'] as const)
        if (!members.has(name)) await enter(name);
      if (members.has('Declan Oyelaran')) await leaveGroup('Declan Oyelaran');
    }),
    { numRuns: often(12), endOnFailure: true },
  );
  console.log('decided over the whole house:', met);
  const told = desk.running.house.db.select().from(notices).where(eq(notices.kind, 'nobody-decides')).all();
  expect(told.length).toBeGreaterThan(0);
  for (const [name, times] of Object.entries(met)) expect([name, times > 0]).toEqual([name, true]);
});
