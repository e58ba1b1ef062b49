import { readersMeaning } from '@tolvek/core/access';
import type { Finding, FormDesign } from '@tolvek/core/form';
import { mayWith } from '@tolvek/core/people';
import { requestScope } from '@tolvek/core/register';
import { allRows, allThatMayBe, type FollowerPlan } from '@tolvek/core/routing';
import { said } from '@tolvek/words';
import { type FormRow, registerOfForm } from '../form/queries.ts';
import { groupNames, membersOf, personNamed, rightsIn, viewerOf } from '../people/queries.ts';
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
      const who = peopleOf(db, plan);
      if (who === null || who.ids.length === 0 || who.ids.some(reads)) return [];
      const message = said('findings:followerReadsNothing', { who: who.name });
      return [{ severity: 'caution', page: 'routing', at: id, message }];
    }),
  );
}

/** Whom a row names; null for whoever an answer will. */
function peopleOf(db: Reader, plan: FollowerPlan): { readonly name: string; readonly ids: readonly string[] } | null {
  if ('person' in plan) return { name: personNamed(db, plan.person), ids: [plan.person] };
  if (!('group' in plan)) return null;
  return { name: groupNames(db).get(plan.group) ?? plan.group, ids: membersOf(db, plan.group).map(({ id }) => id) };
}
