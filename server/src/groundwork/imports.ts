import type { AnswerOf, BodyOf } from '@tolvek/contract';
import type { Viewer } from '@tolvek/core/people';
import { refused } from '@tolvek/words';
import { and, count, desc, eq } from 'drizzle-orm';
import { addPerson, changePerson } from '../people/commands.ts';
import { refuseOver } from '../people/grants.ts';
import { enterGroup } from '../people/groups.ts';
import { namesOf, personById } from '../people/queries.ts';
import { addresses, groupEntries, peopleImportSteps, peopleImports } from '../people/tables.ts';
import { iso } from '../platform/clock.ts';
import type { Reader } from '../platform/database.ts';
import type { House } from '../platform/house.ts';
import { once } from '../platform/idempotency.ts';
import { newId } from '../platform/newId.ts';
import { patiently } from '../platform/patience.ts';
import { notFound, Problem } from '../platform/problem.ts';
import { by, type Work, write } from '../platform/work.ts';
import { type PlannedRow, planImport, type RowDoes, somebody } from './importPlan.ts';
import type { ImportStep } from './importStep.ts';
import { undoStep } from './importUndo.ts';

export function lookAtPeople(
  db: Reader,
  viewer: Viewer,
  body: BodyOf<'lookAtPeople'>,
  now: number,
): AnswerOf<'lookAtPeople'> {
  const { rows, gone, seen } = planImport(db, viewer, body, now);
  return { rows: rows.map(({ told }) => told), gone: gone.map(somebody), seen };
}

/** People who are changed in one write. */
const AT_ONCE = 25;

/**
 * Imports people as it was looked at, a few at a time; sent again it goes on with what is left.
 *
 * @throws Problem 409 when it would come to something else by now.
 */
export async function importPeople(
  house: House,
  viewer: Viewer,
  body: BodyOf<'importPeople'>,
  key: string,
): Promise<AnswerOf<'importPeople'>> {
  const planned = planImport(house.db, viewer, body, house.clock.now());
  const doing = planned.rows.filter(({ does }) => does !== null);
  const leaving = body.gone ? planned.gone.filter((person) => mayKeepOut(house.db, viewer, person)) : [];
  const begun = await patiently(house, () =>
    write(house, ({ tx, now }) =>
      once(tx, { key, scope: `import ${viewer.personId}`, content: body, now }, () => {
        if (planned.seen !== body.seen) throw new Problem(409, 'changed-meanwhile', refused('importChanged'));
        const { kind, file } = body;
        const of = (is: string): number => doing.filter(({ told }) => told.is === is).length;
        const counts = { added: of('new'), changed: of('changed'), gone: leaving.length };
        const row = { id: newId(), at: now, by: viewer.personId, kind, file, ...counts };
        tx.insert(peopleImports).values(row).run();
        return { id: row.id, ...counts };
      }),
    ),
  );
  const isDone = (): boolean =>
    house.db.select().from(peopleImports).where(eq(peopleImports.id, begun.id)).get()?.endedAt !== null;
  if (isDone()) return begun;
  const goesOn = going.get(begun.id) ?? carryOut(house, viewer, begun.id, { kind: body.kind, doing, leaving });
  going.set(begun.id, goesOn);
  await goesOn.finally(() => going.delete(begun.id));
  return begun;
}

/** Imports that are carried out, by id: whoever sends one again meanwhile waits for the same end. */
const going = new Map<string, Promise<void>>();

interface ToImport {
  readonly kind: 'staff' | 'contact';
  readonly doing: readonly PlannedRow[];
  readonly leaving: readonly { readonly id: string }[];
}

/** Does what an import is to do, but for whom it did already before it broke off: they may be others by now. */
async function carryOut(house: House, viewer: Viewer, id: string, { kind, doing, leaving }: ToImport): Promise<void> {
  const touched = new Set(
    house.db
      .select({ step: peopleImportSteps.step })
      .from(peopleImportSteps)
      .where(eq(peopleImportSteps.importId, id))
      .all()
      .map(({ step }) => (step as ImportStep).person),
  );
  const steps = [
    ...doing
      .filter(({ told }) => told.person === null || !touched.has(told.person))
      .map((row) => (work: Work) => importRow(work, viewer, kind, row)),
    ...leaving
      .filter((person) => !touched.has(person.id))
      .map((person) => (work: Work) => makeGone(work, viewer, person.id)),
  ];
  for (let from = 0; from < steps.length; from += AT_ONCE)
    await patiently(house, () =>
      write(house, (whole) => {
        const work = by(whole, viewer.personId);
        for (const step of steps.slice(from, from + AT_ONCE)) keepStep(work, id, step(work));
      }),
    );
  write(house, ({ tx, now }) => tx.update(peopleImports).set({ endedAt: now }).where(eq(peopleImports.id, id)).run());
  for (const person of leaving) house.live.endOf(person.id);
}

