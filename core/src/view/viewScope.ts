import { Scope } from '../expression/index.ts';
import { type Field, type KnownStanding, standingScope } from '../register/index.ts';
import type { ViewFact } from './view.ts';

const OF_REQUEST = 'request.';

/**
 * The names that conditions of a view may use: those about a standing request and who looks. `closed`: facts that would tell
 * who looks of a field they may not read; they are not there. The places of the values stay as of `standingScope`.
 */
export function viewScope(
  fields: readonly Field[],
  known: KnownStanding = {},
  closed: readonly ViewFact[] = [],
): Scope {
  const absent = new Set(
    closed.flatMap((fact) => (fact.startsWith(OF_REQUEST) ? [fact.slice(OF_REQUEST.length)] : [])),
  );
  const isField = fields.some(({ key }) => key === 'request');
  return new Scope(
    standingScope(fields, known).names.map((each) => {
      if (absent.size === 0 || isField || each.name !== 'request' || !each.type || !('entries' in each.type))
        return each;
      const entries = Object.fromEntries(Object.entries(each.type.entries).filter(([name]) => !absent.has(name)));
      return { ...each, type: { kind: 'context', entries } };
    }),
  );
}
