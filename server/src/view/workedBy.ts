import { holdersOf, type Viewer } from '@tolvek/core/people';
import { eq, inArray, or, type SQL, sql } from 'drizzle-orm';
import type { dues, requests, tallies } from '../request/tables.ts';

/** Who and what a request, or a tally of requests, belongs to. */
export type Worked =
  | Pick<typeof requests, 'handlerId' | 'team' | 'deciders' | 'registerId'>
  | typeof tallies
  | typeof dues;

/** Whether somebody is among those who decide, by a group of theirs or by themselves. */
const isDecider = (of: Pick<Worked, 'deciders'>, words: readonly string[]): SQL | undefined =>
  or(...words.map((word) => sql`instr(' ' || ${of.deciders} || ' ', ${` ${word} `}) > 0`));

/**
 * Asks SQLite what `relationTo` of core answers for one: whether the viewer works on a request.
 * `registers`: all there are, with the groups that work in them. `words`: by which they hold seats. Undefined: on
 * all of them.
 */
export function workedBy(
  registers: readonly { readonly id: string; readonly deskGroups: readonly string[] }[],
  viewer: Viewer,
  of: Worked,
  words: readonly string[] = holdersOf(viewer),
): SQL | undefined {
  if (viewer.kind !== 'staff') return sql`0`;
  if (viewer.role !== 'member') return undefined;
  const groups = [...viewer.groups];
  const worked = registers.filter((register) => register.deskGroups.some((group) => groups.includes(group)));
  return or(
    eq(of.handlerId, viewer.personId),
    groups.length > 0 ? inArray(of.team, groups) : undefined,
    isDecider(of, words),
    worked.length > 0
      ? inArray(
          of.registerId,
          worked.map((register) => register.id),
        )
      : undefined,
  );
}
