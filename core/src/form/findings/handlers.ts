import { said } from '@tolvek/words';
import { allRows } from '../../routing/index.ts';
import type { FormDesign } from '../design.ts';
import type { Add } from './finding.ts';

/** What is wrong or doubtful in how requests find their handlers. */
export function handlerFindings(
  { routing, fields }: FormDesign,
  {
    strangers,
    members,
  }: { strangers: readonly string[]; members: Readonly<Record<string, readonly string[]>> | undefined },
  add: Add,
): void {
  for (const { id, outcome } of allRows(routing)) {
    const { handler, team } = outcome;
    if (!handler) continue;
    const ofTeam = handler.ways.some(({ by }) => by === 'load' || by === 'turn');
    for (const way of handler.ways) {
      if (way.by === 'person' && strangers.includes(way.person))
        add('error', 'routing', id, said('findings:handlerGone'));
      if (way.by === 'field' && !fields.some(({ key, type }) => key === way.field && type.kind === 'person'))
        add('error', 'routing', id, said('findings:handlerLostField'));
    }
    if (ofTeam && members && (members[team] ?? []).length === 0)
      add('caution', 'routing', id, said('findings:handlerNobody'));
    // An answer may name nobody, and somebody may come for the first time.
    if (!ofTeam && !handler.ways.some(({ by }) => by === 'person'))
      add('caution', 'routing', id, said('findings:handlerMayLack'));
  }
}
