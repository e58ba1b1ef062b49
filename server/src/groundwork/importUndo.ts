import { isSame, own } from '@tolvek/core/own';
import type { Viewer } from '@tolvek/core/people';
import { and, eq, inArray, ne, or, sql } from 'drizzle-orm';
import { endWaiting } from '../door/line.ts';
import { changePerson, type PersonChanges, type ProfileChanges, removePerson } from '../people/commands.ts';
import { refuseNobodyLeft } from '../people/given.ts';
import { leaveGroup } from '../people/groups.ts';
import { keptOf } from '../people/kept.ts';
import { personById } from '../people/queries.ts';
import { settleSought } from '../people/sought.ts';
import { addresses, groupEntries } from '../people/tables.ts';
import { account } from '../platform/tables.ts';
import type { Work } from '../platform/work.ts';
import { requests } from '../request/tables.ts';
import type { ImportStep } from './importStep.ts';

type Changed = Extract<ImportStep, { did: 'changed' }>;

/** Undoes what an import did to somebody; false where something of it was changed since, and stays. */
export function undoStep(work: Work, viewer: Viewer, step: ImportStep): boolean {
  switch (step.did) {
    case 'added':
      return undoAdding(work, viewer, step.person);
    case 'gone':
      return undoGone(work, viewer, step.person);
    case 'changed':
      return undoChange(work, viewer, step);
  }
}

/** Who has done nothing here goes as if they had never come; anybody else is made inactive. */
function undoAdding(work: Work, viewer: Viewer, id: string): boolean {
  const { tx } = work;
  const person = personById(tx, id);
  if (!person || person.removedAt !== null) return true;
  // Whom a directory keeps by now is taken back there.
  if (person.source === 'directory') return false;
  if (!hasDone(work, id)) {
    endWaiting(work.tx, id);
    removePerson(work, id);
    return true;
  }
  if (person.active) changePerson(work, viewer, { id, version: person.version, changes: { active: false } });
  return false;
}

/** Whether somebody has signed in or asked, or works on something. */
function hasDone({ tx }: Work, id: string): boolean {
  const signsIn = tx
    .select({ id: account.id })
    .from(account)
    .where(and(eq(account.userId, id), sql`${account.password} is not null`))
    .get();
  const works = tx
    .select({ id: requests.id })
    .from(requests)
    .where(or(eq(requests.requesterId, id), eq(requests.handlerId, id)))
    .limit(1)
    .get();
  const seat = tx.all(sql`select 1 from seats where holder = ${`@${id}`} limit 1`);
  return signsIn !== undefined || works !== undefined || seat.length > 0;
}

function undoGone(work: Work, viewer: Viewer, id: string): boolean {
  const person = personById(work.tx, id);
  if (!person || person.active) return person !== undefined;
  changePerson(work, viewer, { id, version: person.version, changes: { active: true } });
  return true;
}

function undoChange(work: Work, viewer: Viewer, { person: id, before, after, address, entries }: Changed): boolean {
  const { tx } = work;
  const person = personById(tx, id);
  if (!person) return false;
  const { profile: learnt, ...settings } = after;
  let isWhole = true;
  const back: Record<string, unknown> = {};
  const kept = keptOf(tx, person);
  for (const setting of Object.keys(settings) as (keyof typeof settings)[])
    if (!kept.has(setting) && isSame(person[setting], settings[setting])) back[setting] = before[setting];
    else isWhole = false;
  const profile: Record<string, ProfileChanges[string]> = {};
  for (const [key, value] of Object.entries(learnt))
    if (!kept.has(`profile.${key}`) && isSame(own(person.profile, key) ?? null, value))
      profile[key] = own(before.profile, key) ?? null;
    else isWhole = false;
  changePerson(work, viewer, { id, version: person.version, changes: { ...(back as PersonChanges), profile } });
  // An address that came by the import finds nobody again, unless it is written to by now.
  if (address !== null) {
    tx.delete(addresses)
      .where(
        and(
          eq(addresses.address, address),
          eq(addresses.personId, id),
          ne(addresses.address, sql`(select email from people where id = ${id})`),
        ),
      )
      .run();
    settleSought(tx, id);
  }
  const there =
    entries.length === 0
      ? []
      : tx
          .select()
          .from(groupEntries)
          .where(and(inArray(groupEntries.id, [...entries]), eq(groupEntries.source, 'local')))
          .all();
  for (const { id: entry, groupKey } of there) leaveGroup(work, groupKey, entry);
  if (there.length > 0) refuseNobodyLeft(tx);
  return isWhole;
}
