import type Sqlite from 'better-sqlite3';

type Json = Readonly<Record<string, unknown>>;
/** As an outcome was planned when this step was written, and what it has become. */
interface YesOrNo {
  readonly needsApproval?: boolean;
}
interface Kept {
  readonly id: string;
  readonly content: string;
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
  const of = "join designs d on d.id = %.design_id where d.kind in ('form', 'register')";
  const places = [
    ["select id, draft as content from designs where kind in ('form', 'register')", 'designs', 'draft'],
    [`select s.id, s.content from design_states s ${of.replace('%', 's')}`, 'design_states', 'content'],
    [`select s.id, s.draft as content from draft_states s ${of.replace('%', 's')}`, 'draft_states', 'draft'],
  ] as const;
  for (const [read, table, column] of places) {
    const update = db.prepare(`update ${table} set ${column} = ? where id = ?`);
    for (const { id, content } of db.prepare(read).all() as Kept[])
      update.run(JSON.stringify(withPaths(JSON.parse(content) as Json)), id);
  }
  db.prepare(
    `update requests set routed = json_remove(
       json_set(routed, '$.outcome.path', iif(json_extract(routed, '$.outcome.needsApproval'), '${PATH}', null)),
       '$.outcome.needsApproval')
     where json_type(routed, '$.outcome.needsApproval') is not null`,
  ).run();
}
