import type { AnswerOf, BodyOf } from '@tolvek/contract';
import { dateAt, wallClockAt } from '@tolvek/core/deadline';
import type { Viewer } from '@tolvek/core/people';
import { NOTHING_AROUND, type ProfileField, type RawAnswers, typedForm } from '@tolvek/core/register';
import {
  PROFILE,
  PROFILE_KEY,
  type ProfileDesign,
  profileFieldsOf,
  type ReadProfile,
  readProfile,
} from '@tolvek/core/settings';
import { said } from '@tolvek/words';
import { sql } from 'drizzle-orm';
import { designByKey, statesOf } from '../design/queries.ts';
import { allGroups, namesOf, type PersonRow } from '../people/queries.ts';
import { settleRules } from '../people/rules.ts';
import { people } from '../people/tables.ts';
import { iso } from '../platform/clock.ts';
import type { Reader } from '../platform/database.ts';
import type { House } from '../platform/house.ts';
import { wrongFields } from '../platform/problem.ts';
import { by, write } from '../platform/work.ts';
import { pickedBy } from '../request/facts.ts';
import { changeProfile } from '../settings/commands.ts';
import { deskOf, profileDesignOf } from '../settings/queries.ts';
import { allVocabularies } from '../vocabulary/queries.ts';
import { namedIn } from './uses.ts';

/** Fields of profiles as what reads answers knows fields. */
export const asFields = (fields: readonly ProfileField[]) =>
  fields.map((field) => ({ ...field, source: 'desk-only' as const }));

/**
 * What was typed into the profile of somebody of the staff or of a contact.
 *
 * @throws Problem 422 with every answer that can’t be understood.
 */
export function readTyped(
  db: Reader,
  kind: PersonRow['kind'],
  raw: RawAnswers | undefined,
  now: number,
): ReadProfile['values'] {
  if (raw === undefined || Object.keys(raw).length === 0) return {};
  const fields = profileFieldsOf(profileDesignOf(db), kind);
  const { zone } = deskOf(db);
  const { values, problems } = readProfile(fields, raw, {
    ...NOTHING_AROUND,
    ...{ today: dateAt(now, zone), now: wallClockAt(now, zone) },
    ...pickedBy(db, asFields(fields)),
  });
  if (problems.length > 0) throw wrongFields(problems);
  return values;
}

/** What stands in somebody’s profile, as it would be typed. */
export const typedProfile = (db: Reader, { kind, profile }: PersonRow): RawAnswers =>
  Object.fromEntries(
    profileFieldsOf(profileDesignOf(db), kind).flatMap((field) => {
      const value = profile[field.key];
      return value === undefined ? [] : [[field.key, typedForm(field, value)]];
    }),
  );

/** States that are shown. */
const SHOWN = 30;

export function profileView(db: Reader, now: number): AnswerOf<'profile'> {
  const design = designByKey(db, PROFILE, PROFILE_KEY);
  const { fields } = profileDesignOf(db);
  const { zone } = deskOf(db);
  const states = design ? statesOf<ProfileDesign>(db, design).slice(0, SHOWN + 1) : [];
  const names = namesOf(
    db,
    states.map((state) => state.by),
  );
  return {
    version: design?.version ?? 0,
    fields,
    filled: filledIn(db),
    uses: fields.flatMap(({ key }) => usesOf(db, key).map((use) => ({ field: key, ...use }))),
    people: pickedBy(db, asFields(fields)).people.map((person) => ({ ...person, groups: [...person.groups] })),
    vocabularies: allVocabularies(db),
    groups: allGroups(db).map(({ key, name }) => ({ key, name })),
    ...{ today: dateAt(now, zone), now: wallClockAt(now, zone) },
    states: states.slice(0, SHOWN).map(({ number, by, at, content }, place) => ({
      ...{ number, by: names.get(by) ?? '', at: iso(at), fields: content.fields },
      changes: PROFILE.compare(states[place + 1]?.content ?? null, content).map(({ words, before, after }) => ({
        ...{ words, before, after },
      })),
    })),
  };
}

/** How many people have something in each field of profiles. */
const filledIn = (db: Reader): Readonly<Record<string, number>> =>
  Object.fromEntries(
    db
      .all<{ key: string; n: number }>(
        sql`select each.key as key, count(*) as n from ${people}, json_each(${people.profile}) as each
          where ${people.mergedInto} is null group by each.key`,
      )
      .map(({ key, n }) => [key, n]),
  );

/** Where conditions and formulas read a field of profiles: each design once. */
const usesOf = (db: Reader, key: string): readonly { readonly title: string; readonly to: string }[] => [
  ...new Map(namedIn(db, { kind: 'profile', key }).map(({ title, to }) => [to, { title, to }])).values(),
];

/**
 * Puts other fields of profiles in force, at once.
 *
 * @throws Problem 422 when a field is wrong, or one that is read somewhere would go.
 */
export const putProfile = (
  house: House,
  viewer: Viewer,
  { version, fields }: BodyOf<'changeProfile'> & { readonly version: number },
): AnswerOf<'changeProfile'> =>
  write(house, (work) => {
    const { tx, now } = work;
    const problems = profileDesignOf(tx).fields.flatMap(({ key, label, type }) => {
      const after = fields.find((field) => field.key === key);
      const [use] = after ? [] : usesOf(tx, key);
      if (use)
        return [
          {
            ...{ field: key, message: said('ground:fieldInUse', { label, title: use.title }) },
            fix: said('ground:retireField'),
          },
        ];
      const isFilled = (filledIn(tx)[key] ?? 0) > 0;
      return after && after.type.kind !== type.kind && isFilled
        ? [{ field: key, message: said('ground:fieldKindFilled', { label }), fix: said('ground:retireField') }]
        : [];
    });
    if (problems.length > 0) throw wrongFields(problems);
    const next = changeProfile(tx, { version, profile: { fields }, note: '' }, { viewer, now });
    // A field that is of another kind, or gone, is read otherwise by the rules of groups.
    settleRules(by(work, viewer.personId), 'all');
    return { version: next };
  });
