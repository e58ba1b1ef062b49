import type { AnswerOf } from '@tolvek/contract';
import { isSame } from '@tolvek/core/own';
import { type GroundChange, groundChangeInWords, may, mayBeUndone, undoingOf, type Viewer } from '@tolvek/core/people';
import type { FieldValue } from '@tolvek/core/register';
import { refused } from '@tolvek/words';
import { eq } from 'drizzle-orm';
import { tellStandIns } from '../notice/follow.ts';
import { absencesOf, comeBack, goAway } from '../people/absences.ts';
import { changePerson, type PersonChanges } from '../people/commands.ts';
import { entryOf } from '../people/entries.ts';
import { refuseNobodyLeft, registerRightsOf } from '../people/given.ts';
import { differAgain, putBackRights, refuseRaising, rightMissing, setApart, settleRights } from '../people/grants.ts';
import { changeGroup, enterGroup, type GroupChanges, groupByKey, leaveGroup } from '../people/groups.ts';
import { groundNamesIn, noteGround } from '../people/history.ts';
import { personById } from '../people/queries.ts';
import { todayAt } from '../people/settle.ts';
import { groundHistory, groupEntries } from '../people/tables.ts';
import type { Reader } from '../platform/database.ts';
import type { House } from '../platform/house.ts';
import { notFound, Problem } from '../platform/problem.ts';
import { by, type Work, write } from '../platform/work.ts';
import { nameOf } from '../request/names.ts';
import { effectsOf } from './effects.ts';

type Line = typeof groundHistory.$inferSelect & { readonly change: GroundChange };

function lineOf(db: Reader, id: string): Line {
  const line = db.select().from(groundHistory).where(eq(groundHistory.id, id)).get();
  if (!line || !mayBeUndone(line.change as GroundChange)) throw notFound('state');
  return line as Line;
}

/** What was set is not so any more: it can’t be undone by itself. */
const otherNow = (): Problem => new Problem(409, 'other-now', refused('otherNow'));

/** A setting as its history wrote it down, as the setting it was. */
function settingIn(field: string, written: string): string | boolean | null {
  if (field === 'active' || field === 'isTeam' || field === 'retired') return written === 'yes';
  return field === 'language' && written === '' ? null : written;
}

/** What is undone by whoever decides what people may do; all else by whoever manages people. */
const OF_RIGHTS: ReadonlySet<GroundChange['kind']> = new Set(['given', 'taken', 'apart', 'put-back', 'differing']);

/**
 * Undoes what a line of a history says was set.
 *
 * @throws Problem 403 as what is done by it, 404 for what can’t be undone, 409 where it is another by now.
 */
function undo(work: Work, viewer: Viewer, { about, key, change }: Line): void {
  const { tx } = work;
  if (!OF_RIGHTS.has(change.kind) && !may(viewer, 'people')) throw rightMissing(tx, 'people');
  switch (change.kind) {
    case 'changed': {
      const { field } = change;
      const [before, after] = [settingIn(field, change.before), settingIn(field, change.after)];
      const row = about === 'person' ? personById(tx, key) : groupByKey(tx, key);
      if (!row || !isSame(row[field as keyof typeof row] ?? null, after)) throw otherNow();
      const changes = { [field]: before };
      if (about === 'person')
        changePerson(work, viewer, { id: key, version: row.version, changes: changes as PersonChanges });
      else changeGroup(work, { key, version: row.version, changes: changes as GroupChanges });
      return;
    }
    case 'profile': {
      const person = personById(tx, key);
      if (!person || !isSame(person.profile[change.field] ?? null, change.after)) throw otherNow();
      const profile = { [change.field]: change.before as FieldValue | null };
      changePerson(work, viewer, { id: key, version: person.version, changes: { profile } });
      return;
    }
    case 'ruled': {
      const group = groupByKey(tx, key);
      if (!group || !isSame(group.rule, change.after)) throw otherNow();
      changeGroup(work, { key, version: group.version, changes: { rule: change.before } });
      refuseNobodyLeft(tx);
      return;
    }
    case 'entered': {
      const { group, member, from, until } = change;
      const entry = tx
        .select()
        .from(groupEntries)
        .where(eq(groupEntries.groupKey, group))
        .all()
        .find((each) => isSame(entryOf(each), { group, member, from, until }));
      if (!entry) throw otherNow();
      leaveGroup(work, group, entry.id);
      refuseNobodyLeft(tx);
      return;
    }
    case 'left':
      refuseRaising(tx, viewer, change.group);
      enterGroup(work, change);
      return;
    case 'given':
    case 'taken': {
      const subject = about === 'person' ? `@${key}` : key;
      const rights = [change.right];
      const settled = change.kind === 'given' ? { take: rights } : { give: rights };
      settleRights(work, viewer, subject, settled, registerOf(change));
      return;
    }
    case 'apart':
      setApart(work, viewer, change.register, !change.on);
      return;
    case 'put-back': {
      const { register, apart, differences } = change;
      const now = registerRightsOf(tx, register);
      if (now.apart || now.differences.length > 0) throw otherNow();
      differAgain(work, viewer, { register, apart, differences });
      return;
    }
    case 'differing':
      putBackRights(work, viewer, change.register);
      return;
    case 'away': {
      const day = todayAt(tx, work.now);
      const found = absencesOf(tx, key, day).find(
        ({ fromDay, untilDay }) => fromDay === change.from && untilDay === change.until,
      );
      if (!found) throw otherNow();
      comeBack(work, key, found.id);
      return;
    }
    case 'back': {
      const { from, until, substitute } = change;
      tellStandIns(work, goAway(work, { person: key, from, until, substitute }).standing);
      return;
    }
    default:
      throw notFound('state');
  }
}

/** The register in which a change settles rights; null for the desk. */
const registerOf = (change: GroundChange): string | null => ('register' in change ? (change.register ?? null) : null);

/** What undoing would come to: in words, and who would get or lose which right. Keeps nothing. */
export function stepBackPlan(house: House, viewer: Viewer, id: string): AnswerOf<'stepBackPlan'> {
  const { db } = house;
  const line = lineOf(db, id);
  const names = groundNamesIn(db, nameOf(db));
  const undoing = (work: Work): void => undo(by(work, viewer.personId), viewer, line);
  return {
    words: groundChangeInWords(undoingOf(line.change), names),
    effects: [...effectsOf(house, undoing, registerOf(line.change))],
  };
}

export function stepBack(house: House, viewer: Viewer, id: string): AnswerOf<'stepBack'> {
  write(house, (work) => undo(by(work, viewer.personId), viewer, lineOf(work.tx, id)));
  return { done: true };
}

/** Says why something was set. @throws Problem 404 for a line that another set, or that is not there */
export function sayWhy(house: House, viewer: Viewer, id: string, why: string): AnswerOf<'sayWhy'> {
  write(house, (work) => {
    const line = work.tx.select().from(groundHistory).where(eq(groundHistory.id, id)).get();
    if (!line || line.by !== viewer.personId) throw notFound('state');
    noteGround(by(work, viewer.personId), line.about, line.key, { kind: 'why', of: id, text: why });
  });
  return { done: true };
}
