import type { AccessRule } from '@tolvek/core/access';
import type { FormDesign } from '@tolvek/core/form';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Answer, type Caller, Desk, freshly, ok, onVersion, WATER } from './desk.ts';

let desk: Desk;
let maren: Caller;
let priya: Caller;
const idOf = (name: string): string => desk.idOf(name);
const away = (name: string, substitute: string | null, from = '2026-11-23', until: string | null = '2026-12-31') =>
  maren.call('addAbsence', {
    params: { id: idOf(name) },
    headers: freshly(),
    body: { from, until, substitute: substitute === null ? null : idOf(substitute) },
  });
/** Ends every absence of somebody. */
const back = async (name: string): Promise<void> => {
  const { absences } = ok(await maren.call('person', { params: { id: idOf(name) } }));
  for (const { id } of absences) ok(await maren.call('endAbsence', { params: { id: idOf(name), absence: id } }));
};

beforeAll(async () => {
  desk = await Desk.open();
  [maren, priya] = [await desk.as('Maren Okafor'), await desk.as('Priya Nakamura-Lind')];
  const params = { key: 'site-access' };
  const { draft, version } = ok(await maren.call('form', { params })) as { draft: FormDesign; version: number };
  const steps = [
    { id: 'one', label: 'Safety', seats: [{ person: idOf('Oskar Veldhuis') }], needed: 1 },
    { id: 'two', label: 'Duty manager', seats: [{ group: 'duty-managers' }], needed: 1 },
  ];
  const approval = { paths: [{ id: 'path', label: '', steps }] };
  const saved = ok(
    await maren.call('saveDraft', { params, headers: onVersion(version), body: { draft: { ...draft, approval } } }),
  );
  ok(await maren.call('releaseForm', { params, headers: onVersion(saved.version), body: { note: 'In turn' } }));
});
afterAll(() => desk.close());

let visitors = 0;
const ask = async (by = priya): Promise<string> => {
  visitors += 1;
  const answers = { ...WATER, visitor: `Visitor number ${'x'.repeat(visitors)}` };
  return ok(await by.submit('come-on-site', answers, { release: 2 })).number;
};
const decide = async (who: Caller, number: string): Promise<Answer> =>
  who.call('decide', {
    ...{ params: { number }, headers: freshly() },
    body: { verdict: 'approve', comment: '', seen: await who.seen(number) },
  });
const lettersTo = async (address: string): Promise<number> =>
  (await desk.letters()).filter(({ to, text }) => to.includes(address) && text.includes('/decide/')).length;
const waitsFor = async (who: Caller): Promise<readonly string[]> =>
  ok(await who.call('ledger', { query: { tray: 'deciding' } })).rows.map(({ number }: { number: string }) => number);

describe('a substitute', () => {
  it('reads what is asked of whoever is away while it is open, writes nothing in it, and decides', async () => {
    const hanne = await desk.as('Hanne Istvan');
    const [before, hers] = [await ask(), await ask(hanne)];
    expect((await hanne.call('sheet', { params: { number: before } })).status).toBe(404);
    const told = await lettersTo('hanne.istvan');
    ok(await away('Oskar Veldhuis', 'Hanne Istvan'));
    // What waits already is asked of her at once, but for what she asked for herself.
    expect([await lettersTo('hanne.istvan'), await waitsFor(hanne)]).toEqual([told + 1, [before]]);
    const oskars = await lettersTo('oskar.veldhuis');
    const number = await ask();
    expect([await lettersTo('hanne.istvan'), await lettersTo('oskar.veldhuis')]).toEqual([told + 2, oskars]);
    const sheet = await hanne.sheet(number);
    expect(sheet.approval).toMatchObject({ group: 'Oskar Veldhuis', instead: ['Hanne Istvan'], mayDecide: true });
    // What the plan opens to who decides it opens to her, for as long.
    const { access } = desk.register('site-access');
    const reads = async (): Promise<boolean> =>
      (await hanne.sheet(number)).values.fields.some(({ key }: { key: string }) => key === 'medical_note');
    expect(await reads()).toBe(false);
    const opened = { id: 'd', name: 'Who decides reads it', fields: ['medical_note'], level: 'read', overriding: true };
    const audience = { in: { anyOf: ['~decider'] }, outOf: [] };
    desk.protect('site-access', { ...access, rules: [...access.rules, { ...opened, audience } as AccessRule] });
    expect(await reads()).toBe(true);
    desk.protect('site-access', access);
    // She sees what happened, as whoever she stands in for would, and does nothing else.
    const { history, ...others } = sheet.may;
    expect([history, sheet.history.length > 0, Object.values(others).includes(true)]).toEqual([true, true, false]);
    expect(sheet.values.fields.some(({ writable }: { writable: boolean }) => writable)).toBe(false);
    const write = {
      params: { number },
      headers: { 'If-Match': `"${sheet.version}"` },
      body: { changes: { escort: 'Me' } },
    };
    expect((await hanne.call('changeFields', write)).status).toBe(403);
    expect((await hanne.call('sheet', { params: { number: hers } })).status).toBe(404);
    expect(ok(await hanne.call('account')).standsIn).toEqual(['Oskar Veldhuis']);
    ok(await decide(hanne, number));
    // The next step is not hers, and what she decided is closed to her again.
    expect((await hanne.call('sheet', { params: { number } })).status).toBe(404);
    expect((await maren.sheet(number)).approval).toMatchObject({ label: 'Duty manager' });
    // Who is away can decide all the same.
    ok(await decide(await desk.as('Oskar Veldhuis'), before));
    const last = await ask();
    const token = await desk.tokenFor('hanne.istvan', 'decide');
    await back('Oskar Veldhuis');
    expect((await hanne.call('sheet', { params: { number: last } })).status).toBe(404);
    expect(await waitsFor(hanne)).toEqual([]);
    const byLink = { params: { token }, headers: freshly(), body: { verdict: 'approve', comment: '', seen: '' } };
    expect((await (await desk.as()).call('decideByLink', byLink)).status).toBe(403);
  });

  it('is asked by the seats of a group when all of it are away, and theirs when they are away too', async () => {
    const ruadhan = await desk.as('Ruadhan Pell');
    ok(await away('Edda Kilbride', 'Mireille Thorsby'));
    const first = await ask();
    ok(await decide(await desk.as('Oskar Veldhuis'), first));
    expect((await (await desk.as('Mireille Thorsby')).call('sheet', { params: { number: first } })).status).toBe(404);
    ok(await away('Tomas Achterberg', null));
    expect((await maren.sheet(first)).approval).toMatchObject({
      group: 'Duty managers',
      instead: ['Mireille Thorsby'],
    });
    ok(await away('Mireille Thorsby', 'Ruadhan Pell', '2026-11-23', null));
    expect((await maren.sheet(first)).approval.instead).toEqual(['Ruadhan Pell']);
    const told = await lettersTo('ruadhan.pell');
    expect(told).toBeGreaterThan(0);
    ok(await away('Ruadhan Pell', 'Mireille Thorsby'));
    // After two it ends: nobody takes a place whose taker is away.
    expect((await maren.sheet(first)).approval.instead).toEqual([]);
    await back('Ruadhan Pell');
    ok(await decide(ruadhan, first));
    for (const name of ['Edda Kilbride', 'Tomas Achterberg', 'Mireille Thorsby']) await back(name);
    expect(await waitsFor(ruadhan)).toEqual([]);
  });

  it('takes the place on the first day, by the clock of the desk, and hears of it then', async () => {
    const number = await ask();
    const told = await lettersTo('declan.oyelaran');
    ok(await away('Oskar Veldhuis', 'Declan Oyelaran', '2026-11-24', '2026-11-24'));
    const declan = await desk.as('Declan Oyelaran');
    expect([await waitsFor(declan), await lettersTo('declan.oyelaran')]).toEqual([[], told]);
    ok(await declan.call('advanceClock', { body: { minutes: 24 * 60 } }));
    await desk.running.dayTurned();
    await expect.poll(() => waitsFor(declan), { timeout: 60_000 }).toContain(number);
    expect(await lettersTo('declan.oyelaran')).toBe(told + (await waitsFor(declan)).length);
    ok(await declan.call('advanceClock', { body: { minutes: 24 * 60 } }));
    await desk.running.dayTurned();
    await expect.poll(() => waitsFor(declan), { timeout: 60_000 }).toEqual([]);
  });
});

