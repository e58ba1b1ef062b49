import { readersMeaning } from '@tolvek/core/access';
import type { Finding, FormDesign } from '@tolvek/core/form';
import { mayWith, wordOf } from '@tolvek/core/people';
import { requestScope } from '@tolvek/core/register';
import { allRows, allThatMayBe } from '@tolvek/core/routing';
import { said } from '@tolvek/words';
import { type FormRow, registerOfForm } from '../form/queries.ts';
import { groupNames, holderNames, peopleHolding, rightsIn, viewerOf } from '../people/queries.ts';
import type { Reader } from '../platform/database.ts';

/**
 * Rows that have some follow of whom nobody could read what the table takes in, so that nobody of them would hear of it:
 * they are of no team that gets it, of no desk, and no reader that the access plan names.
 */
export function readByFollowers(db: Reader, form: FormRow, { routing, fields }: FormDesign): readonly Finding[] {
  const rows = allRows(routing).filter(({ outcome }) => (outcome.followers ?? []).length > 0);
  if (rows.length === 0) return [];
  const register = registerOfForm(db, form.id);
  const theirs = [...allThatMayBe(routing, 'team', () => requestScope(fields)), ...register.deskGroups];
  const reads = (id: string): boolean => {
    const viewer = viewerOf(db, id);
    if (!viewer) return false;
    const standing = viewer.groups.some((group) => theirs.includes(group)) ? 'team' : 'none';
    return (
      mayWith({ rights: rightsIn(db, id, register.id) }, 'read', standing) ||
      readersMeaning(register.access.readers ?? [], viewer).length > 0
    );
  };
  return rows.flatMap(({ id, outcome }) =>
    (outcome.followers ?? []).flatMap((plan): Finding[] => {
      // Whom an answer will name is not known yet.
      const word = 'field' in plan ? null : wordOf(plan);
      const people = word === null ? [] : peopleHolding(db, word);
      if (word === null || people.length === 0 || people.some((person) => reads(person.id))) return [];
      const message = said('findings:followerReadsNothing', { who: holderNames(db, [word], groupNames(db))[0] ?? '' });
      return [{ severity: 'caution', page: 'routing', at: id, message }];
    }),
  );
}
