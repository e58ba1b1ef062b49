import fc from 'fast-check';
import { expect, it } from 'vitest';
import { NOTHING_AROUND, type ProfileField, type Values } from '../register/index.ts';
import { PROFILE, profileAfter, profileFieldsOf, readProfile } from './index.ts';

const FIELDS: readonly ProfileField[] = [
  { key: 'title', label: 'Title', type: { kind: 'text' }, of: 'staff' },
  { key: 'grade', label: 'Grade', type: { kind: 'number', places: 0, least: 1 }, of: 'everybody' },
  { key: 'old', label: 'Old', type: { kind: 'text' }, of: 'everybody', retired: true },
  { key: 'institute', label: 'Institute', type: { kind: 'text' }, of: 'contact' },
];

it('fields are asked of those they are for, in their order, while they are in use', () => {
  expect(profileFieldsOf({ fields: FIELDS }, 'staff').map(({ key }) => key)).toEqual(['title', 'grade']);
  expect(profileFieldsOf({ fields: FIELDS }, 'contact').map(({ key }) => key)).toEqual(['grade', 'institute']);
});

it('what is typed is read field by field: what does not fit is told, what no field has is left out', () => {
  const { values, problems } = readProfile(
    FIELDS,
    { title: 'Skipper', grade: '0', institute: ' ', salary: '9' },
    NOTHING_AROUND,
  );
  expect(values).toEqual({ title: 'Skipper', institute: null });
  expect(problems.map(({ field }) => field)).toEqual(['profile.grade']);
});

it('setting some fields leaves the others as they were; emptying one takes it away', () => {
  const some = fc.dictionary(fc.constantFrom('title', 'grade', 'old', 'institute'), fc.string({ minLength: 1 }));
  fc.assert(
    fc.property(some, some, fc.subarray(['title', 'grade', 'old', 'institute']), (before, set, emptied) => {
      const nothing = Object.fromEntries(emptied.map((key) => [key, null]));
      const after = profileAfter(before as Values, { values: { ...set, ...nothing } });
      const keys = new Set([...Object.keys(before), ...Object.keys(set)].filter((key) => !emptied.includes(key)));
      expect(Object.keys(after).sort()).toEqual([...keys].sort());
      for (const key of keys) expect(after[key]).toBe(Object.hasOwn(set, key) ? set[key] : before[key]);
    }),
  );
});

it('a field has a name of its own, and none that people have already', () => {
  const found = (fields: readonly ProfileField[]) => PROFILE.findings({ fields }, null).map(({ at }) => at);
  const [title] = FIELDS as [ProfileField];
  expect(found(FIELDS)).toEqual([]);
  expect(found([title, { ...title, key: 'other', label: 'TITLE ' }])).toEqual(['other']);
  expect(found([{ ...title, key: 'email' }])).toEqual(['email']);
  expect(found([{ ...title, label: '' }])).toEqual(['title']);
  expect(found([{ ...title, type: { kind: 'term', vocabulary: '' } }])).toEqual(['title']);
  const twice = PROFILE.merge({ fields: [title] }, { fields: [{ ...title, label: 'A' }] }, { fields: [...FIELDS] });
  expect(twice.content.fields.map(({ label }) => label)).toEqual(['A', 'Grade', 'Old', 'Institute']);
});
