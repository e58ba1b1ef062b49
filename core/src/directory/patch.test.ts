import fc from 'fast-check';
import { scimPatch } from 'scim-patch';
import SCIMMY from 'scimmy';
import { describe, expect, it } from 'vitest';
import {
  type Attribute,
  ENTERPRISE,
  GROUP,
  type Json,
  PATCH_OP,
  patched,
  personIn,
  RESOURCE_TYPES,
  type Resource,
  saidOf,
  takeResource,
  USER,
} from './index.ts';
import { DirectoryRefusal } from './refusal.ts';

const patch = (...operations: readonly object[]) => ({ schemas: [PATCH_OP], Operations: operations });
const refused = (does: () => unknown): string => {
  try {
    does();
    return '';
  } catch (error) {
    if (!(error instanceof DirectoryRefusal)) throw error;
    return error.scimType ?? String(error.status);
  }
};

const BABS: Resource = {
  ...{ userName: 'babs', displayName: 'Babs Jensen', title: 'Guide', active: true },
  name: { givenName: 'Barbara', familyName: 'Jensen' },
  emails: [
    { value: 'babs@work.example', type: 'work', primary: true },
    { value: 'babs@home.example', type: 'home' },
  ],
  [ENTERPRISE]: { department: 'Tours', manager: { value: '26' } },
};
const [WORK, HOME] = BABS.emails as readonly Resource[];