function mayKeepOut(db: Reader, viewer: Viewer, person: Parameters<typeof refuseOver>[1]): boolean {
  try {
    refuseOver(db, person, viewer);
    return true;
  } catch (error) {
    if (error instanceof Problem) return false;
    throw error;
  }
}

function keepStep({ tx }: Work, importId: string, step: ImportStep | null): void {
  if (!step) return;
  const place =
    tx.select({ n: count() }).from(peopleImportSteps).where(eq(peopleImportSteps.importId, importId)).get()?.n ?? 0;
  tx.insert(peopleImportSteps).values({ importId, place, step }).run();
}

/** Does what a row says; null where there is nothing to do by now. */
function importRow(
  work: Work,
  viewer: Viewer,
  kind: 'staff' | 'contact',
  { told, does }: PlannedRow,
): ImportStep | null {
  if (!does) return null;
  if (told.person === null) {
    const { name = told.name, email = told.email, language = null, profile } = does;
    const { id } = addPerson(work, { kind, name, email, language, profile });
    enter(work, id, does.groups);
    return { did: 'added', person: id };
  }
  return changeBy(work, viewer, told.person, does);
}

const enter = (work: Work, person: string, groups: readonly string[]): readonly string[] =>
  groups.map((group) => enterGroup(work, { group, member: { person }, from: null, until: null }));

function changeBy(work: Work, viewer: Viewer, id: string, { groups, profile, ...settings }: RowDoes): ImportStep {
  const { tx } = work;
  const person = personById(tx, id);
  if (!person) throw notFound('person');
  const hadAddress =
    settings.email === undefined ||
    tx.select().from(addresses).where(eq(addresses.address, settings.email)).get() !== undefined;
  const had = new Set(entriesOf(work, id));
  changePerson(work, viewer, { id, version: person.version, changes: { ...settings, profile } });
  const entries = enter(work, id, groups).filter((entry) => !had.has(entry));
  const before: Record<string, unknown> = {};
  for (const setting of Object.keys(settings) as (keyof typeof settings)[]) before[setting] = person[setting];
  return {
    ...{ did: 'changed', person: id, entries, address: hadAddress ? null : (settings.email ?? null) },
    before: {
      ...before,
      profile: Object.fromEntries(Object.keys(profile).map((key) => [key, person.profile[key] ?? null])),
    },
    after: { ...settings, profile },
  };
}

const entriesOf = ({ tx }: Work, person: string): readonly string[] =>
  tx
    .select({ id: groupEntries.id })
    .from(groupEntries)
    .where(eq(groupEntries.personId, person))
    .all()
    .map(({ id }) => id);

function makeGone(work: Work, viewer: Viewer, id: string): ImportStep | null {
  const person = personById(work.tx, id);
  if (!person?.active) return null;
  changePerson(work, viewer, { id, version: person.version, changes: { active: false } });
  return { did: 'gone', person: id };
}

/** Imports that are shown. */
const SHOWN = 10;

export function peopleImportsView(db: Reader): AnswerOf<'peopleImports'> {
  const rows = db
    .select()
    .from(peopleImports)
    .orderBy(desc(peopleImports.at), desc(peopleImports.id))
    .limit(SHOWN)
    .all();
  const names = namesOf(
    db,
    rows.map((row) => row.by),
  );
  return {
    imports: rows.map(({ id, kind, file, by: who, at, added, changed, gone, undoneAt }) => ({
      ...{ id, kind, file, by: names.get(who) ?? '', at: iso(at), added, changed, gone },
      undone: undoneAt === null ? null : iso(undoneAt),
    })),
  };
}

/**
 * Undoes an import, a few people at a time, the last first; begun again it goes on with what is left. What was
 * changed since then stays.
 *
 * @throws Problem 404, 409 when it is undone already
 */
export async function undoImport(house: House, viewer: Viewer, id: string): Promise<AnswerOf<'undoImport'>> {
  const { db } = house;
  const row = db.select().from(peopleImports).where(eq(peopleImports.id, id)).get();
  if (!row) throw notFound('import');
  if (row.undoneAt !== null) throw new Problem(409, 'undone', refused('importUndone'));
  const steps = db
    .select()
    .from(peopleImportSteps)
    .where(eq(peopleImportSteps.importId, id))
    .orderBy(desc(peopleImportSteps.place))
    .all();
  const done = { undone: 0, stayed: 0 };
  for (let from = 0; from < steps.length; from += AT_ONCE)
    await patiently(house, () =>
      write(house, (whole) => {
        const work = by(whole, viewer.personId);
        for (const { place, step } of steps.slice(from, from + AT_ONCE)) {
          done[undoStep(work, viewer, step as ImportStep) ? 'undone' : 'stayed'] += 1;
          work.tx
            .delete(peopleImportSteps)
            .where(and(eq(peopleImportSteps.importId, id), eq(peopleImportSteps.place, place)))
            .run();
        }
      }),
    );
  write(house, ({ tx, now }) => tx.update(peopleImports).set({ undoneAt: now }).where(eq(peopleImports.id, id)).run());
  return done;
}
