import fc from 'fast-check';
import { expect, it } from 'vitest';
import { ENTERPRISE, type Json, orderBy, type Resource, shown, USER } from './index.ts';
import { DirectoryRefusal } from './refusal.ts';

const BABS: Resource = {
  ...{ schemas: [USER.schema.id, ENTERPRISE], id: '7', externalId: 'x', userName: 'babs', title: 'Guide' },
  name: { givenName: 'Barbara', familyName: 'Jensen' },
  emails: [
    { value: 'w@x.example', type: 'work' },
    { value: 'h@x.example', type: 'home' },
  ],
  [ENTERPRISE]: { department: 'Tours', manager: { value: '26' } },
  meta: { resourceType: 'User', version: 'W/"1"' },
};
const only = (...paths: readonly string[]) => shown(USER, BABS, { only: paths, without: [] });
const without = (...paths: readonly string[]) => shown(USER, BABS, { only: [], without: paths });
const always = { schemas: BABS.schemas as Json, id: '7' };

it('a resource is shown as far as it is wanted; its id always, and what nobody knows asks for nothing', () => {
  expect(only('userName')).toEqual({ ...always, userName: 'babs' });
  expect(only('NAME.familyname', 'emails.value')).toEqual({
    ...always,
    name: { familyName: 'Jensen' },
    emails: [{ value: 'w@x.example' }, { value: 'h@x.example' }],
  });
  expect(only(`${ENTERPRISE}:department`)).toEqual({ ...always, [ENTERPRISE]: { department: 'Tours' } });
  expect(only(ENTERPRISE)).toEqual({ ...always, [ENTERPRISE]: BABS[ENTERPRISE] as Json });
  expect(only('meta', `${USER.schema.id}:title`)).toEqual({ ...always, title: 'Guide', meta: BABS.meta as Json });
  expect(only('colour')).toEqual(always);
  const { name: _name, emails: _emails, ...rest } = BABS;
  expect(without('name', 'emails')).toEqual(rest);
  expect(without('id', 'colour')).toEqual(BABS);
  expect(without('emails.type', `${ENTERPRISE}:manager`)).toEqual({
    ...BABS,
    emails: [{ value: 'w@x.example' }, { value: 'h@x.example' }],
    [ENTERPRISE]: { department: 'Tours' },
  });
});

it('what is shown of some paths and what is shown without them make up the whole', () => {
  const paths = ['userName', 'title', 'name', 'emails', 'meta', 'externalId', ENTERPRISE];
  fc.assert(
    fc.property(fc.subarray(paths, { minLength: 1 }), (some) => {
      expect({ ...without(...some), ...only(...some) }).toEqual(BABS);
      const both = Object.keys(without(...some)).filter((key) => key in only(...some));
      expect(both.sort()).toEqual(['id', 'schemas']);
    }),
  );
});

it('resources are put in order by an attribute, capitals or not, with who has nothing last, or turned round', () => {
  const named = (title: string | null, at: number): Resource => ({
    id: String(at),
    ...(title === null ? {} : { title }),
  });
  const titles = fc.array(fc.option(fc.constantFrom('a', 'B', 'b', 'C', 'aa')), { maxLength: 8 });
  fc.assert(
    fc.property(titles, fc.boolean(), (given, isFalling) => {
      const all = given.map(named);
      const sorted = [...all]
        .sort(orderBy(USER, 'title', isFalling))
        .map(({ title }) => title?.toString().toLowerCase());
      const said = sorted.filter((title) => title !== undefined);
      const plain = [...said].sort();
      expect(said).toEqual(isFalling ? plain.reverse() : plain);
      const nothing = sorted.map((title, place) => (title === undefined ? place : -1)).filter((place) => place >= 0);
      const first = isFalling ? 0 : said.length;
      expect(nothing).toEqual(nothing.map((_place, n) => first + n));
    }),
  );
  const mails = (first: string, other: string): Resource => ({
    emails: [{ value: first }, { value: other, primary: true }],
  });
  const [one, two] = [mails('a', 'z'), mails('b', 'c')];
  expect([one, two].sort(orderBy(USER, 'emails', false))).toEqual([two, one]);
  expect([one, two].sort(orderBy(USER, 'emails.value', true))).toEqual([one, two]);
  for (const path of ['colour', ENTERPRISE]) expect(() => orderBy(USER, path, false)).toThrow(DirectoryRefusal);
});
