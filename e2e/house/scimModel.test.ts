import { directoryGroups, directoryUsers, groupEntries, people } from '@tolvek/server/schema';
import { eq } from 'drizzle-orm';
import fc from 'fast-check';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { often } from '../../core/laws/often.ts';
import { Desk } from './desk.ts';
import { Directory, GROUP, PATCH_OP, USER } from './directory.ts';

let desk: Desk;
let directory: Directory;
beforeAll(async () => {
  desk = await Desk.open();
  directory = await Directory.of(desk);
});
afterAll(() => desk.close());

/** What a directory does, by small numbers: the model and the desk give each its ids. */
type Step =
  | { readonly does: 'add'; readonly user: number; readonly active: boolean }
  | { readonly does: 'turn'; readonly user: number; readonly active: boolean }
  | { readonly does: 'rename'; readonly user: number; readonly to: number }
  | { readonly does: 'remove'; readonly user: number }
  | { readonly does: 'form'; readonly group: number; readonly members: readonly number[] }
  | { readonly does: 'in' | 'out'; readonly group: number; readonly user: number }
  | { readonly does: 'nest'; readonly group: number; readonly inner: number }
  | { readonly does: 'disband'; readonly group: number };

const user = fc.nat(3);
const group = fc.nat(2);
/** Some are there from the start, so that there is something to change. */
const BEGUN: readonly Step[] = [
  { does: 'add', user: 0, active: true },
  { does: 'add', user: 1, active: true },
  { does: 'form', group: 0, members: [0] },
  { does: 'form', group: 1, members: [] },
];
const step: fc.Arbitrary<Step> = fc.oneof(
  { weight: 4, arbitrary: fc.record({ does: fc.constant('add' as const), user, active: fc.boolean() }) },
  fc.record({ does: fc.constant('turn' as const), user, active: fc.boolean() }),
  fc.record({ does: fc.constant('rename' as const), user, to: user }),
  fc.record({ does: fc.constant('remove' as const), user }),
  {
    weight: 2,
    arbitrary: fc.record({
      does: fc.constant('form' as const),
      group,
      members: fc.uniqueArray(user, { maxLength: 3 }),
    }),
  },
  { weight: 3, arbitrary: fc.record({ does: fc.constantFrom('in' as const, 'out' as const), group, user }) },
  { weight: 2, arbitrary: fc.record({ does: fc.constant('nest' as const), group, inner: group }) },
  fc.record({ does: fc.constant('disband' as const), group }),
);

/** The slow model: who is there by which name, and who is in what, as the directory said it. */
class Model {
  readonly users = new Map<number, { readonly person: object; name: number; active: boolean }>();
  /** Whom an address finds: who had it once, whether the directory still knows them or not. */
  readonly found = new Map<number, object>();
  readonly groups = new Map<number, Set<string>>();

  private reaches(from: number, to: number): boolean {
    if (from === to) return true;
    return [...(this.groups.get(from) ?? [])].some(
      (member) => member.startsWith('g') && this.reaches(Number(member.slice(1)), to),
    );
  }

  /** Does a step; whether it goes. Addresses that find another, who is not there, and circles do not. */
  take(given: Step): boolean {
    switch (given.does) {
      case 'add': {
        const person = this.found.get(given.user) ?? {};
        if ([...this.users.values()].some((each) => each.person === person)) return false;
        this.found.set(given.user, person);
        this.users.set(given.user, { person, name: given.user, active: given.active });
        return true;
      }
      case 'turn': {
        const found = this.users.get(given.user);
        if (found) found.active = given.active;
        return found !== undefined;
      }
      case 'rename': {
        const found = this.users.get(given.user);
        const holder = this.found.get(given.to);
        if (!found || (holder !== undefined && holder !== found.person)) return false;
        this.found.set(given.to, found.person);
        found.name = given.to;
        return true;
      }
      case 'remove':
        for (const members of this.groups.values()) if (this.users.has(given.user)) members.delete(`u${given.user}`);
        return this.users.delete(given.user);
      case 'form':
        if (this.groups.has(given.group) || given.members.some((each) => !this.users.has(each))) return false;
        this.groups.set(given.group, new Set(given.members.map((each) => `u${each}`)));
        return true;
      case 'in':
        if (!this.groups.has(given.group) || !this.users.has(given.user)) return false;
        this.groups.get(given.group)?.add(`u${given.user}`);
        return true;
      case 'out':
        this.groups.get(given.group)?.delete(`u${given.user}`);
        return this.groups.has(given.group);
      case 'nest':
        if (!this.groups.has(given.group) || !this.groups.has(given.inner)) return false;
        if (this.reaches(given.inner, given.group)) return false;
        this.groups.get(given.group)?.add(`g${given.inner}`);
        return true;
      case 'disband':
        for (const members of this.groups.values()) if (this.groups.has(given.group)) members.delete(`g${given.group}`);
        return this.groups.delete(given.group);
    }
  }
}

/** Takes out all that the directory brought. */
async function nobodyLeft(): Promise<void> {
  for (const endpoint of ['/Groups', '/Users'])
    for (const { id } of (await directory.get(endpoint)).body.Resources)
      expect((await directory.delete(`${endpoint}/${id}`)).status).toBe(204);
}