describe('a patch, by the examples and rules of RFC 7644 §3.5.2', () => {
  const after = (...operations: readonly object[]): Resource => patched(USER, BABS, patch(...operations));
  const group: Resource = { displayName: 'Guides', members: [{ value: '1' }, { value: '2' }] };
  const members = (...operations: readonly object[]): unknown => patched(GROUP, group, patch(...operations)).members;

  it('adds', () => {
    expect(after({ op: 'add', path: 'nickName', value: 'B' }).nickName).toBe('B');
    expect(after({ op: 'add', path: 'title', value: 'Lead' }).title).toBe('Lead');
    expect(after({ op: 'add', path: 'name', value: { middleName: 'J' } }).name).toEqual({
      ...{ givenName: 'Barbara', familyName: 'Jensen', middleName: 'J' },
    });
    const other = { value: 'other@x.example', type: 'other' };
    expect(after({ op: 'add', path: 'emails', value: [other] }).emails).toEqual([WORK, HOME, other]);
    expect(after({ op: 'add', path: 'emails', value: other }).emails).toEqual([WORK, HOME, other]);
    expect(after({ op: 'add', path: 'emails', value: [HOME] }).emails).toEqual([WORK, HOME]);
    // Of several first ones the newest is it.
    expect(after({ op: 'add', path: 'emails', value: { ...other, primary: true } }).emails).toEqual([
      ...[{ ...WORK, primary: false }, HOME],
      { ...other, primary: true },
    ]);
    const whole = { emails: [other], nickName: 'B', [`${ENTERPRISE}:division`]: 'East', 'name.middleName': 'J' };
    expect(after({ op: 'add', value: { ...whole, colour: 'red', id: '9' } })).toEqual({
      ...{ ...BABS, nickName: 'B', emails: [WORK, HOME, other] },
      name: { ...(BABS.name as Resource), middleName: 'J' },
      [ENTERPRISE]: { ...(BABS[ENTERPRISE] as Resource), division: 'East' },
    });
    expect(after({ op: 'add', path: 'phoneNumbers[type eq "work"].value', value: '1' }).phoneNumbers).toEqual([
      { type: 'work', value: '1' },
    ]);
    expect(members({ op: 'add', path: 'members', value: [{ value: '2', type: 'User' }, { value: '3' }] })).toEqual([
      ...[{ value: '1' }, { value: '2' }, { value: '3' }],
    ]);
    expect(members({ op: 'Add', value: { members: [{ value: '3' }] } })).toHaveLength(3);
  });

  it('removes', () => {
    expect(after({ op: 'remove', path: 'title' }).title).toBeUndefined();
    expect(after({ op: 'remove', path: 'name.givenName' }).name).toEqual({ familyName: 'Jensen' });
    expect(after({ op: 'remove', path: 'emails' }).emails).toBeUndefined();
    expect(after({ op: 'remove', path: 'emails[type eq "work"]' }).emails).toEqual([HOME]);
    expect(after({ op: 'remove', path: 'emails[type eq "work" or type eq "home"]' }).emails).toBeUndefined();
    expect(after({ op: 'remove', path: 'emails[type eq "home"].type' }).emails).toEqual([
      WORK,
      { value: 'babs@home.example' },
    ]);
    expect(after({ op: 'remove', path: 'emails[type eq "none"]' })).toEqual(BABS);
    expect(after({ op: 'remove', path: ENTERPRISE })[ENTERPRISE]).toBeUndefined();
    expect(after({ op: 'remove', path: `${ENTERPRISE}:manager` })[ENTERPRISE]).toEqual({ department: 'Tours' });
    expect(members({ op: 'remove', path: 'members[value eq "1"]' })).toEqual([{ value: '2' }]);
    expect(members({ op: 'remove', path: 'members', value: [{ value: '1' }] })).toEqual([{ value: '2' }]);
    expect(members({ op: 'remove', path: 'members' })).toBeUndefined();
  });

  it('replaces', () => {
    expect(after({ op: 'replace', path: 'title', value: 'Lead' }).title).toBe('Lead');
    expect(after({ op: 'replace', path: 'title', value: null }).title).toBeUndefined();
    expect(after({ op: 'replace', path: 'name', value: { givenName: 'B' } }).name).toEqual({
      ...{ givenName: 'B', familyName: 'Jensen' },
    });
    expect(after({ op: 'replace', path: 'emails', value: [{ value: 'x@x.example' }] }).emails).toEqual([
      { value: 'x@x.example' },
    ]);
    expect(after({ op: 'replace', path: 'emails[type eq "work"]', value: { value: 'x@x.example' } }).emails).toEqual([
      { value: 'x@x.example' },
      HOME,
    ]);
    expect(after({ op: 'replace', path: 'emails[value eq "babs@home.example"].value', value: 'h' }).emails).toEqual([
      WORK,
      { value: 'h', type: 'home' },
    ]);
    expect(after({ op: 'replace', path: 'EMAILS[TYPE EQ "HOME"].Primary', value: true }).emails).toEqual([
      { ...WORK, primary: false },
      { ...HOME, primary: true },
    ]);
    expect(after({ op: 'replace', path: `${USER.schema.id}:name.familyName`, value: 'J' }).name).toMatchObject({
      familyName: 'J',
    });
    expect(after({ op: 'replace', path: `${ENTERPRISE}:manager`, value: '27' })[ENTERPRISE]).toEqual({
      ...{ department: 'Tours', manager: { value: '27' } },
    });
    expect(after({ op: 'replace', value: { active: 'False', title: 'Lead' } })).toEqual({
      ...{ ...BABS, active: false, title: 'Lead' },
    });
    expect(members({ op: 'replace', path: 'members', value: [{ value: '3' }] })).toEqual([{ value: '3' }]);
    expect(members({ op: 'replace', path: 'members', value: [] })).toBeUndefined();
  });

  it('refuses with the word of the standard, and does nothing', () => {
    const before = JSON.stringify(BABS);
    const cases: readonly (readonly [object, string])[] = [
      [{ op: 'remove' }, 'noTarget'],
      [{ op: 'replace', path: 'emails[type eq "none"].value', value: 'x' }, 'noTarget'],
      [{ op: 'replace', path: 'emails[type eq "none"]', value: { value: 'x' } }, 'noTarget'],
      [{ op: 'add', path: 'emails[type co "none"].value', value: 'x' }, 'noTarget'],
      [{ op: 'add', path: 'colour', value: 'x' }, 'invalidPath'],
      [{ op: 'add', path: 'name.colour', value: 'x' }, 'invalidPath'],
      [{ op: 'add', path: 'title[type eq "x"]', value: 'x' }, 'invalidPath'],
      [{ op: 'add', path: '__proto__.polluted', value: 'x' }, 'invalidPath'],
      [{ op: 'remove', path: 'emails[type]' }, 'invalidFilter'],
      [{ op: 'add', path: 'title' }, 'invalidValue'],
      [{ op: 'add', value: 'x' }, 'invalidValue'],
      [{ op: 'replace', path: 'title', value: 3 }, 'invalidValue'],
      [{ op: 'replace', path: 'title', value: ['x'] }, 'invalidValue'],
      [{ op: 'replace', path: 'active', value: 'maybe' }, 'invalidValue'],
      [{ op: 'replace', path: 'id', value: '9' }, 'mutability'],
      [{ op: 'add', path: 'groups', value: [{ value: '9' }] }, 'mutability'],
      [{ op: 'remove', path: 'userName' }, 'mutability'],
      [{ op: 'replace', path: 'userName', value: null }, 'mutability'],
      [{ op: 'replace', path: 'userName', value: ' ' }, 'invalidValue'],
      [{ op: 'move', path: 'title', value: 'x' }, 'invalidSyntax'],
      [{ op: 'add', path: 3, value: 'x' }, 'invalidSyntax'],
    ];
    for (const [operation, why] of cases) {
      const good = { op: 'replace', path: 'title', value: 'Lead' };
      expect([operation, refused(() => patched(USER, BABS, patch(good, operation)))]).toEqual([operation, why]);
    }
    expect(JSON.stringify(BABS)).toBe(before);
    for (const body of [null, 3, {}, { schemas: [PATCH_OP] }, { schemas: [PATCH_OP], Operations: [] }])
      expect(refused(() => patched(USER, BABS, body))).toBe('invalidSyntax');
    expect(refused(() => patched(USER, BABS, { Operations: [{ op: 'remove', path: 'title' }] }))).toBe('invalidSyntax');
    const member = { op: 'replace', path: 'members[value eq "1"].value', value: '9' };
    expect(refused(() => patched(GROUP, group, patch(member)))).toBe('mutability');
  });
});

