import type { FormDesign } from '@tolvek/core/form';
import { newMailing } from '@tolvek/core/mailing';
import { owedForms, people } from '@tolvek/server/schema';
import { eq } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import { type Answer, type Caller, Desk, freshly, VISIT, WATER } from './desk.ts';

let desk: Desk;
let maren: Caller;
let priya: Caller;
let cormac: Caller;
const idOf = (name: string): string =>
  desk.running.house.db.select({ id: people.id }).from(people).where(eq(people.name, name)).get()?.id ?? '';
const ok = (answer: Answer): Answer['body'] => {
  expect([answer.route, answer.status, answer.status === 200 ? '' : answer.text]).toEqual([answer.route, 200, '']);
  return answer.body;
};
const leaves = (name: string, to: string | null, by = maren): Promise<Answer> =>
  by.call('handOver', { params: { id: idOf(name) }, body: { to: to === null ? null : idOf(to) } });

const NO_FORMS = { given: 0, ended: 0 };

beforeAll(async () => {
  desk = await Desk.open();
  [maren, priya, cormac] = (await Promise.all(
    ['Maren Okafor', 'Priya Nakamura-Lind', 'Cormac Dewhurst'].map((name) => desk.as(name)),
  )) as [Caller, Caller, Caller];
  const params = { key: 'site-access' };
  const { draft, version } = ok(await maren.call('form', { params })) as { draft: FormDesign; version: number };
  const seats = [{ person: idOf('Cormac Dewhurst') }];
  const steps = [{ id: 'one', label: 'Safety', seats, needed: 1 }];
  const approval = { paths: [{ id: 'path', label: '', steps }] };
  const onVersion = (on: number) => ({ 'If-Match': `"${on}"` });
  const saved = ok(
    await maren.call('saveDraft', { params, headers: onVersion(version), body: { draft: { ...draft, approval } } }),
  );
  ok(await maren.call('releaseForm', { params, headers: onVersion(saved.version), body: { note: 'Cormac decides' } }));
});
afterAll(() => desk.close());

const handled = async (answers: object): Promise<string> => {
  const { number } = ok(await priya.submit('come-on-site', answers, { release: 2 }));
  const { version } = await cormac.sheet(number);
  const body = { person: idOf('Cormac Dewhurst') };
  ok(await cormac.call('assign', { params: { number }, headers: { 'If-Match': `"${version}"` }, body }));
  return number;
};

