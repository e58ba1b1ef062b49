import { RIGHTS } from '@tolvek/core/people';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Caller, Desk, freshly, ok } from './desk.ts';

let desk: Desk;
let ada: Caller;
beforeAll(async () => {
  desk = await Desk.open();
  ada = await desk.as('Ada Quillfeather');
});
afterAll(() => desk.close());

const idOf = (name: string): string => desk.idOf(name);
const give = (subject: string, rights: readonly string[], take: readonly string[] = []) =>
  ada.call('changeRights', { params: { subject }, body: { give: rights, take } });
/** Who has each right by now, as the page of rights says it. */
const now = async (): Promise<Record<string, readonly string[]>> => {
  const found: Record<string, readonly string[]> = {};
  for (const right of RIGHTS) {
    const { people: holders } = ok(await ada.call('rightHolders', { params: { right } }));
    found[right] = holders.map(({ name }: { name: string }) => name).sort();
  }
  return found;
};
const onDay = async (day: string) => {
  const told = ok(await ada.call('rightsOnDay', { params: { day } }));
  const rights = told.rights.map(({ right, people: holders }: { right: string; people: { name: string }[] }) => [
    right,
    holders.map(({ name }) => name).sort(),
  ]);
  return { rights: Object.fromEntries(rights), changes: told.changes };
};
const nextDay = async (): Promise<void> => {
  ok(await ada.call('advanceClock', { body: { minutes: 24 * 60 } }));
  await desk.running.dayTurned();
  await desk.running.lettersSent();
};

describe('who could do what on a day', () => {
  it('is told as it was at the end of each day, with what was set on it', async () => {
    const days = ['2026-11-23', '2026-11-24', '2026-11-25', '2026-11-26'];
    const was: Record<string, readonly string[]>[] = [];
    const enter = {
      params: { key: 'boats' },
      headers: freshly(),
      body: { person: idOf('Hanne Istvan'), from: null, until: '2026-11-24' },
    };
    // Monday: the boats may read all, and Hanne is one of them until Tuesday.
    ok(await give('boats', ['read:all']));
    ok(await ada.call('enterGroup', enter));
    was.push(await now());
    await nextDay();
    // Tuesday: Bram is kept out.
    const { version } = ok(await ada.call('person', { params: { id: idOf('Bram Solheim') } }));
    const out = {
      params: { id: idOf('Bram Solheim') },
      headers: { 'If-Match': `"${version}"` },
      body: { active: false },
    };
    ok(await ada.call('changePerson', out));
    was.push(await now());
    await nextDay();
    expect((await now())['read:all']).not.toContain('Hanne Istvan');
    // Wednesday: somebody new, and the boats may read what is theirs alone.
    const nell = { kind: 'staff', name: 'Nell Hartwick', email: 'nell.hartwick@skerrow.example', role: 'coordinator' };
    ok(await ada.call('addPerson', { headers: freshly(), body: nell }));
    ok(await give('boats', [], ['read:all']));
    was.push(await now());
    await nextDay();
    ok(await give('*', ['export:team']));
    was.push(await now());
    for (const [place, day] of days.entries()) expect([day, (await onDay(day)).rights]).toEqual([day, was[place]]);
    const { changes } = await onDay('2026-11-24');
    expect(
      changes.map(({ about, words, by }: { about: string; words: string; by: string }) => `${by}: ${about}: ${words}`),
    ).toEqual(['Ada Quillfeather: Bram Solheim: Made inactive']);
    const monday = (await onDay('2026-11-23')).changes.map(
      ({ about, words }: { about: string; words: string }) => `${about}: ${words}`,
    );
    expect(monday).toContain('Boats: Got the right: Read all requests');
    expect(monday).toContain('Boats: Hanne Istvan came into “Boats” until 24 Nov 2026');
  });

  it('is for whoever may look back, and for days that have been', async () => {
    const maren = await desk.as('Maren Okafor');
    expect((await maren.call('rightsOnDay', { params: { day: '2026-11-24' } })).status).toBe(403);
    expect((await ada.call('rightsOnDay', { params: { day: '2027-11-24' } })).status).toBe(422);
    // Before the desk was laid nobody could do anything.
    const { rights } = await onDay('2026-01-01');
    expect(rights.rights).toEqual([]);
  });
});

describe('whatever is exported', () => {
  it('is in the log before it leaves, with who took what and from where', async () => {
    const day = new Date(desk.running.house.clock.now()).toISOString().slice(0, 10);
    const looks = async (): Promise<readonly { by: string; words: string }[]> =>
      ok(await ada.call('rightsOnDay', { params: { day } })).looks;
    const before = (await looks()).length;
    const view = {
      ...{ name: '', of: ['site-access', 'purchase'], when: 'request.stage = "arrived"', groups: [], orders: [] },
      ...{ marks: [], columns: [{ of: 'request.number' }], shapes: [{ is: 'table' }], audience: null },
    };
    for (const [named, as] of [
      ['', 'csv'],
      ['What has come', 'json'],
    ])
      expect((await ada.call('takeOutView', { body: { view: { ...view, name: named }, as } })).status).toBe(200);
    expect((await ada.call('takeOut', { params: { key: 'site-access' } })).status).toBe(200);
    // Whoever may not take it out leaves no line.
    const tomas = await desk.as('Tomas Achterberg');
    expect((await tomas.call('takeOut', { params: { key: 'concern-report' } })).status).toBeGreaterThan(399);
    const found = (await looks()).slice(0, (await looks()).length - before).map(({ by, words }) => `${by}: ${words}`);
    expect(found.sort()).toEqual([
      'Ada Quillfeather: Exported “Come on site” as CSV (Site access)',
      'Ada Quillfeather: Exported “Site access and Purchase, where Stage of the request is Arrived” as CSV (Purchase)',
      'Ada Quillfeather: Exported “Site access and Purchase, where Stage of the request is Arrived” as CSV (Site access)',
      'Ada Quillfeather: Exported “What has come” as JSON (Purchase)',
      'Ada Quillfeather: Exported “What has come” as JSON (Site access)',
    ]);
  });
});
