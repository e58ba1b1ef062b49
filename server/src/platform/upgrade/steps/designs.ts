import type Sqlite from 'better-sqlite3';

type Json = Readonly<Record<string, unknown>>;

/** Renews forms and registers as JSON, in every state and every draft. For steps: the tables are those of then. */
export function renewDesigns(db: Sqlite.Database, renew: (design: Json) => Json): void {
  const of = "join designs d on d.id = %.design_id where d.kind in ('form', 'register')";
  const places = [
    ["select id, draft as content from designs where kind in ('form', 'register')", 'designs', 'draft'],
    [`select s.id, s.content from design_states s ${of.replace('%', 's')}`, 'design_states', 'content'],
    [`select s.id, s.draft as content from draft_states s ${of.replace('%', 's')}`, 'draft_states', 'draft'],
  ] as const;
  for (const [read, table, column] of places) {
    const update = db.prepare(`update ${table} set ${column} = ? where id = ?`);
    for (const { id, content } of db.prepare(read).all() as { readonly id: string; readonly content: string }[])
      update.run(JSON.stringify(renew(JSON.parse(content) as Json)), id);
  }
}
