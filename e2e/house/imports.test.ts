import { addresses, groupEntries, memberships, people, peopleImportSteps, peopleImports } from '@tolvek/server/schema';
import { and, eq, inArray, isNull, sql } from 'drizzle-orm';
import Papa from 'papaparse';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { type Caller, Desk, freshly, ok } from './desk.ts';

let desk: Desk;
let maren: Caller;
beforeAll(async () => {
  desk = await Desk.open();
  maren = await desk.as('Maren Okafor');
});
afterAll(() => desk.close());

type Rows = readonly Readonly<Record<string, string>>[];
type Decided = Readonly<Record<string, string>>;
const look = async (rows: Rows, decided: Decided = {}, kind = 'contact', by = maren) =>
  ok(await by.call('lookAtPeople', { body: { kind, rows, decided } }));
const take = async (
  rows: Rows,
  {
    decided = {},
    gone = false,
    kind = 'contact',
    by = maren,
  }: { decided?: Decided; gone?: boolean; kind?: string; by?: Caller } = {},
) => {
  const { seen } = await look(rows, decided, kind, by);
  return ok(
    await by.call('importPeople', {
      headers: freshly(),
      body: { kind, rows, decided, file: 'contacts.csv', gone, seen },
    }),
  );
};
const idAt = (address: string): string =>
  desk.running.house.db.select({ id: addresses.personId }).from(addresses).where(eq(addresses.address, address)).get()
    ?.id ?? '';

/** Everybody as they stand here, with their addresses and groups. */
function everybody(): readonly object[] {
  const { db } = desk.running.house;
  const found = db.select().from(addresses).all();
  const inside = db.select().from(memberships).all();
  const entries = db.select().from(groupEntries).all();
  return db
    .select()
    .from(people)
    .where(and(isNull(people.removedAt)))
    .orderBy(people.id)
    .all()
    .map(({ version: _, leftAt: __, ...person }) => ({
      ...person,
      addresses: found.flatMap((each) => (each.personId === person.id ? [each.address] : [])).sort(),
      groups: inside.flatMap((each) => (each.personId === person.id ? [each.groupKey] : [])).sort(),
      entries: entries.filter((each) => each.personId === person.id).length,
    }));
}

const INSTITUTES = ['haldane', 'corrin', 'tarnbay'] as const;
/** The `place`th of two hundred in a file. */
const listed = (place: number) => ({
  name: `Visitor ${String.fromCharCode(65 + (place % 26))}${place}`,
  email: `visitor${place}@many.example`,
  'profile.institute': INSTITUTES[place % 3] ?? '',
});

