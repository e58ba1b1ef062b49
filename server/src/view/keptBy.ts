import type { RegisterRow } from '../register/queries.ts';
import type { ShownRow } from '../request/queries.ts';

/** Who works on something, by name: the team of a request; the desk of its register for a thing. */
export const keptBy = (
  { team }: Pick<ShownRow, 'team'>,
  { deskGroups }: Pick<RegisterRow, 'deskGroups'>,
  groups: ReadonlyMap<string, string>,
): string => (team === null ? deskGroups : [team]).map((key) => groups.get(key) ?? key).join(', ');
