import type Sqlite from 'better-sqlite3';
import { renewDesigns } from './designs.ts';

type Json = Readonly<Record<string, unknown>>;
/** As an outcome was planned when this step was written, and what it has become. */
interface YesOrNo {
  readonly needsApproval?: boolean;
}
interface Usual {
  readonly routing?: { readonly rows: readonly { readonly outcome: YesOrNo }[]; readonly otherwise: YesOrNo };
  readonly approval?: Json;
}

/** What the only path of before is called. */
const PATH = 'path';

function chosen(outcome: YesOrNo): Json {
  const { needsApproval, ...others } = outcome;
  return needsApproval === undefined ? others : { ...others, path: needsApproval ? PATH : null };
}

const inPaths = ({ routing, approval }: Usual): Json => ({
  ...(routing && {
    routing: {
      ...routing,
      rows: routing.rows.map((row) => ({ ...row, outcome: chosen(row.outcome) })),
      otherwise: chosen(routing.otherwise),
    },
  }),
  ...(approval && { approval: 'steps' in approval ? { paths: [{ id: PATH, label: '', ...approval }] } : approval }),
});

/** A design whose rows choose from paths, in place of saying whether there is a decision. */
export const withPaths = (design: Json): Json => {
  const usual = design.usual as Usual | undefined;
  return { ...design, ...inPaths(design as Usual), ...(usual && { usual: { ...usual, ...inPaths(usual) } }) };
};

/**
 * Rows of routing tables choose from the approval paths of their design, in every state and every draft, and in what is kept
 * of a routing with its outcome, as it once was.
 */
export function pathsOfRows(db: Sqlite.Database): void {
  renewDesigns(db, withPaths);
  db.prepare(
    `update requests set routed = json_remove(
       json_set(routed, '$.outcome.path', iif(json_extract(routed, '$.outcome.needsApproval'), '${PATH}', null)),
       '$.outcome.needsApproval')
     where json_type(routed, '$.outcome.needsApproval') is not null`,
  ).run();
}
