import { said } from '@tolvek/words';
import { compile, entriesIn, parseExpression, Scope } from '../expression/index.ts';
import { type Audience, groupsIn, peopleIn, profileConditionsIn } from '../people/index.ts';
import type { Field } from './field.ts';
import { type Profile, type ProfileType, profileValues } from './profile.ts';
import { type KnownNames, knownType } from './requestScope.ts';

/** What a condition on a profile calls whose it is. */
const ME = 'me';

/** The names that a condition on somebody’s profile may use: the fields of profiles, as parts of `me`. */
export const personScope = (fields: readonly (ProfileType & Pick<Field, 'label'>)[], known: KnownNames = {}): Scope =>
  new Scope([
    {
      name: ME,
      label: said('people:profile'),
      type: {
        kind: 'context',
        entries: Object.fromEntries(
          fields.map((field) => [field.key, { label: field.label, isFull: true, type: knownType(field, known) }]),
        ),
      },
    },
  ]);

type Compiled = (profile: Profile) => boolean;
const compiled = new WeakMap<Profile['fields'], Map<string, Compiled>>();

/** Whether a condition holds of somebody’s profile. One that can’t be read, or names what is not in it, does not. */
export function personMeets(condition: string, profile: Profile): boolean {
  const known = compiled.get(profile.fields) ?? new Map<string, Compiled>();
  compiled.set(profile.fields, known);
  let found = known.get(condition);
  if (!found) {
    const parsed = parseExpression(condition);
    const scope = personScope(profile.fields.map((field) => ({ ...field, label: field.key })));
    const run = parsed.ok ? compile(parsed.value, scope) : null;
    found = ({ fields, values }) => run !== null && run([profileValues({ fields, values })], null) === true;
    known.set(condition, found);
  }
  return found(profile);
}

/** What an audience names: groups by key, people by id, and the fields of profiles that its conditions ask. */
export const namedIn = (
  audience: Audience,
): readonly { readonly kind: 'group' | 'person' | 'profile'; readonly key: string }[] => [
  ...groupsIn(audience).map((key) => ({ kind: 'group' as const, key })),
  ...peopleIn(audience).map((key) => ({ kind: 'person' as const, key })),
  ...profileConditionsIn(audience).flatMap((when) =>
    entriesIn(when, ME).map((key) => ({ kind: 'profile' as const, key })),
  ),
];