it('a patch does what a peer makes of it, where both read the standard alike', () => {
  const word = fc.constantFrom('a', 'b', 'c');
  const plain = fc.constantFrom('title', 'nickName', 'displayName', 'name.givenName', 'name.familyName');
  const email = fc.record({ value: word, type: word });
  const operation: fc.Arbitrary<object> = fc.oneof(
    fc.record({ op: fc.constantFrom('add', 'replace'), path: plain, value: word }),
    fc.record({ op: fc.constant('remove'), path: plain }),
    fc.record({
      op: fc.constantFrom('add', 'replace'),
      path: fc.constant('emails'),
      value: fc.array(email, { minLength: 1, maxLength: 2 }),
    }),
    fc.record({
      op: fc.constant('remove'),
      path: fc.constantFrom('emails[type eq "a"]', 'emails[value eq "b"]', 'emails'),
    }),
  );
  const seen: Record<string, number> = {};
  const distinct = (values: Json | undefined): unknown =>
    Array.isArray(values) ? [...new Map(values.map((each) => [JSON.stringify(each), each])).values()] : values;
  const known = (resource: Resource): unknown => {
    const { name, emails, ...rest } = resource;
    const parts = Object.keys((name ?? {}) as object).length > 0 ? { name } : {};
    return { ...rest, ...parts, ...(Array.isArray(emails) && emails.length > 0 ? { emails: distinct(emails) } : {}) };
  };
  fc.assert(
    fc.property(
      fc.uniqueArray(email, { maxLength: 3, selector: (each) => each.value }),
      fc.array(operation, { minLength: 1, maxLength: 4 }),
      (emails, operations) => {
        const before = {
          userName: 'x',
          name: { givenName: 'a', familyName: 'b' },
          ...(emails.length > 0 ? { emails } : {}),
        };
        let theirs: Resource;
        try {
          theirs = scimPatch(structuredClone(before) as never, operations as never, {
            treatMissingAsAdd: false,
          }) as never;
        } catch {
          seen.refused = (seen.refused ?? 0) + 1;
          return;
        }
        for (const { op } of operations as readonly { op: string }[]) seen[op] = (seen[op] ?? 0) + 1;
        expect(known(patched(USER, before, patch(...operations)))).toEqual(known(theirs));
      },
    ),
    { numRuns: 2_000 },
  );
  console.log('operations as the peer does them', seen);
  expect(Object.keys(seen).sort()).toEqual(['add', 'refused', 'remove', 'replace']);
});