describe('an absence', () => {
  it('is said by whoever is away, or by who looks after people; its days and its substitute fit', async () => {
    const day = '2027-01-04';
    const bram = await desk.as('Bram Solheim');
    const own = (body: object) => bram.call('addOwnAbsence', { headers: freshly(), body });
    const fields = ({ body }: Answer) => body.problems.map(({ field }: { field: string }) => field);
    expect(fields(await own({ from: day, until: '2027-01-01', substitute: null }))).toEqual(['until']);
    expect(fields(await own({ from: '2026-01-01', until: '2026-01-02', substitute: null }))).toEqual(['until']);
    expect(fields(await own({ from: day, until: null, substitute: idOf('Bram Solheim') }))).toEqual(['substitute']);
    expect(fields(await own({ from: day, until: null, substitute: idOf('Wim Haldane') }))).toEqual(['substitute']);
    // Nobody takes a place by their own word: what is asked of somebody else is not theirs to read.
    expect(fields(await away('Bram Solheim', 'Maren Okafor', day, null))).toEqual(['substitute']);
    const { id } = ok(await own({ from: day, until: null, substitute: idOf('Signe Halvard') }));
    expect(fields(await own({ from: '2026-12-30', until: '2027-02-01', substitute: null }))).toEqual(['from']);
    const { absences } = ok(await bram.call('account'));
    expect(absences).toEqual([
      { id, from: day, until: null, now: false, substitute: { id: idOf('Signe Halvard'), name: 'Signe Halvard' } },
    ]);
    const signe = await desk.as('Signe Halvard');
    expect((await signe.call('endOwnAbsence', { params: { absence: id } })).status).toBe(404);
    const forBram = {
      params: { id: idOf('Bram Solheim') },
      headers: freshly(),
      body: { from: day, until: null, substitute: null },
    };
    expect((await signe.call('addAbsence', forBram)).status).toBe(403);
    ok(await bram.call('endOwnAbsence', { params: { absence: id } }));
    expect(ok(await bram.call('account')).absences).toEqual([]);
    const { history } = ok(await maren.call('person', { params: { id: idOf('Bram Solheim') } }));
    expect(history.slice(0, 2).map(({ words }: { words: string }) => words)).toEqual([
      'Is back; the absence from 4 Jan 2027 is over',
      'Is away from 4 Jan 2027; Signe Halvard decides instead',
    ]);
  });

  it('names its substitute among colleagues who are found by part of a name or an address', async () => {
    const bram = await desk.as('Bram Solheim');
    const found = ok(await bram.call('colleagues', { query: { find: 'sol' } })).people;
    expect(found.map(({ email }: { email: string }) => email)).toEqual(['bram.solheim@skerrow.example']);
    expect(ok(await bram.call('colleagues')).people).toHaveLength(20);
  });
});