describe('somebody who leaves', () => {
  it('hands over in one go what they handle and what they are to decide on, and can’t come in any more', async () => {
    const ours = await handled(VISIT);
    const waiting = ok(await priya.submit('come-on-site', WATER, { release: 2 })).number;
    const old = await desk.tokenFor('cormac.dewhurst', 'decide');
    const { hangs, groups } = ok(await maren.call('person', { params: { id: idOf('Cormac Dewhurst') } }));
    expect([groups.length, hangs.map(({ words }: { words: string }) => words)]).toEqual([
      1,
      ['1 unfinished request', '1 decision that waits for this person', 'Decides in the form “Come on site”'],
    ]);
    // What they asked for themselves, and what names them besides, is told as well.
    const other = { params: { id: idOf('Priya Nakamura-Lind') } };
    desk.running.house.db.$client
      .prepare(
        "update designs set draft = json_insert(draft, '$.access.named', ?) where key = 'vessels' and kind = 'register'",
      )
      .run(other.params.id);
    expect(ok(await maren.call('person', other)).hangs.map(({ words }: { words: string }) => words)).toEqual([
      ...['Named in “Vessels”', '2 unfinished requests of their own'],
    ]);
    expect((await leaves('Cormac Dewhurst', 'Wim Haldane')).body.problems[0].field).toBe('to');
    expect((await leaves('Cormac Dewhurst', 'Cormac Dewhurst')).status).toBe(422);
    expect((await leaves('Cormac Dewhurst', 'Ilse Brandvold', cormac)).status).toBe(403);

    const plan = async (to?: string) =>
      ok(
        await maren.call('handOverPlan', {
          params: { id: idOf('Cormac Dewhurst') },
          ...(to ? { query: { to: idOf(to) } } : {}),
        }),
      );
    expect(await plan()).toEqual({ given: 0, back: 1, decides: 0, waits: 1, groups: 1, rosters: 0, forms: NO_FORMS });
    expect(await plan('Bram Solheim')).toEqual({
      given: 0,
      back: 1,
      decides: 1,
      waits: 0,
      groups: 1,
      rosters: 0,
      forms: NO_FORMS,
    });
    // Nobody decides on what they asked for themselves.
    expect(await plan('Priya Nakamura-Lind')).toEqual({
      given: 0,
      back: 1,
      decides: 0,
      waits: 1,
      groups: 1,
      rosters: 0,
      forms: NO_FORMS,
    });
    expect(await plan('Ilse Brandvold')).toEqual({
      given: 1,
      back: 0,
      decides: 1,
      waits: 0,
      groups: 1,
      rosters: 0,
      forms: NO_FORMS,
    });
    expect(ok(await leaves('Cormac Dewhurst', 'Ilse Brandvold'))).toEqual({ given: 1, back: 0, groups: 1 });
    const ilse = await desk.as('Ilse Brandvold');
    const sheet = await ilse.sheet(ours);
    expect([sheet.handler.name, sheet.history.at(-1).what]).toEqual([
      'Ilse Brandvold',
      'Ilse Brandvold is now the handler',
    ]);
    expect((await ilse.sheet(waiting)).approval).toMatchObject({ group: 'Ilse Brandvold', mayDecide: true });
    expect((await ilse.sheet(waiting)).history.at(-1).what).toBe(
      'Ilse Brandvold decides in the place of Cormac Dewhurst',
    );
    const token = await desk.tokenFor('ilse.brandvold', 'decide');
    const stranger = await desk.as();
    expect((await stranger.call('decisionLink', { params: { token } })).status).toBe(200);
    expect((await stranger.call('decisionLink', { params: { token: old } })).status).not.toBe(200);

    expect(ok(await cormac.call('me')).person).toBeNull();
    const after = ok(await maren.call('person', { params: { id: idOf('Cormac Dewhurst') } }));
    expect([after.active, after.groups, after.openWork]).toEqual([false, [], 0]);
    // What they did before is still told with their name.
    expect(after.history.map(({ words }: { words: string }) => words)).toContain('Made inactive');
    // Handed over once more, nothing is left to do.
    expect(ok(await leaves('Cormac Dewhurst', null))).toEqual({ given: 0, back: 0, groups: 0 });
  });

  it('gives back to the team what the other is not in the team of, or when nobody takes over', async () => {
    const { number } = ok(await priya.submit('come-on-site', VISIT, { release: 2 }));
    const nuala = await desk.as('Nuala Fenwick');
    const { version } = await nuala.sheet(number);
    const body = { person: idOf('Nuala Fenwick') };
    ok(await nuala.call('assign', { params: { number }, headers: { 'If-Match': `"${version}"` }, body }));
    expect(ok(await leaves('Nuala Fenwick', 'Bram Solheim'))).toEqual({ given: 0, back: 1, groups: 1 });
    const { handler, team } = await maren.sheet(number);
    expect([handler, team]).toEqual([null, 'Estates']);
  });

  it('hands on what they were still to fill in: to who takes over where it can be passed on, else it ends', async () => {
    const bram = `@${idOf('Bram Solheim')}`;
    const owes = async (name: string, more: object = {}) => {
      const mailing = {
        ...newMailing(name, 'come-on-site'),
        to: { audience: { in: { anyOf: [bram] }, outOf: [] } },
        ...more,
      };
      const { id } = ok(
        await maren.call('addMailing', { params: { key: 'site-access' }, headers: freshly(), body: { mailing } }),
      );
      ok(await maren.call('sendMailing', { params: { id }, headers: freshly(), body: { onlyNew: false } }));
    };
    await owes('Can be passed on', { passesOn: true });
    await owes('Theirs alone', { passesOn: undefined });
    const { db } = desk.running.house;
    const states = () =>
      db
        .select({ person: people.name, state: owedForms.state })
        .from(owedForms)
        .innerJoin(people, eq(people.id, owedForms.personId))
        .all()
        .map(({ person, state }) => `${person} ${state}`)
        .filter((line) => /Bram|Ilse/.test(line))
        .sort();
    await vi.waitFor(() => expect(states()).toEqual(['Bram Solheim open', 'Bram Solheim open']), 20_000);
    const params = { id: idOf('Bram Solheim') };
    expect(ok(await maren.call('handOverPlan', { params })).forms).toEqual({ given: 0, ended: 2 });
    const query = { to: idOf('Ilse Brandvold') };
    expect(ok(await maren.call('handOverPlan', { params, query })).forms).toEqual({ given: 1, ended: 1 });
    expect(ok(await maren.call('person', { params })).hangs.map(({ words }: { words: string }) => words)).toContain(
      '2 forms still to fill in',
    );
    ok(await leaves('Bram Solheim', 'Ilse Brandvold'));
    expect(states()).toEqual(['Bram Solheim ended', 'Bram Solheim passed', 'Ilse Brandvold open']);
    const told = (await desk.letters()).filter(({ to }) => to.includes('ilse.brandvold')).at(-1);
    expect(told?.text).toContain('Maren Okafor');
    expect(ok(await (await desk.as('Ilse Brandvold')).call('frontDesk')).toFill.length).toBe(1);
  });

  it('is nobody who alone can give rights, nor anybody who may do more than whoever sends them off', async () => {
    expect((await leaves('Ada Quillfeather', null, await desk.as('Ada Quillfeather'))).body.type).toBe(
      'urn:tolvek:problem:last-administrator',
    );
    expect((await leaves('Ada Quillfeather', null)).status).toBe(403);
    expect(ok(await (await desk.as('Ada Quillfeather')).call('me')).person.name).toBe('Ada Quillfeather');
  });
});