it('whatever a directory says, in whatever order, one by one or in a Bulk, the desk has it as a slow model', async () => {
  const seen: Record<string, number> = {};
  let round = 0;
  await fc.assert(
    fc.asyncProperty(fc.array(step, { minLength: 6, maxLength: 22 }), fc.boolean(), async (steps, inBulk) => {
      await nobodyLeft();
      round += 1;
      const mark = `r${round}`;
      const model = new Model();
      const ids = new Map<string, string>();
      const idOf = (which: string): string => ids.get(which) ?? 'nobody';
      const nameOf = (n: number): string => `${mark}.u${n}@model.example`;
      const call = (each: Step): readonly [method: string, path: string, data: object | undefined, makes: string] => {
        const patch = (...operations: readonly object[]) => ({ schemas: [PATCH_OP], Operations: operations });
        switch (each.does) {
          case 'add':
            return [
              'POST',
              '/Users',
              { schemas: [USER], userName: nameOf(each.user), active: each.active },
              `u${each.user}`,
            ];
          case 'turn':
            return [
              'PATCH',
              `/Users/${idOf(`u${each.user}`)}`,
              patch({ op: 'replace', path: 'active', value: each.active }),
              '',
            ];
          case 'rename':
            return [
              'PATCH',
              `/Users/${idOf(`u${each.user}`)}`,
              patch({ op: 'replace', path: 'userName', value: nameOf(each.to) }),
              '',
            ];
          case 'remove':
            return ['DELETE', `/Users/${idOf(`u${each.user}`)}`, undefined, ''];
          case 'form': {
            const members = each.members.map((member) => ({ value: idOf(`u${member}`) }));
            return [
              'POST',
              '/Groups',
              { schemas: [GROUP], displayName: `${mark} g${each.group}`, members },
              `g${each.group}`,
            ];
          }
          case 'in':
            return [
              'PATCH',
              `/Groups/${idOf(`g${each.group}`)}`,
              patch({ op: 'add', path: 'members', value: [{ value: idOf(`u${each.user}`) }] }),
              '',
            ];
          case 'out':
            return [
              'PATCH',
              `/Groups/${idOf(`g${each.group}`)}`,
              patch({ op: 'remove', path: `members[value eq "${idOf(`u${each.user}`)}"]` }),
              '',
            ];
          case 'nest':
            return [
              'PATCH',
              `/Groups/${idOf(`g${each.group}`)}`,
              patch({ op: 'add', path: 'members', value: [{ value: idOf(`g${each.inner}`) }] }),
              '',
            ];
          case 'disband':
            return ['DELETE', `/Groups/${idOf(`g${each.group}`)}`, undefined, ''];
        }
      };
      for (const each of [...BEGUN, ...steps]) {
        const [method, path, data, makes] = call(each);
        const bulkId = makes === '' ? {} : { bulkId: 'x' };
        const answer = inBulk
          ? (await directory.bulk([{ method, path, ...bulkId, ...(data ? { data } : {}) }])).body.Operations[0]
          : await directory.call(method, path, data);
        const goes = Number(answer.status) < 400;
        expect([each, goes]).toEqual([each, model.take(each)]);
        if (goes && makes !== '') ids.set(makes, inBulk ? answer.location.split('/').at(-1) : answer.body.id);
        if (goes && (each.does === 'remove' || each.does === 'disband'))
          ids.delete(each.does === 'remove' ? `u${each.user}` : `g${each.group}`);
        seen[`${each.does} ${goes ? 'goes' : 'does not'}`] =
          (seen[`${each.does} ${goes ? 'goes' : 'does not'}`] ?? 0) + 1;
      }
      const { db } = desk.running.house;
      for (const [n, { name, active }] of model.users) {
        const { body } = await directory.get(`/Users/${idOf(`u${n}`)}`);
        expect([body.userName, body.active]).toEqual([nameOf(name), active]);
        const row = db
          .select()
          .from(people)
          .where(eq(people.id, idOf(`u${n}`)))
          .get();
        expect([row?.active, row?.email, row?.source]).toEqual([active, nameOf(name), 'directory']);
      }
      for (const [n, members] of model.groups) {
        const { body } = await directory.get(`/Groups/${idOf(`g${n}`)}`);
        const told = ((body.members ?? []) as { value: string }[]).map(({ value }) => value).sort();
        expect(told).toEqual([...members].map((member) => idOf(member)).sort());
      }
      expect(db.select().from(directoryUsers).all().length).toBeGreaterThanOrEqual(model.users.size);
      await nobodyLeft();
      expect([db.select().from(directoryGroups).all(), db.select().from(directoryUsers).all()]).toEqual([[], []]);
      expect(db.select().from(groupEntries).where(eq(groupEntries.source, 'directory')).all()).toEqual([]);
    }),
    { numRuns: often(75) },
  );
  console.log('what the directory said', seen);
  const all = ['add', 'turn', 'rename', 'remove', 'form', 'in', 'nest', 'disband'].flatMap((does) => [
    `${does} goes`,
    `${does} does not`,
  ]);
  expect([...all, 'out goes'].filter((name) => (seen[name] ?? 0) === 0)).toEqual([]);
});