describe('a file of two hundred people', () => {
  it('has a known answer for each row, changes what was looked at, and is undone in one go', async () => {
    const first = Array.from({ length: 170 }, (_, place) => listed(place));
    expect(await take(first)).toMatchObject({ added: 170, changed: 0, gone: 0 });
    const told = (await desk.letters()).length;
    const again = await look(first);
    expect([new Set(again.rows.map(({ is }: { is: string }) => is)), again.rows.length]).toEqual([
      new Set(['same']),
      170,
    ]);

    // Two who have a name in common, so that a name alone does not say whom it means.
    await take([
      { name: 'Sam Alike', email: 'sam1@many.example' },
      { name: 'Sam Alike', email: 'sam2@many.example' },
    ]);
    const before = everybody();
    const rows: readonly (Record<string, string> & { is: string })[] = [
      ...first.slice(0, 100).map((row) => ({ ...row, is: 'same' })),
      ...first.slice(100, 130).map((row) => ({ ...row, 'profile.phone': '+353 21 555 0100', is: 'changed' })),
      ...first.slice(130, 140).map((row) => ({ ...row, name: `${row.name.toUpperCase()} `, is: 'same' })),
      ...Array.from({ length: 35 }, (_, place) => ({ ...listed(500 + place), groups: 'Boats', is: 'new' })),
      ...first.slice(140, 145).map((row) => ({ ...row, email: `other.${row.email}`, is: 'other-address' })),
      ...first.slice(145, 150).map((row) => ({ ...row, name: `Married ${row.name}`, is: 'other-name' })),
      { name: 'Sam Alike', email: 'sam3@many.example', is: 'several' },
      { name: 'Sam Alike', email: first[150]?.email ?? '', is: 'several' },
      { name: 'Maren Okafor', email: 'maren.okafor@skerrow.example', is: 'other-kind' },
      { name: 'Kasper Lund-Weir', email: 'kasper.lund.weir@merrow.example', is: 'inactive' },
      { ...listed(3), is: 'wrong' },
      { name: 'Nobody Here', email: 'no address', is: 'wrong' },
      { ...listed(151), 'profile.institute': 'nowhere', is: 'wrong' },
      { ...listed(152), groups: 'Nobody’s group', is: 'wrong' },
      { ...listed(153), language: 'Klingon', is: 'wrong' },
      { name: '', email: 'nameless@many.example', is: 'wrong' },
    ];
    expect(rows).toHaveLength(195);
    const file = rows.map(({ is: _, ...row }) => row);
    const answer = await look(file);
    expect(answer.rows.map(({ is, why }: { is: string; why: string | null }) => why ?? is)).toEqual(
      rows.map(({ is }) => is),
    );
    const ofFirst = answer.gone.filter(({ email }: { email: string }) => email.startsWith('visitor'));
    // The others of the first file are not in this one; those who may be meant by a doubtful row stay.
    expect(ofFirst.map(({ email }: { email: string }) => email).sort()).toEqual(
      first
        .slice(154)
        .map(({ email }) => email)
        .sort(),
    );
    const doubtful = (why: string): number => rows.findIndex(({ is }) => is === why);
    const decided = {
      [doubtful('other-address')]: idAt(first[140]?.email ?? ''),
      [doubtful('other-address') + 1]: 'new',
      [doubtful('other-name')]: idAt(first[145]?.email ?? ''),
      [doubtful('several')]: 'new',
      [doubtful('inactive')]: idAt('kasper.lund.weir@merrow.example'),
    };
    // Whoever is not meant by a row that is somebody new is gone as well.
    const imported = await take(file, { decided, gone: true });
    expect(imported).toMatchObject({ added: 35 + 2, changed: 30 + 3, gone: answer.gone.length + 1 });
    expect((await desk.letters()).length).toBe(told);
    const person = async (address: string) => ok(await maren.call('person', { params: { id: idAt(address) } }));
    const moved = await person(first[140]?.email ?? '');
    expect([moved.email, moved.addresses]).toEqual([
      `other.${first[140]?.email}`,
      [`other.${first[140]?.email}`, first[140]?.email].sort(),
    ]);
    expect((await person(first[145]?.email ?? '')).name).toBe(`Married ${first[145]?.name}`);
    expect((await person(first[160]?.email ?? '')).active).toBe(false);
    expect((await person('kasper.lund.weir@merrow.example')).active).toBe(true);
    expect((await person('visitor500@many.example')).groups.map(({ key: of }: { key: string }) => of)).toEqual([
      'boats',
      'field_teams',
    ]);
    // The same file once more changes nothing but what nobody has decided.
    const twice = await look(file, { [doubtful('other-address') + 1]: '' });
    expect(twice.rows.filter(({ is }: { is: string }) => is === 'new' || is === 'changed')).toEqual([]);

    // What somebody changes meanwhile stays; all else is as it was.
    const { version } = await person(first[101]?.email ?? '');
    const id = idAt(first[101]?.email ?? '');
    ok(
      await maren.call('changePerson', {
        params: { id },
        headers: { 'If-Match': `"${version}"` },
        body: { profile: { phone: '+353 21 555 0199' } },
      }),
    );
    expect(ok(await maren.call('undoImport', { params: { id: imported.id } }))).toEqual({
      undone: imported.added + imported.changed + imported.gone - 1,
      stayed: 1,
    });
    const later = everybody() as { id: string; profile: Record<string, unknown> }[];
    const changed = later.find((each) => each.id === id);
    expect(changed?.profile.phone).toBe('+353 21 555 0199');
    delete changed?.profile.phone;
    expect(later).toEqual(before);
    expect(idAt('visitor500@many.example')).toBe('');
    expect((await maren.call('undoImport', { params: { id: imported.id } })).status).toBe(409);
    const { imports } = ok(await maren.call('peopleImports'));
    expect(
      imports.map(({ added, undone }: { added: number; undone: string | null }) => [added, undone !== null]),
    ).toEqual([
      [37, true],
      [2, false],
      [170, false],
    ]);
  });

  it('is what goes out: all of it comes in again without a change', async () => {
    for (const kind of ['staff', 'contact'] as const) {
      const sheet = await fetch(`${desk.running.url}/api/people.csv?kind=${kind}`, {
        headers: { cookie: maren.cookie },
      });
      expect(sheet.headers.get('content-type')).toContain('text/csv');
      const [head = [], ...lines] = Papa.parse<string[]>((await sheet.text()).replace(/^\uFEFF/, ''), {
        skipEmptyLines: true,
      }).data;
      const { fields } = ok(await maren.call('profile'));
      const columns = head.map((heading) => {
        const fixed = { Name: 'name', 'Email address': 'email', Language: 'language', Groups: 'groups' }[heading];
        return fixed ?? `profile.${fields.find(({ label }: { label: string }) => label === heading)?.key}`;
      });
      const rows = lines.map((line) => Object.fromEntries(line.map((cell, place) => [columns[place] ?? '', cell])));
      expect(rows.length).toBeGreaterThan(kind === 'staff' ? 35 : 200);
      const { rows: told, gone } = await look(rows, {}, kind);
      const others = told.filter(({ is }: { is: string }) => is !== 'same');
      // Namesakes are told by their addresses, and whoever looks is never among those who are gone.
      expect([others, gone]).toEqual([[], []]);
    }
  });

  it('is not imported when something changed since it was looked at, and once however often it is sent', async () => {
    const rows = [{ name: 'Late Comer', email: 'late@many.example' }];
    const { seen } = await look(rows);
    const body = { kind: 'contact', rows, decided: {}, file: 'late.csv', gone: false, seen };
    const once = { headers: freshly(), body };
    const imported = ok(await maren.call('importPeople', once));
    expect(ok(await maren.call('importPeople', once))).toEqual(imported);
    expect((await maren.call('importPeople', { headers: freshly(), body })).status).toBe(409);
    expect(ok(await maren.call('people', { query: { find: 'late comer' } })).total).toBe(1);
  });

  it('is carried out once when it is sent twice at a time, and goes on after a break without who changed since', async () => {
    const rows = Array.from({ length: 60 }, (_, place) => ({
      name: `Double ${'abcdefghij'[place % 10]}${place}`,
      email: `double${place}@many.example`,
      language: 'de',
    }));
    const { seen } = await look(rows);
    const twice = {
      headers: freshly(),
      body: { kind: 'contact', rows, decided: {}, file: 'd.csv', gone: false, seen },
    };
    const [one, other] = await Promise.all([maren.call('importPeople', twice), maren.call('importPeople', twice)]);
    expect(ok(one)).toEqual(ok(other));
    expect(ok(await maren.call('people', { query: { find: 'double' } })).total).toBe(60);
    // As if it had broken off before its end: one was done and is another by now, one was not done.
    const { db } = desk.running.house;
    const [first, last] = [idAt('double0@many.example'), idAt('double59@many.example')];
    db.update(peopleImports).set({ endedAt: null }).where(eq(peopleImports.id, one.body.id)).run();
    db.delete(peopleImportSteps).where(sql`${peopleImportSteps.step} ->> 'person' = ${last}`).run();
    db.update(people)
      .set({ language: 'en' })
      .where(inArray(people.id, [first, last]))
      .run();
    expect(ok(await maren.call('importPeople', twice))).toEqual(ok(one));
    const spoken = async (id: string) => ok(await maren.call('person', { params: { id } })).language;
    expect([await spoken(first), await spoken(last)]).toEqual(['en', 'de']);
  });

  it('gives nobody more than whoever imports has, and keeps administrators in', async () => {
    const rows: Rows = [
      { name: 'Ada Quillfeather', email: 'ada.quillfeather+mine@skerrow.example' },
      { name: 'New Hand', email: 'new.hand@skerrow.example', groups: 'Administrators' },
      { name: 'Bram Solheim', email: 'bram.solheim@skerrow.example', groups: 'Administrators' },
    ];
    const ada = idAt('ada.quillfeather@skerrow.example');
    const { rights } = ok(await (await desk.as('Ada Quillfeather')).call('rights'));
    expect(rights.length).toBeGreaterThan(5);
    ok(
      await (await desk.as('Ada Quillfeather')).call('changeRights', {
        params: { subject: 'administrators' },
        body: { give: ['rights'], take: [] },
      }),
    );
    const { rows: told, gone } = await look(rows, { 0: ada }, 'staff');
    expect(
      told.map(({ is, problems }: { is: string; problems: { field: string }[] }) => [
        is,
        problems.map(({ field }) => field),
      ]),
    ).toEqual([
      ['wrong', ['email']],
      ['wrong', ['groups']],
      ['wrong', ['groups']],
    ]);
    // A file of one person alone makes everybody gone: but nobody who may do more, and not whoever imports.
    expect(gone.some(({ id }: { id: string }) => id === idAt('maren.okafor@skerrow.example'))).toBe(false);
    const one = [{ name: 'Bram Solheim', email: 'bram.solheim@skerrow.example' }];
    const imported = await take(one, { kind: 'staff', gone: true });
    expect(ok(await maren.call('person', { params: { id: ada } })).active).toBe(true);
    expect(ok(await maren.call('person', { params: { id: idAt('ilse.brandvold@skerrow.example') } })).active).toBe(
      false,
    );
    ok(await maren.call('undoImport', { params: { id: imported.id } }));
    expect(ok(await maren.call('person', { params: { id: idAt('ilse.brandvold@skerrow.example') } })).active).toBe(
      true,
    );
    const bram = await desk.by('bram.solheim@skerrow.example', 'tolvek-demo');
    expect((await bram?.call('lookAtPeople', { body: { kind: 'staff', rows: one, decided: {} } }))?.status).toBe(403);
  });
});
