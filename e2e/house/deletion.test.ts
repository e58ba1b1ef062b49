import { designStates, designs } from '@tolvek/server/schema';
import { eq } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Caller, Desk, freshly, ok, STORM, VISIT } from './desk.ts';

let desk: Desk;
let ada: Caller;
let maren: Caller;
beforeAll(async () => {
  desk = await Desk.open();
  [ada, maren] = [await desk.as('Ada Quillfeather'), await desk.as('Maren Okafor')];
});
afterAll(() => desk.close());

type At = { readonly kind: 'group' | 'calendar' | 'vocabulary'; readonly key: string };
const plan = async (at: At) => ok(await ada.call('groundDeletion', { params: at }));
const remove = (at: At, who = ada) => who.call('deleteGround', { params: at });

describe('what is deleted of the ground', () => {
  it('is what nothing uses, whatever uses it is named, and each kind is another’s right', async () => {
    const uses = async (at: At) =>
      (await plan(at)).uses.map(({ title, at: where }: { title: string; at: string }) => `${title} ${where}`);
    expect(await uses({ kind: 'calendar', key: 'desk' })).toContain('Desk uses it now');
    expect(await uses({ kind: 'vocabulary', key: 'species' })).not.toEqual([]);
    expect(await uses({ kind: 'group', key: 'estates' })).toContain('Come on site uses it now');
    for (const at of [
      { kind: 'calendar', key: 'desk' },
      { kind: 'vocabulary', key: 'species' },
      { kind: 'group', key: 'estates' },
    ] as const)
      expect([at.key, (await remove(at)).body.type]).toEqual([at.key, 'urn:tolvek:problem:in-use']);
    const priya = await desk.as('Priya Nakamura-Lind');
    expect((await remove({ kind: 'calendar', key: 'desk' }, priya)).status).toBe(403);
    expect((await remove({ kind: 'group', key: 'no-such-group' })).status).toBe(404);
  });

  it('is a calendar and a vocabulary with all they were, with a line in the history of the desk', async () => {
    const { db } = desk.running.house;
    const calendar = { calendar: { ...STORM, name: 'Winter' } };
    const { key: winter } = ok(await ada.call('createCalendar', { headers: freshly(), body: calendar }));
    const { key: hazards } = ok(
      await maren.call('createVocabulary', { headers: freshly(), body: { name: 'Hazards' } }),
    );
    const idOf = (key: string) => db.select().from(designs).where(eq(designs.key, key)).get()?.id ?? '';
    const ids = [idOf(winter), idOf(hazards)];
    ok(await remove({ kind: 'calendar', key: winter }));
    ok(await remove({ kind: 'vocabulary', key: hazards }, maren));
    for (const id of ids) expect(db.select().from(designStates).where(eq(designStates.designId, id)).all()).toEqual([]);
    const names = ok(await ada.call('calendars')).calendars.map(({ name }: { name: string }) => name);
    expect(names).not.toContain('Winter');
    const { history } = ok(await ada.call('deskSettings'));
    expect(history.slice(0, 2).map(({ words, by }: { words: string; by: string }) => `${by}: ${words}`)).toEqual([
      'Maren Okafor: Deleted the vocabulary “Hazards”',
      'Ada Quillfeather: Deleted the calendar “Winter”',
    ]);
    // Its name is free again.
    ok(await maren.call('createVocabulary', { headers: freshly(), body: { name: 'Hazards' } }));
  });

  it('is a group with its members, rights and places in others; histories still name it', async () => {
    const { key } = ok(
      await maren.call('addGroup', { headers: freshly(), body: { name: 'Night watch', isTeam: true } }),
    );
    const enter = { params: { key }, headers: freshly() };
    ok(
      await maren.call('enterGroup', {
        ...enter,
        body: { person: desk.idOf('Hanne Istvan'), from: null, until: null },
      }),
    );
    const into = { params: { key: 'boats' }, headers: freshly() };
    ok(await maren.call('enterGroup', { ...into, body: { group: key, from: null, until: null } }));
    ok(await ada.call('changeRights', { params: { subject: key }, body: { give: ['read:all'], take: [] } }));
    const here = { register: 'purchase', give: ['change:all'], take: [] };
    ok(await ada.call('changeRights', { params: { subject: key }, body: here }));
    const hanne = await desk.as('Hanne Istvan');
    expect(ok(await hanne.call('me')).person.rights).toContain('read:all');
    // A request of theirs keeps it from being deleted, until it is another’s.
    const number = ok(await maren.submit('come-on-site', VISIT)).number as string;
    const move = async (team: string) => {
      const { version } = ok(await ada.call('sheet', { params: { number } }));
      const on = { params: { number }, headers: { 'If-Match': `"${version}"` } };
      ok(await ada.call('reroute', { ...on, body: { team, priority: 'normal' } }));
    };
    await move(key);
    expect((await remove({ kind: 'group', key })).body.type).toBe('urn:tolvek:problem:in-use');
    await move('estates');
    expect((await plan({ kind: 'group', key })).goes).toEqual([
      'The group appears in no list any more. Histories still show its name.',
      '1 membership ends',
      '1 group no longer contains it',
      '1 right of the group ends',
    ]);
    ok(await remove({ kind: 'group', key }, maren));
    expect(ok(await hanne.call('me')).person).toMatchObject({
      groups: [],
      rights: expect.not.arrayContaining(['read:all']),
    });
    const listed = ok(await ada.call('groups')).groups.map(({ name }: { name: string }) => name);
    expect([listed.includes('Night watch'), (await ada.call('group', { params: { key } })).status]).toEqual([
      false,
      404,
    ]);
    const { teams, history } = await ada.sheet(number);
    expect(teams.map(({ name }: { name: string }) => name)).not.toContain('Night watch');
    expect(history.map(({ what }: { what: string }) => what).join()).toContain('Night watch');
    expect(
      ok(await ada.call('registerRights', { params: { key: 'purchase' } })).subjects.map(
        ({ name }: { name: string }) => name,
      ),
    ).not.toContain('Night watch');
    // Another group of that name is another one.
    const again = ok(await maren.call('addGroup', { headers: freshly(), body: { name: 'Night watch', isTeam: true } }));
    expect(again.key).not.toBe(key);
  });
});