it('the schemas are those of RFC 7643, as far as they go', () => {
  interface Described {
    readonly name: string;
    readonly subAttributes?: readonly Described[];
    readonly [characteristic: string]: unknown;
  }
  const peers = [SCIMMY.Schemas.User, SCIMMY.Schemas.EnterpriseUser, SCIMMY.Schemas.Group].map(
    ({ definition }) =>
      JSON.parse(JSON.stringify(definition.describe())) as {
        readonly id: string;
        readonly attributes: readonly Described[];
      },
  );
  let compared = 0;
  const compare = (path: string, mine: Attribute, theirs: Described | undefined): void => {
    const keys = ['type', 'multiValued', 'required', 'caseExact', 'mutability', 'returned', 'uniqueness'] as const;
    // Where the standard’s own schema of groups has no `display`, it is ours.
    for (const key of path.endsWith('members.display') ? [] : keys)
      if (theirs?.[key] !== undefined) {
        expect([path, key, mine[key]]).toEqual([path, key, theirs[key]]);
        compared += 1;
      }
    for (const sub of mine.subAttributes ?? [])
      compare(
        `${path}.${sub.name}`,
        sub,
        theirs?.subAttributes?.find(({ name }) => name === sub.name),
      );
  };
  for (const { schema, extensions } of RESOURCE_TYPES)
    for (const { id, attributes } of [schema, ...extensions]) {
      const peer = peers.find((each) => each.id === id);
      for (const attribute of attributes)
        compare(
          `${id} ${attribute.name}`,
          attribute,
          peer?.attributes.find(({ name }) => name === attribute.name),
        );
    }
  console.log('characteristics held against a peer', compared);
  expect(compared).toBeGreaterThan(200);
});

it('a resource is taken in the names and kinds of its schema; what it has no place for is left out', () => {
  const sent = {
    schemas: [USER.schema.id.toUpperCase()],
    ...{ USERNAME: 'babs', active: 'TRUE', colour: 'red', id: '9', meta: { version: 'x' }, groups: [{ value: 'g' }] },
    emails: [
      { VALUE: 'a@x.example', primary: true, colour: 'red' },
      { value: 'b@x.example', primary: true },
      ...[null, {}, 'c@x.example'],
    ],
    [ENTERPRISE.toLowerCase()]: { department: 'Tours', manager: { value: '1', displayName: 'read only' } },
  };
  expect(takeResource(USER, sent)).toEqual({
    ...{ userName: 'babs', active: true },
    emails: [
      { value: 'a@x.example', primary: false },
      { value: 'b@x.example', primary: true },
      { value: 'c@x.example' },
    ],
    [ENTERPRISE]: { department: 'Tours', manager: { value: '1' } },
  });
  expect(refused(() => takeResource(USER, { userName: 'x' }))).toBe('invalidSyntax');
  expect(refused(() => takeResource(USER, []))).toBe('invalidSyntax');
  expect(refused(() => takeResource(USER, { schemas: [USER.schema.id], userName: 3 }))).toBe('invalidValue');
  expect(refused(() => takeResource(USER, { schemas: [USER.schema.id], userName: 'x', name: 'x' }))).toBe(
    'invalidValue',
  );
});

it('somebody is called, reached and read to by the best that is said of them', () => {
  const person = (more: Resource) => personIn({ userName: 'ola@x.example', ...more });
  expect(person({})).toEqual({ name: 'ola@x.example', email: 'ola@x.example', active: null, language: null });
  expect(person({ name: { givenName: 'Ola', familyName: 'Strand' } }).name).toBe('Ola Strand');
  expect(person({ name: { formatted: 'O. Strand', givenName: 'Ola' } }).name).toBe('O. Strand');
  expect(person({ displayName: 'Ola!', name: { formatted: 'O. Strand' } }).name).toBe('Ola!');
  const emails: Json = [
    { value: 'Home@x.example', type: 'home' },
    { value: 'Work@x.example', type: 'work', primary: true },
  ];
  expect(person({ emails }).email).toBe('work@x.example');
  expect(person({ emails: [{ value: 'none' }], userName: 'ola' } as Resource).email).toBeNull();
  expect(person({ preferredLanguage: 'de-AT' }).language).toBe('de');
  expect(person({ locale: 'en_IE', preferredLanguage: '' }).language).toBe('en');
  expect(person({ preferredLanguage: 'nl' }).language).toBeNull();
  const phones = [
    { value: '1', type: 'Mobile' },
    { value: '2', type: 'work' },
  ];
  const user: Resource = { ...BABS, phoneNumbers: phones };
  expect([saidOf(user, 'phone'), saidOf(user, 'mobile'), saidOf(user, 'department'), saidOf(user, 'manager')]).toEqual([
    ...['2', '1', 'Tours', '26'],
  ]);
  expect([saidOf({}, 'phone'), saidOf({}, 'title'), saidOf({}, 'costCenter')]).toEqual(['', '', '']);
});
