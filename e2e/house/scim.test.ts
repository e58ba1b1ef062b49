import { directoryUsers, groundHistory, groupEntries, groups, memberships, people } from '@tolvek/server/schema';
import { and, eq } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { Desk, ok } from './desk.ts';
import { Directory, ENTERPRISE, GROUP, PATCH_OP, USER } from './directory.ts';

let desk: Desk;
let directory: Directory;
beforeAll(async () => {
  desk = await Desk.open();
  directory = await Directory.of(desk);
});
afterAll(() => desk.close());

const db = () => desk.running.house.db;
const person = (id: string) => db().select().from(people).where(eq(people.id, id)).get();
const isIn = (group: string, id: string): boolean =>
  db()
    .select()
    .from(memberships)
    .where(and(eq(memberships.groupKey, group), eq(memberships.personId, id)))
    .get() !== undefined;

const user = (userName: string, more: object = {}) => ({
  ...{ schemas: [USER], userName, name: { givenName: 'Ola', familyName: 'Strand' } },
  ...more,
});

describe('a directory', () => {
  it('comes in by a token that works, and by nothing else', async () => {
    const { address } = directory;
    const status = async (headers: Record<string, string>) => (await fetch(`${address}/Users`, { headers })).status;
    expect(await status({})).toBe(401);
    expect(await status({ Authorization: 'Bearer ' })).toBe(401);
    expect(await status({ Authorization: `Bearer ${'x'.repeat(43)}` })).toBe(401);
    expect(await status({ Authorization: `Basic ${directory.token}` })).toBe(401);
    expect(await status({ Authorization: `bearer ${directory.token}` })).toBe(200);
    const ada = await desk.as('Ada Quillfeather');
    const { id, token } = ok(await ada.call('addDirectoryToken', { body: { name: 'For a day', days: 1 } }));
    const ends = { Authorization: `Bearer ${token}` };
    expect(await status(ends)).toBe(200);
    ok(await ada.call('endDirectoryToken', { params: { id } }));
    expect(await status(ends)).toBe(401);
    const [ended, made] = ok(await ada.call('directory')).history.map(({ words }: { words: string }) => words);
    expect([made, ended]).toEqual(['Token created: For a day', 'Token ended: For a day']);
    // A session of somebody opens nothing here, and a token nothing there.
    expect(await status({ Cookie: ada.cookie })).toBe(401);
    const other = await fetch(`${desk.running.url}/api/people`, {
      headers: { Authorization: `Bearer ${directory.token}` },
    });
    expect(other.status).toBe(401);
    // What is kept of a token opens nothing.
    expect(JSON.stringify(ok(await ada.call('directory')))).not.toContain(directory.token);
  });

  it('is told what this desk can do, and its schemas', async () => {
    const { body: config } = await directory.get('/ServiceProviderConfig');
    expect(config).toMatchObject({
      ...{ patch: { supported: true }, etag: { supported: true }, sort: { supported: true } },
      ...{ filter: { supported: true, maxResults: 100 }, bulk: { supported: true, maxOperations: 1_000 } },
    });
    const { body: types } = await directory.get('/ResourceTypes');
    expect(types.Resources.map(({ endpoint }: { endpoint: string }) => endpoint)).toEqual(['/Users', '/Groups']);
    const { body: schemas } = await directory.get('/Schemas');
    expect(schemas.totalResults).toBe(3);
    for (const { id } of schemas.Resources) expect((await directory.get(`/Schemas/${id}`)).body.id).toBe(id);
    expect((await directory.get('/Me')).status).toBe(501);
    expect((await directory.get('/Devices')).status).toBe(404);
  });

  it('adds somebody of the staff, changes them, and takes them out', async () => {
    const made = await directory.post('/Users', user('ola@skerrow.example', { externalId: 'x-1', active: true }));
    expect(made.status).toBe(201);
    const { id } = made.body;
    expect(made.headers.get('location')).toBe(`${directory.address}/Users/${id}`);
    expect(made.headers.get('etag')).toBe(made.body.meta.version);
    expect(person(id)).toMatchObject({
      ...{ name: 'Ola Strand', email: 'ola@skerrow.example', kind: 'staff', active: true, source: 'directory' },
    });
    const put = await directory.put(`/Users/${id}`, user('ola@skerrow.example', { displayName: 'Ola S. Strand' }));
    expect([put.status, put.body.externalId, put.body.active]).toEqual([200, undefined, true]);
    expect(person(id)?.name).toBe('Ola S. Strand');
    const changed = await directory.patch(`/Users/${id}`, [
      { op: 'Replace', path: 'active', value: 'False' },
      { op: 'add', path: 'emails', value: [{ value: 'o.strand@skerrow.example', type: 'work', primary: true }] },
    ]);
    expect(changed.body).toMatchObject({ active: false, emails: [{ value: 'o.strand@skerrow.example' }] });
    expect(person(id)).toMatchObject({ active: false, email: 'o.strand@skerrow.example' });
    expect((await directory.delete(`/Users/${id}`)).status).toBe(204);
    expect((await directory.get(`/Users/${id}`)).status).toBe(404);
    expect(person(id)).toMatchObject({ active: false, source: 'local' });
    // Sent again, it is the same person.
    const again = await directory.post('/Users', user('ola@skerrow.example'));
    expect([again.status, again.body.id, person(id)?.active]).toEqual([201, id, true]);
    const by = db().select().from(groundHistory).where(eq(groundHistory.key, id)).all();
    expect(new Set(by.map((line) => line.by))).toEqual(new Set(['directory']));
  });

  it('keeps whom an address finds already, but never a contact, and nobody twice', async () => {
    const yusuf = desk.idOf('Yusuf Marchetti');
    const taken = await directory.post('/Users', user('Yusuf.Marchetti@skerrow.example', { title: 'Skipper' }));
    expect([taken.status, taken.body.id]).toEqual([201, yusuf]);
    const twice = await directory.post('/Users', user('yusuf.marchetti@SKERROW.example'));
    expect([twice.status, twice.body.scimType]).toEqual([409, 'uniqueness']);
    const contact = await directory.post('/Users', user('wim.haldane@haldane.example'));
    expect([contact.status, contact.body.scimType]).toEqual([409, 'uniqueness']);
    const nowhere = await directory.post('/Users', user('nobody'));
    expect([nowhere.status, nowhere.body.scimType]).toEqual([400, 'invalidValue']);
    const broken = await fetch(`${directory.address}/Users`, {
      method: 'POST',
      headers: { Authorization: `Bearer ${directory.token}`, 'Content-Type': 'application/scim+json' },
      body: '{"schemas":',
    });
    expect([broken.status, (await broken.json()).scimType]).toEqual([400, 'invalidSyntax']);
    const nameless = await directory.post('/Users', { schemas: [USER] });
    expect([nameless.status, nameless.body.scimType]).toEqual([400, 'invalidValue']);
    const other = await directory.post('/Users', user('other@skerrow.example'));
    const moved = await directory.patch(`/Users/${other.body.id}`, [
      { op: 'replace', path: 'userName', value: 'YUSUF.marchetti@skerrow.example' },
    ]);
    expect([moved.status, moved.body.scimType]).toEqual([409, 'uniqueness']);
    expect(person(other.body.id)?.email).toBe('other@skerrow.example');
  });

  it('keeps what it keeps from being changed here, and leaves the rest', async () => {
    const { body } = await directory.post('/Users', user('kept@skerrow.example'));
    const { body: group } = await directory.post('/Groups', {
      ...{ schemas: [GROUP], displayName: 'Kept crew', members: [{ value: body.id }] },
    });
    const ada = await desk.as('Ada Quillfeather');
    const { version } = ok(await ada.call('person', { params: { id: body.id } }));
    const change = async (changes: object, id: string, on = version) =>
      ada.call('changePerson', { params: { id }, headers: { 'If-Match': `"${on}"` }, body: changes });
    for (const changes of [{ name: 'Other' }, { email: 'other2@skerrow.example' }])
      expect((await change(changes, body.id)).body).toMatchObject({ type: 'urn:tolvek:problem:kept-by-directory' });
    const seen = ok(await ada.call('group', { params: { key: group.id } }));
    const renamed = await ada.call('changeGroup', {
      ...{ params: { key: group.id }, headers: { 'If-Match': `"${seen.version}"` }, body: { name: 'Other crew' } },
    });
    const out = await ada.call('leaveGroup', { params: { key: group.id, entry: seen.entries[0].id } });
    expect([renamed.status, out.status, isIn(group.id, body.id)]).toEqual([409, 409, true]);
    ok(await change({ language: 'de' }, body.id));
    ok(await change({ active: false }, body.id, version + 1));
    expect((await directory.get(`/Users/${body.id}`)).body.active).toBe(false);
  });

  it('lets people and groups into its groups and out again, and leaves whom the desk let in', async () => {
    const ids = [];
    for (const name of ['ann', 'bo', 'cy'])
      ids.push((await directory.post('/Users', user(`${name}@skerrow.example`))).body.id as string);
    const [ann = '', bo = '', cy = ''] = ids;
    const made = await directory.post('/Groups', {
      ...{ schemas: [GROUP], displayName: 'Night watch', externalId: 'g-1' },
      members: [{ value: ann }, { value: bo, type: 'User' }],
    });
    const { id } = made.body;
    expect([made.status, isIn(id, ann), isIn(id, bo), isIn(id, cy)]).toEqual([201, true, true, false]);
    const outer = (await directory.post('/Groups', { schemas: [GROUP], displayName: 'Crew', members: [{ value: id }] }))
      .body;
    expect(isIn(outer.id, ann)).toBe(true);
    const who = (await directory.get(`/Users/${ann}`)).body.groups;
    expect(who.map((each: { value: string; type: string }) => [each.value, each.type])).toEqual([
      ['crew', 'indirect'],
      ['night_watch', 'direct'],
    ]);
    const ada = await desk.as('Ada Quillfeather');
    const enter = { person: cy, from: null, until: null };
    ok(
      await ada.call('enterGroup', { params: { key: id }, headers: { 'Idempotency-Key': 'by-the-desk' }, body: enter }),
    );
    await directory.patch(`/Groups/${id}`, [{ op: 'remove', path: `members[value eq "${ann}"]` }]);
    expect([isIn(id, ann), isIn(outer.id, ann), isIn(id, bo), isIn(id, cy)]).toEqual([false, false, true, true]);
    const { body: emptied } = await directory.patch(`/Groups/${id}`, [{ op: 'remove', path: 'members' }]);
    expect([emptied.members, isIn(id, bo), isIn(id, cy)]).toEqual([undefined, false, true]);
    const circle = await directory.patch(`/Groups/${id}`, [
      { op: 'add', path: 'members', value: [{ value: outer.id }] },
    ]);
    expect(circle.status).toBe(409);
    const stranger = await directory.patch(`/Groups/${id}`, [
      { op: 'add', path: 'members', value: [{ value: 'nobody' }] },
    ]);
    expect([stranger.status, stranger.body.scimType]).toEqual([400, 'invalidValue']);
    const same = await directory.post('/Groups', { schemas: [GROUP], displayName: 'NIGHT WATCH' });
    const local = await directory.post('/Groups', { schemas: [GROUP], displayName: 'Estates' });
    expect([same.status, local.status]).toEqual([409, 409]);
    expect((await directory.delete(`/Groups/${id}`)).status).toBe(204);
    expect(db().select().from(groups).where(eq(groups.key, id)).get()?.retired).toBe(true);
    const again = await directory.post('/Groups', { schemas: [GROUP], displayName: 'Night Watch' });
    expect([again.status, again.body.id]).toEqual([201, id]);
  });

  it('can’t take away whoever gives rights last: by no word there is', async () => {
    const mine = await Desk.open();
    const of = await Directory.of(mine);
    const { db: its } = mine.running.house;
    try {
      const ada = mine.idOf('Ada Quillfeather');
      const { body: known } = await of.post(
        '/Users',
        user('ada.quillfeather@skerrow.example', { displayName: 'Ada Quillfeather' }),
      );
      expect(known.id).toBe(ada);
      const isThere = () => its.select().from(people).where(eq(people.id, ada)).get()?.active === true;
      const gone = [
        await of.patch(`/Users/${ada}`, [{ op: 'replace', path: 'active', value: false }]),
        await of.put(`/Users/${ada}`, user('ada.quillfeather@skerrow.example', { active: false })),
        await of.delete(`/Users/${ada}`),
      ];
      const inBulk = await of.bulk([{ method: 'DELETE', path: `/Users/${ada}` }]);
      expect(gone.map(({ status }) => status)).toEqual([409, 409, 409]);
      expect([inBulk.body.Operations[0].status, isThere()]).toEqual(['409', true]);
      // By a group that gives the right: its last member stays, and so does the group.
      const admin = await mine.as('Ada Quillfeather');
      const { body: group } = await of.post('/Groups', {
        schemas: [GROUP],
        displayName: 'Keepers',
        members: [{ value: ada }],
      });
      ok(await admin.call('changeRights', { params: { subject: group.id }, body: { give: ['rights'], take: [] } }));
      ok(await admin.call('changeRights', { params: { subject: `@${ada}` }, body: { give: [], take: ['rights'] } }));
      its
        .delete(groupEntries)
        .where(and(eq(groupEntries.groupKey, 'administrators')))
        .run();
      its.delete(memberships).where(eq(memberships.groupKey, 'administrators')).run();
      const tries = [
        await of.patch(`/Groups/${group.id}`, [{ op: 'remove', path: 'members' }]),
        await of.put(`/Groups/${group.id}`, { schemas: [GROUP], displayName: 'Keepers' }),
        await of.delete(`/Groups/${group.id}`),
      ];
      expect(tries.map(({ status }) => status)).toEqual([409, 409, 409]);
      ok(await admin.call('rights'));
    } finally {
      await mine.close();
    }
  });

  it('changes only the version it read, and reads only what it has not', async () => {
    const { body, headers } = await directory.post('/Users', user('versions@skerrow.example'));
    const tag = headers.get('etag') ?? '';
    const path = `/Users/${body.id}`;
    expect(tag).toMatch(/^W\/"[\w-]{22}"$/);
    expect((await directory.get(path, { 'If-None-Match': tag })).status).toBe(304);
    const operations = [{ op: 'replace', path: 'title', value: 'Skipper' }];
    const changed = await directory.patch(path, operations, { 'If-Match': tag });
    expect([changed.status, changed.headers.get('etag') === tag]).toEqual([200, false]);
    expect((await directory.patch(path, operations, { 'If-Match': tag })).status).toBe(412);
    expect((await directory.put(path, user('versions@skerrow.example'), { 'If-Match': tag })).status).toBe(412);
    expect((await directory.delete(path, { 'If-Match': tag })).status).toBe(412);
    expect((await directory.get(path, { 'If-None-Match': tag })).status).toBe(200);
    // What says nothing new makes no other version.
    const same = await directory.patch(path, operations, { 'If-Match': '*' });
    expect(same.headers.get('etag')).toBe(changed.headers.get('etag'));
    expect((await directory.delete(path, { 'If-Match': `"other", ${same.headers.get('etag')}` })).status).toBe(204);
  });

  it('finds people by pages, by filters, in an order, and as far as it wants them', async () => {
    const mine = await Desk.open();
    const of = await Directory.of(mine);
    try {
      const names = Array.from({ length: 230 }, (_, n) => `crew${String(n).padStart(3, '0')}`);
      await of.bulk(
        names.map((name, n) => ({
          ...{ method: 'POST', path: '/Users', bulkId: name },
          data: user(`${name}@skerrow.example`, {
            ...{ externalId: `e${n % 7}`, title: n % 2 === 0 ? 'Skipper' : 'Diver', active: n % 10 !== 0 },
            ...(n % 5 === 0 ? { [ENTERPRISE]: { department: `Pier ${n % 3}` } } : {}),
          }),
        })),
      );
      const total = async (filter: string) =>
        (await of.get(`/Users?${new URLSearchParams({ filter, count: '0' })}`)).body.totalResults;
      const all: string[] = [];
      for (let from = 1; from <= 231; from += 50) {
        const { body } = await of.get(`/Users?startIndex=${from}&count=50`);
        expect([body.totalResults, body.startIndex, body.itemsPerPage]).toEqual([230, from, Math.min(50, 231 - from)]);
        all.push(...body.Resources.map((each: { id: string }) => each.id));
      }
      expect([all.length, new Set(all).size]).toEqual([230, 230]);
      expect((await of.get('/Users?count=5000')).body.itemsPerPage).toBe(100);
      expect((await of.get('/Users?startIndex=-3&count=-1')).body).toMatchObject({ startIndex: 1, itemsPerPage: 0 });
      expect(await total('title eq "skipper"')).toBe(115);
      expect(await total('externalId eq "e3"')).toBe(33);
      expect(await total('externalId eq "E3"')).toBe(0);
      expect(await total(`${ENTERPRISE}:department sw "pier"`)).toBe(46);
      expect(await total(`not (${ENTERPRISE}:department pr) and active eq false`)).toBe(0);
      expect(await total('userName eq "CREW007@skerrow.example"')).toBe(1);
      expect(await total('userName gt "crew227" and userName le "crew229"')).toBe(2);
      const search = await of.post('/Users/.search', {
        schemas: ['urn:ietf:params:scim:api:messages:2.0:SearchRequest'],
        ...{ filter: 'title eq "Diver"', sortBy: 'userName', sortOrder: 'descending', count: 2 },
        attributes: ['userName', 'name.familyName'],
      });
      expect(search.body.Resources.map(({ id: _, ...rest }: { id: string }) => rest)).toEqual([
        { schemas: [USER], userName: 'crew229@skerrow.example', name: { familyName: 'Strand' } },
        { schemas: [USER], userName: 'crew227@skerrow.example', name: { familyName: 'Strand' } },
      ]);
      for (const filter of ['userName', 'nothing eq "x"', 'active gt true', 'title eq 3', 'name co "x"', 'a['])
        expect((await of.get(`/Users?${new URLSearchParams({ filter })}`)).body.scimType).toBe('invalidFilter');
      const lean = await of.get(`/Users/${all[0]}?excludedAttributes=name,meta.created,id`);
      expect([lean.body.id, lean.body.name, Object.keys(lean.body.meta).includes('created')]).toEqual([
        all[0],
        undefined,
        false,
      ]);
    } finally {
      await mine.close();
    }
  });

  it('sends many at once: in the order they need, each by itself, until too many fail', async () => {
    const { body } = await directory.bulk([
      // Named before it is made.
      {
        method: 'POST',
        path: '/Groups',
        bulkId: 'g',
        data: { schemas: [GROUP], displayName: 'Bulk crew', members: [{ value: 'bulkId:u' }] },
      },
      { method: 'POST', path: '/Users', bulkId: 'u', data: user('bulk1@skerrow.example') },
      { method: 'POST', path: '/Users', bulkId: 'v', data: user('bulk1@skerrow.example') },
      {
        method: 'PATCH',
        path: '/Groups/bulkId:g',
        data: { schemas: [PATCH_OP], Operations: [{ op: 'replace', path: 'displayName', value: 'Bulk hands' }] },
      },
      {
        method: 'POST',
        path: '/Groups',
        bulkId: 'a',
        data: { schemas: [GROUP], displayName: 'A', members: [{ value: 'bulkId:b' }] },
      },
      {
        method: 'POST',
        path: '/Groups',
        bulkId: 'b',
        data: { schemas: [GROUP], displayName: 'B', members: [{ value: 'bulkId:a' }] },
      },
      { method: 'DELETE', path: '/Users/nobody' },
      { method: 'PUT', path: '/Elsewhere/1', data: {} },
    ]);
    const told = body.Operations.map((each: { status: string }) => each.status);
    expect(told).toEqual(['201', '201', '409', '200', '409', '409', '404', '400']);
    expect(body.Operations[2].response).toMatchObject({ status: '409', scimType: 'uniqueness' });
    const made = body.Operations[0].location.split('/').at(-1);
    const { body: group } = await directory.get(`/Groups/${made}`);
    expect([group.displayName, group.members.length, group.meta.version]).toEqual([
      'Bulk hands',
      1,
      body.Operations[3].version,
    ]);
    const stopped = await directory.bulk(
      [1, 2, 3, 4].map((n) => ({ method: 'DELETE', path: `/Users/none${n}` })),
      2,
    );
    expect(stopped.body.Operations.length).toBe(2);
    const many = await directory.bulk(Array.from({ length: 1_001 }, () => ({ method: 'DELETE', path: '/Users/none' })));
    expect([many.status, many.body.scimType]).toEqual([413, 'tooMany']);
  });

  it('fills in fields of profiles, and says what a field can’t hold', async () => {
    const ada = await desk.as('Ada Quillfeather');
    const { version, fields } = ok(await ada.call('profile'));
    const type = { kind: 'choice', options: [{ key: 'north', label: 'North pier' }] };
    const more = [
      { key: 'pier', label: 'Pier', type, of: 'staff', directory: 'department' },
      { key: 'leads', label: 'Leads', type: { kind: 'person', from: [] }, of: 'staff', directory: 'manager' },
    ];
    ok(
      await ada.call('changeProfile', {
        headers: { 'If-Match': `"${version}"` },
        body: { fields: [...fields, ...more] },
      }),
    );
    const boss = (await directory.post('/Users', user('boss@skerrow.example'))).body.id;
    const sent = (department: string) => ({ [ENTERPRISE]: { department, manager: { value: boss } } });
    const { body: one } = await directory.post('/Users', user('one@skerrow.example', sent('NORTH PIER')));
    const { body: two } = await directory.post('/Users', user('two@skerrow.example', sent('Sheds')));
    expect(person(one.id)?.profile).toMatchObject({ pier: 'north', leads: boss });
    expect(person(two.id)?.profile).toMatchObject({ leads: boss });
    expect(person(two.id)?.profile).not.toHaveProperty('pier');
    const seen = ok(await ada.call('directory'));
    const pier = seen.fields.find(({ key }: { key: string }) => key === 'pier');
    expect(pier.unread).toEqual([{ id: two.id, name: 'Ola Strand', said: 'Sheds' }]);
    const kept = await ada.call('changePerson', {
      ...{ params: { id: one.id }, headers: { 'If-Match': `"${person(one.id)?.version}"` } },
      body: { profile: { pier: null } },
    });
    expect(kept.status).toBe(409);
    const wider = { ...more[0], type: { ...type, options: [...type.options, { key: 'sheds', label: 'Sheds' }] } };
    ok(
      await ada.call('changeProfile', {
        ...{ headers: { 'If-Match': `"${version + 1}"` }, body: { fields: [...fields, wider, more[1]] } },
      }),
    );
    expect(ok(await ada.call('fillFromDirectory'))).toEqual({ changed: 1 });
    expect(person(two.id)?.profile).toMatchObject({ pier: 'sheds' });
    expect(db().select().from(directoryUsers).where(eq(directoryUsers.personId, two.id)).get()?.unread).toEqual({});
  });
});
