import { dateAt, wallClockAt } from '@tolvek/core/deadline';
import { type Resource, saidOf } from '@tolvek/core/directory';
import { NOTHING_AROUND, type ProfileField, readAnswer, typedFromCell } from '@tolvek/core/register';
import { profileFieldsOf } from '@tolvek/core/settings';
import { asFields } from '../groundwork/profile.ts';
import type { ProfileChanges } from '../people/commands.ts';
import { recordNow } from '../people/queries.ts';
import type { Work } from '../platform/work.ts';
import { pickedBy } from '../request/facts.ts';
import { deskOf, profileDesignOf } from '../settings/queries.ts';

/** What a directory fills in of a profile, and what of it could not be read: the keys of fields, and what was said. */
export interface Filled {
  readonly profile: ProfileChanges;
  readonly unread: Readonly<Record<string, string>>;
}

const isPerson = ({ type }: ProfileField): boolean => type.kind === 'person' || type.kind === 'people';

/** Reads what a directory says into the fields of profiles that are filled in from it. */
export function prepareFilling({ tx, now }: Work): (user: Resource) => Filled {
  const fields = profileFieldsOf(profileDesignOf(tx), 'staff').filter(({ directory }) => directory !== undefined);
  const { zone } = deskOf(tx);
  const reading = {
    ...NOTHING_AROUND,
    ...{ today: dateAt(now, zone), now: wallClockAt(now, zone) },
    ...pickedBy(tx, asFields(fields.filter((field) => !isPerson(field)))),
  };
  /** Somebody by their id, which is what a directory names a manager by. */
  const known = (id: string) => {
    const person = recordNow(tx, id);
    return person?.active && person.kind === 'staff' ? [{ id: person.id, name: person.name, groups: [] }] : [];
  };
  return (user) => {
    const profile: Record<string, ProfileChanges[string]> = {};
    const unread: Record<string, string> = {};
    for (const field of fields) {
      const text = field.directory ? saidOf(user, field.directory) : '';
      if (text === '') {
        profile[field.key] = null;
        continue;
      }
      const people = isPerson(field) ? known(text) : [];
      const [person] = people;
      const typed = person
        ? field.type.kind === 'people'
          ? [person.id]
          : person.id
        : typedFromCell(field, text, reading);
      const read = readAnswer(field, typed, { ...reading, people });
      if (read.state === 'value') profile[field.key] = read.value;
      else unread[field.key] = text;
    }
    return { profile, unread };
  };
}
