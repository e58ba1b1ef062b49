import type Sqlite from 'better-sqlite3';

type Json = Readonly<Record<string, unknown>>;
interface Stage {
  readonly phase: string;
  readonly role?: string;
}
interface State {
  readonly number: number;
  readonly at: number;
  readonly content: string;
}

/**
 * What requests are called, what must not be asked twice, and how they are usually routed, decided
 * and due, belongs to the register from now on: each had one form, and has what that form said at
 * the time. The values of requests that are there go on being computed by the release in force, as
 * they were.
 */
export function registerOwns(db: Sqlite.Database): void {
  const forms = db
    .prepare('select f.id, f.register_id as register, d.draft, d.number from forms f join designs d on d.id = f.id')
    .all() as { id: string; register: string; draft: string; number: number }[];
  const releasesOf = db.prepare(
    'select number, at, content from design_states where design_id = ? and number > 0 order by number',
  );
  const states = db.prepare('select id, at, content from design_states where design_id = ?');
  const toState = db.prepare('update design_states set content = ? where id = ?');
  const toDraft = db.prepare('update designs set draft = ? where id = ?');
  const draftOf = db.prepare('select draft from designs where id = ?');
  for (const form of forms) {
    const releases = releasesOf.all(form.id) as State[];
    const saidAt = (at: number): Json => {
      const release = releases.filter((each) => each.at <= at).at(-1) ?? releases[0];
      return JSON.parse(release?.content ?? form.draft) as Json;
    };
    for (const state of states.all(form.register) as { id: string; at: number; content: string }[])
      toState.run(JSON.stringify(owning(JSON.parse(state.content) as Json, saidAt(state.at))), state.id);
    const { draft } = draftOf.get(form.register) as { draft: string };
    const latest = saidAt(Number.MAX_SAFE_INTEGER);
    toDraft.run(JSON.stringify(owning(JSON.parse(draft) as Json, latest)), form.register);
  }
  const inDrafts = db.prepare('select id, draft from draft_states where design_id = ?');
  const toDraftState = db.prepare('update draft_states set draft = ? where id = ?');
  for (const { id, register } of forms) {
    const [last] = (releasesOf.all(id) as State[]).slice(-1);
    if (last)
      for (const row of inDrafts.all(register) as { id: string; draft: string }[])
        toDraftState.run(
          JSON.stringify(owning(JSON.parse(row.draft) as Json, JSON.parse(last.content) as Json)),
          row.id,
        );
  }
  db.prepare(
    `update requests set computed_by = (
       select s.id from designs d join design_states s on s.design_id = d.id and s.number = d.number
       where d.id = requests.form_id)
     where trial = 0`,
  ).run();
  db.prepare('update requests set computed_by = null where computed_by = release_id').run();
}

/** A register with what its form said of it. */
function owning(register: Json, form: Json): Json {
  const stages = register.stages as readonly Stage[];
  const arrives = stages.some((stage) => stage.phase === 'arrived' && !stage.role);
  return {
    ...register,
    holds: arrives ? 'requests' : 'things',
    left: [],
    subject: form.subject,
    unique: form.unique,
    usual: { routing: form.routing, approval: form.approval, deadline: form.deadline },
  };
}
