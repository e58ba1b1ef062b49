import type { FormDesign } from '@tolvek/core/form';
import { addresses, people, requests, seats } from '@tolvek/server/schema';
import { eq } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Answer, type Caller, Desk, freshly, ok, onVersion, VISIT, WATER } from './desk.ts';

let desk: Desk;
let maren: Caller;
let ada: Caller;
const idAt = (address: string): string =>
  desk.running.house.db.select({ id: addresses.personId }).from(addresses).where(eq(addresses.address, address)).get()
    ?.id ?? '';
const idOf = (name: string): string => idAt(`${name.toLowerCase().replace(/[^a-z]+/g, '.')}@skerrow.example`);
const merge = (into: string, other: string, by = maren): Promise<Answer> =>
  by.call('mergePeople', { params: { id: into }, body: { other } });

beforeAll(async () => {
  desk = await Desk.open();
  [maren, ada] = [await desk.as('Maren Okafor'), await desk.as('Ada Quillfeather')];
});
afterAll(() => desk.close());

describe('two records of one person', () => {
  it('become one: what was asked, decided and typed by either is theirs, and both addresses find them', async () => {
    const { db } = desk.running.house;
    const add = async (name: string, email: string, groups: readonly string[]) =>
      ok(await maren.call('addPerson', { headers: freshly(), body: { kind: 'staff', name, email, groups } }))
        .id as string;
    const other = await add('Hanne Istvan-Roe', 'hanne.roe@skerrow.example', ['boats']);
    const stays = idOf('Hanne Istvan');
    // A form that asks the other record to decide, with a request that waits for it and one that it asked for.
    const params = { key: 'site-access' };
    const { draft, version } = ok(await maren.call('form', { params })) as { draft: FormDesign; version: number };
    const steps = [{ id: 'one', label: 'Safety', seats: [{ person: other }], needed: 1 }];
    const approval = { paths: [{ id: 'path', label: '', steps }] };
    const saved = ok(
      await maren.call('saveDraft', { params, headers: onVersion(version), body: { draft: { ...draft, approval } } }),
    );
    ok(await maren.call('releaseForm', { params, headers: onVersion(saved.version), body: { note: 'One decides' } }));
    const priya = await desk.as('Priya Nakamura-Lind');
    const { number: waiting } = ok(await priya.submit('come-on-site', WATER, { release: 2 }));
    ok(await maren.call('invite', { body: { people: [other] } }));
    const token = await desk.tokenFor('hanne.roe', 'welcome');
    const password = 'gulls over grey water';
    ok(await (await desk.as()).call('acceptInvitation', { params: { token }, body: { password } }));
    const her = (await desk.by('hanne.roe@skerrow.example', password)) as Caller;
    const { number: asked } = ok(await her.submit('come-on-site', VISIT, { release: 2 }));
    // A profile and a boat name the other record.
    const { version: signes } = ok(await maren.call('person', { params: { id: idOf('Signe Halvard') } }));
    const lead = {
      params: { id: idOf('Signe Halvard') },
      headers: onVersion(signes),
      body: { profile: { lead: other } },
    };
    ok(await maren.call('changePerson', lead));

    ok(await (await desk.as()).call('forgotPassword', { body: { email: 'hanne.roe@skerrow.example' } }));
    await desk.running.lettersSent();
    const reset = await desk.tokenFor('hanne.roe', 'welcome');
    const plan = ok(await maren.call('mergePlan', { params: { id: stays }, query: { other } }));
    expect(plan).toEqual({
      requests: 2,
      groups: ['Boats', 'Field teams'],
      addresses: ['hanne.roe@skerrow.example'],
      rights: 0,
      named: 1,
    });
    expect(ok(await merge(stays, other))).toEqual({ requests: 2 });
    expect([idAt('hanne.roe@skerrow.example'), idAt('hanne.istvan@skerrow.example')]).toEqual([stays, stays]);
    // A link to another password of the record that went opens nothing.
    const body = { password: 'a wren in the quince' };
    const stranger = await desk.as();
    expect((await stranger.call('acceptInvitation', { params: { token: reset }, body })).status).toBe(404);
    // Whoever came in by the other record does so no more; by the one that stays they see what was asked by either.
    expect(ok(await her.call('me')).person).toBeNull();
    const hanne = await desk.as('Hanne Istvan');
    expect(ok(await hanne.call('myRequest', { params: { number: asked } })).number).toBe(asked);
    expect((await hanne.sheet(waiting)).approval).toMatchObject({ group: 'Hanne Istvan', mayDecide: true });
    expect((await maren.sheet(waiting)).history.at(-1).what).toBe('Two records of Hanne Istvan are one now');
    const told = ok(await maren.call('person', { params: { id: other } }));
    expect([told.id, told.addresses, told.groups.map(({ key: of }: { key: string }) => of)]).toEqual([
      stays,
      ['hanne.istvan@skerrow.example', 'hanne.roe@skerrow.example'],
      ['boats', 'field_teams'],
    ]);
    const words = told.history.map((line: { words: string }) => line.words);
    expect(words).toContain('Merged with the record of Hanne Istvan-Roe, hanne.roe@skerrow.example');
    expect(ok(await maren.call('person', { params: { id: idOf('Signe Halvard') } })).typed.lead).toBe(stays);
    // What is released still names the other record: from now on it asks the one.
    const { number: later } = ok(
      await priya.submit('come-on-site', { ...WATER, visitor: 'Someone else' }, { release: 2 }),
    );
    expect((await hanne.sheet(later)).approval).toMatchObject({ group: 'Hanne Istvan', mayDecide: true });
    // Nothing names it any more.
    const left = JSON.stringify([
      db
        .select()
        .from(requests)
        .all()
        .map(({ routed: _, ...request }) => request),
      db.select().from(seats).all(),
    ]);
    expect(left).not.toContain(other);
    // The address of the other can be the one that is written to.
    const { version: now } = ok(await maren.call('person', { params: { id: stays } }));
    const email = 'hanne.roe@skerrow.example';
    ok(await maren.call('changePerson', { params: { id: stays }, headers: onVersion(now), body: { email } }));
    expect((await merge(stays, other)).status).toBe(409);
    expect(ok(await maren.call('people', { query: { find: 'hanne' } })).total).toBe(1);
  });

  it('give nobody more than who merges them has, and keep an administrator', async () => {
    const [maren1, ada1] = [idOf('Maren Okafor'), idOf('Ada Quillfeather')];
    expect((await merge(maren1, ada1)).status).toBe(403);
    expect((await merge(ada1, maren1)).status).toBe(409);
    expect((await merge(ada1, idOf('Bram Solheim'))).status).toBe(403);
    expect((await merge(maren1, maren1)).status).toBe(409);
    expect((await merge(idAt('wim.haldane@haldane.example'), idOf('Bram Solheim'))).status).toBe(409);
    const bram = await desk.as('Bram Solheim');
    expect((await merge(idOf('Bram Solheim'), idAt('wim.haldane@haldane.example'), bram)).status).toBe(403);
    // An administrator merged into somebody else makes them one: there is always one who can give rights.
    ok(await merge(idOf('Edda Kilbride'), maren1, ada));
    expect((await (await desk.as('Edda Kilbride')).call('people')).status).toBe(200);
    const last = desk.running.house.db.select().from(people).where(eq(people.id, maren1)).get();
    expect([last?.active, last?.mergedInto]).toEqual([false, idOf('Edda Kilbride')]);
  });
});
