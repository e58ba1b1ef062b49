import { dateAt } from '@tolvek/core/deadline';
import { type GroupCount, type GroupValue, isCrossed } from '@tolvek/core/notice';
import type { Field } from '@tolvek/core/register';
import { turnsWithDays } from '@tolvek/core/telling';
import { and, eq, sql } from 'drizzle-orm';
import { calendarOf } from '../calendar/queries.ts';
import { formsOf, releaseInForce } from '../form/queries.ts';
import type { Reader, Transaction } from '../platform/database.ts';
import type { House } from '../platform/house.ts';
import { patiently } from '../platform/patience.ts';
import { inGroups } from '../platform/turns.ts';
import { type Work, write } from '../platform/work.ts';
import { allRegisters, holdsThings, type RegisterRow } from '../register/queries.ts';
import { countedIn, eachRequest } from '../request/eachRequest.ts';
import { pickedBy } from '../request/facts.ts';
import { requestById } from '../request/queries.ts';
import { requests } from '../request/tables.ts';
import { type GroupNotice, groupsAt, isOfGroup } from './groups.ts';
import { asking, type ReadyNotice, readyNotices } from './ready.ts';
import { tellRule } from './rules.ts';
import { noticeDays } from './tables.ts';
import { tellOfTurn } from './turned.ts';

type Look = typeof noticeDays.$inferSelect;

const looked = (db: Reader, formId: string): Look | undefined =>
  db.select().from(noticeDays).where(eq(noticeDays.formId, formId)).get();

const keep = (tx: Transaction, look: Look): void =>
  void tx.insert(noticeDays).values(look).onConflictDoUpdate({ target: noticeDays.formId, set: look }).run();

/**
 * Tells what the days alone have made true since that was looked at last: of unfinished requests, and of things. A form that
 * has just begun to wait for something tells nothing of what is true already; after a stop of some days all is told once.
 * What was looked at is kept with what is told, so that a kill in between repeats nothing. Gives how many times something
 * was told.
 */
export async function tellOfDays(house: House): Promise<number> {
  // One look after the other: two at once would tell the same twice.
  const look = (looking.get(house) ?? Promise.resolve(0)).then(() => lookOnce(house));
  looking.set(
    house,
    look.catch(() => 0),
  );
  return look;
}

const looking = new WeakMap<House, Promise<number>>();

async function lookOnce(house: House): Promise<number> {
  const { db, clock } = house;
  let told = 0;
  for (const register of allRegisters(db)) {
    const zone = calendarOf(db, register.usual.deadline.calendar).zone;
    for (const { id: formId } of formsOf(db, register.id)) {
      const { notices, fields = [] } = releaseInForce(db, formId)?.design ?? {};
      const waiting = notices ? readyNotices(notices, fields).filter(({ rule }) => turnsWithDays(rule)) : [];
      if (waiting.length === 0) continue;
      const last = looked(db, formId);
      const now = last?.turning ?? clock.now();
      if (last && last.turning === null && dateAt(last.at, zone) === dateAt(now, zone)) continue;
      const single = waiting.filter((each) => !isOfGroup(each));
      if (last && single.length > 0)
        told += await lookAt(house, register, { ...last, turning: now }, { waiting: single, fields });
      const crossed = last
        ? await groupsTurned(house, register, waiting.filter(isOfGroup), { formId, then: last.at, now })
        : [];
      // What is told of groups is kept with that it was: a kill in between repeats nothing.
      await patiently(house, () =>
        write(house, (work) => {
          told += tellTurned(work, crossed);
          keep(work.tx, { formId, at: now, turning: null, doneAt: null, doneId: null });
        }),
      );
    }
  }
  return told;
}

/** A group that the days have made too small or too large, with what went out of it or came in last. */
interface Turned {
  readonly formId: string;
  readonly notice: GroupNotice;
  readonly group: GroupCount;
  readonly by: string;
}

/** The groups that days have made too small or too large: all that counts in a register, at both moments. */
async function groupsTurned(
  { db }: House,
  register: RegisterRow,
  waiting: readonly GroupNotice[],
  { formId, then, now }: { readonly formId: string; readonly then: number; readonly now: number },
): Promise<readonly Turned[]> {
  if (waiting.length === 0) return [];
  const picked = pickedBy(db, register.fields);
  const counts = waiting.map(() => new Map<GroupValue, { was: number; is: number; by: string }>());
  const those = countedIn(register.id, holdsThings(register) ? 'all' : 'unfinished');
  for await (const some of inGroups(eachRequest(db, those)))
    for (const request of some)
      for (const [at, notice] of waiting.entries()) {
        const was = groupsAt(db, request, notice, then, picked);
        const is = groupsAt(db, request, notice, now, picked);
        for (const group of new Set([...was, ...is])) {
          const found = counts[at]?.get(group) ?? { was: 0, is: 0, by: '' };
          const [had, has] = [was.includes(group), is.includes(group)];
          const by = had === has ? found.by : request.id;
          counts[at]?.set(group, { was: found.was + Number(had), is: found.is + Number(has), by });
        }
      }
  return waiting.flatMap((notice, at) =>
    [...(counts[at] ?? [])].flatMap(([value, { was, is, by }]) =>
      isCrossed(notice.rule.on, was, is) ? [{ formId, notice, group: { value, count: is }, by }] : [],
    ),
  );
}

/** Tells of such groups; gives of how many. */
function tellTurned(work: Work, crossed: readonly Turned[]): number {
  for (const { formId, notice, group, by } of crossed) tellOfTurn(work, { formId, last: by }, notice, group);
  return crossed.length;
}

/** Looks at the requests of one form, a few at a time; gives how many times something was told. */
async function lookAt(
  house: House,
  register: RegisterRow,
  look: Look & { readonly turning: number },
  { waiting, fields }: { readonly waiting: readonly ReadyNotice[]; readonly fields: readonly Field[] },
): Promise<number> {
  const { db } = house;
  let told = 0;
  const { formId, at: then, turning: now, doneAt, doneId } = look;
  const picked = pickedBy(db, register.fields);
  const those = and(
    countedIn(register.id, holdsThings(register) ? 'all' : 'unfinished'),
    eq(requests.formId, formId),
    doneId === null ? undefined : sql`(${requests.createdAt}, ${requests.id}) > (${doneAt}, ${doneId})`,
  );
  for await (const group of inGroups(eachRequest(db, those)))
    await patiently(house, () =>
      write(house, (work) => {
        const telling = { ...work, told: new Set<string>() };
        for (const { id } of group) {
          const request = requestById(work.tx, id);
          if (!request) continue;
          const is = asking(work.tx, request, fields, now, picked);
          const was = asking(work.tx, request, fields, then, picked);
          for (const each of waiting)
            if (is(each.applies) && !was(each.applies)) {
              told += 1;
              tellRule(telling, request, each, {
                written: { text: '' },
                isTold: () => true,
                isUrgent: is(each.urgent, false),
              });
            }
        }
        const last = group.at(-1);
        if (last) keep(work.tx, { ...look, doneAt: last.createdAt, doneId: last.id });
      }),
    );
  return told;
}
