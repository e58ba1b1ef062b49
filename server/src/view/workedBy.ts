import { holdersOf, type Viewer } from '@tolvek/core/people';
import { eq, inArray, or, type SQL, sql } from 'drizzle-orm';
import type { dues, requests, tallies } from '../request/tables.ts';

/** Who and what a request, or a tally of requests, belongs to. */
export type Worked =
  | Pick<typeof requests, 'handlerId' | 'team' | 'deciders' | 'registerId'>
  | typeof tallies
  | typeof dues;

/** Whether somebody is among those who decide, by a group of theirs or by themselves. */
const isDecider = (of: Pick<Worked, 'deciders'>, viewer: Viewer): SQL | undefined =>
  or(...holdersOf(viewer).map((word) => sql`instr(' ' || ${of.deciders} || ' ', ${` ${word} `}) > 0`));

/**
 * Asks SQLite what `relationTo` of core answers for one: whether the viewer works on a request.
 * `registers`: all there are, with the groups that work in them. Undefined: on all of them.
 */
export function workedBy(
  registers: readonly { readonly id: string; readonly deskGroups: readonly string[] }[],
  viewer: Viewer,
  of: Worked,
): SQL | undefined {
  if (viewer.kind !== 'staff') return sql`0`;
  if (viewer.role !== 'member') return undefined;
  const groups = [...viewer.groups];
  const worked = registers.filter((register) => register.deskGroups.some((group) => groups.includes(group)));
  return or(
    eq(of.handlerId, viewer.personId),
    groups.length > 0 ? inArray(of.team, groups) : undefined,
    isDecider(of, viewer),
    worked.length > 0
      ? inArray(
          of.registerId,
          worked.map((register) => register.id),
        )
      : undefined,
  );
}
