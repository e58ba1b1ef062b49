import { said } from '@tolvek/words';
import type { Context, ContextEntry, ScopeType } from '../expression/index.ts';
import { own } from '../own/index.ts';
import type { Field, Kind, SingleKind, Values } from './field.ts';
import { expressionValue } from './kinds/index.ts';

/** Kinds that a field of people’s profiles can be of: those that need no request. */
export type ProfileKind = SingleKind | Extract<Kind, { kind: 'choices' | 'person' | 'people' | 'terms' }>;

/** What a field of profiles may be filled in from, where a directory keeps people in step; in the order it is offered. */
export const DIRECTORY_ATTRIBUTES = [
  ...(['title', 'userType', 'department', 'division', 'organization', 'costCenter'] as const),
  ...(['employeeNumber', 'manager', 'phone', 'mobile', 'nickName'] as const),
] as const;
export type DirectoryAttribute = (typeof DIRECTORY_ATTRIBUTES)[number];

/** A field of people’s profiles. The key is its lasting identity. */
export interface ProfileField {
  readonly key: string;
  readonly label: string;
  readonly type: ProfileKind;
  /** Whose profile has it. */
  readonly of: 'staff' | 'contact' | 'everybody';
  /** What of a directory fills it in; of whom the directory keeps, it is changed there. */
  readonly directory?: DirectoryAttribute;
  /** Whether lists of people have a column for it. */
  readonly listed?: boolean;
  /** Asked of nobody any more; values that stand are kept. */
  readonly retired?: boolean;
}

/** What is known of a field of profiles where conditions read it. */
export type ProfileType = Pick<Field, 'key' | 'type'>;

/** The fields of a profile that conditions may read, and what stands in them for one person. */
export interface Profile {
  readonly fields: readonly ProfileType[];
  readonly values: Values;
}

export const NO_PROFILE: Profile = { fields: [], values: {} };

/** What `requester` and `me` are made of besides the profile: no field of profiles has such a key. */
export const PERSON_ENTRIES = ['outside', 'person', 'department', 'groups', 'name', 'email'] as const;

/** The fields of profiles as parts of somebody in conditions; `of` says whose. */
export const profileEntries = (
  fields: readonly (ProfileType & Pick<Field, 'label'>)[],
  of: 'requester' | 'person',
  typeOf: (field: ProfileType) => ScopeType,
): Readonly<Record<string, ContextEntry>> =>
  Object.fromEntries(
    fields.map((field) => [
      field.key,
      {
        label: said(of === 'requester' ? 'reasons:requesterProfile' : 'reasons:personProfile', { label: field.label }),
        isFull: true,
        type: typeOf(field),
      },
    ]),
  );

/** What stands in a profile, as conditions see it. */
export const profileValues = ({ fields, values }: Profile): Context =>
  Object.fromEntries(fields.map((field) => [field.key, expressionValue(field, own(values, field.key))]));

/** A profile with some of its fields only. */
export const profileWith = ({ fields, values }: Profile, keys: ReadonlySet<string>): Profile => ({
  fields: fields.flatMap(({ key, type }) => (keys.has(key) ? [{ key, type }] : [])),
  values: Object.fromEntries(Object.entries(values).filter(([key]) => keys.has(key))),
});
