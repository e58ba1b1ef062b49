import { type Said, said } from '@tolvek/words';
import {
  compareContents,
  type DesignFinding,
  type DesignKind,
  type MergeRules,
  mergeContents,
} from '../design/index.ts';
import { own } from '../own/index.ts';
import {
  type Around,
  designsNamed,
  type FieldValue,
  kindObjections,
  PERSON_ENTRIES,
  type Problem,
  type ProfileField,
  type RawAnswers,
  readAnswer,
  type Values,
} from '../register/index.ts';

/** What the desk knows of people besides their names and addresses: fields that the coordinator chooses. */
export interface ProfileDesign {
  readonly fields: readonly ProfileField[];
}

/** The key of the one there is. */
export const PROFILE_KEY = 'profile';

export const NEW_PROFILE: ProfileDesign = { fields: [] };

/** Fields that are asked of somebody, in their order. */
export const profileFieldsOf = ({ fields }: ProfileDesign, kind: 'staff' | 'contact'): readonly ProfileField[] =>
  fields.filter((field) => !field.retired && (field.of === 'everybody' || field.of === kind));

const rulesOf = (...states: readonly (ProfileDesign | null)[]): MergeRules => ({
  lists: { fields: (item) => String(item.key), options: (item) => String(item.key) },
  nameOf: ([, key]) => {
    const field = states.flatMap((state) => state?.fields ?? []).find((each) => each.key === key);
    return field ? said('designs:theField', { name: field.label }) : said('settings:theProfile');
  },
});

const named = (label: string): string => label.trim().toLowerCase();

function found({ fields }: ProfileDesign): readonly DesignFinding[] {
  const error = (at: string, message: Said): DesignFinding => ({ severity: 'error', page: 'profile', at, message });
  return fields.flatMap(({ key, label, type }, place): readonly DesignFinding[] => {
    const before = fields.slice(0, place);
    return [
      ...(label.trim() === '' ? [error(key, said('settings:fieldWithoutName'))] : []),
      ...(before.some((each) => named(each.label) === named(label) && label.trim() !== '')
        ? [error(key, said('settings:fieldTwice', { label }))]
        : []),
      ...((PERSON_ENTRIES as readonly string[]).includes(key) || before.some((each) => each.key === key)
        ? [error(key, said('settings:fieldKeyTaken', { key }))]
        : []),
      ...kindObjections(label, type).map(({ message }) => error(key, message)),
      ...((type.kind === 'term' || type.kind === 'terms') && type.vocabulary === ''
        ? [error(key, said('findings:lostVocabulary', { label }))]
        : []),
    ];
  });
}

/** Profiles as a design: there is one, and it is in force at once. */
export const PROFILE: DesignKind<ProfileDesign> = {
  kind: 'profile',
  titleOf: () => '',
  compare: (before, after) => compareContents(before, after, rulesOf(after, before)),
  merge: (base, mine, theirs) => mergeContents(base, mine, theirs, rulesOf(base, theirs, mine)),
  findings: found,
  refersTo: ({ fields }) => designsNamed(fields.map((field) => ({ ...field, source: 'desk-only' }))),
};

/** What was typed into a profile: what can be understood of it, and what is wrong. */
export interface ReadProfile {
  /** Null: emptied. */
  readonly values: Readonly<Record<string, FieldValue | null>>;
  readonly problems: readonly Problem[];
}

/** Understands what was typed into some fields of a profile; what no field has is left out. */
export function readProfile(fields: readonly ProfileField[], raw: RawAnswers, around: Around): ReadProfile {
  const values: Record<string, FieldValue | null> = {};
  const problems: Problem[] = [];
  for (const field of fields) {
    const typed = own(raw, field.key);
    if (typed === undefined) continue;
    const read = readAnswer(field, typed, around);
    if (read.state === 'wrong') problems.push({ field: `profile.${field.key}`, message: read.message, fix: read.fix });
    else values[field.key] = read.state === 'value' ? read.value : null;
  }
  return { values, problems };
}

/** A profile after some of its fields were set, and others emptied. */
export const profileAfter = (before: Values, { values }: Pick<ReadProfile, 'values'>): Values => {
  const after = Object.entries({ ...before, ...values }).filter(([, value]) => value !== null);
  return Object.fromEntries(after) as Values;
};
