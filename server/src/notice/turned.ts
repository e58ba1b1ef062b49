import { type GroupCount, type GroupValue, isAbout, isCrossed } from '@tolvek/core/notice';
import type { Happening } from '@tolvek/core/request';
import { and, eq, inArray, sql } from 'drizzle-orm';
import { releaseInForce } from '../form/queries.ts';
import { forms } from '../form/tables.ts';
import type { Reader } from '../platform/database.ts';
import { addJobOnce, type Doing, type JobWork } from '../platform/longJobs.ts';
import { prepared } from '../platform/prepared.ts';
import { inGroups } from '../platform/turns.ts';
import type { Work } from '../platform/work.ts';
import { holdsThings, registerById } from '../register/queries.ts';
import { countedIn, eachRequest } from '../request/eachRequest.ts';
import { pickedBy } from '../request/facts.ts';
import { SHOWN_COLUMNS, type ShownRow } from '../request/queries.ts';
import { requests } from '../request/tables.ts';
import { type GroupNotice, groupsAt, isOfGroup } from './groups.ts';
import { isOne, subjectOf, type Turn } from './groupTurns.ts';
import { asking, readyNotices } from './ready.ts';
import { tellOfGroup } from './rules.ts';
import { noticeTurns } from './tables.ts';

/**
 * What work over many requests at once makes of groups, and what is deleted, is told when that work is over, once: until
 * then only by how many each group has changed is kept. So is what a request of one form does to the groups that another
 * form of its register watches.
 */

const formsIn = prepared((db) =>
  db
    .select({ id: forms.id })
    .from(forms)
    .where(eq(forms.registerId, sql.placeholder('register')))
    .prepare(),
);

interface Watched {
  readonly formId: string;
  readonly notice: GroupNotice;
}

/** The notices about groups that watch the requests of a register, whichever form they came by. */
const watchersOf = (db: Reader, registerId: string): readonly Watched[] =>
  formsIn(db)
    .all({ register: registerId })
    .flatMap(({ id: formId }) => {
      const { notices, fields = [] } = releaseInForce(db, formId)?.design ?? {};
      if (!notices?.rules.some(({ on }) => on.is === 'group')) return [];
      return readyNotices(notices, fields)
        .filter(isOfGroup)
        .map((notice) => ({ formId, notice }));
    });

/** Notes what a change did to groups, where it is not told of at once. */
export function noteTurned(work: Work, request: ShownRow, change: Happening, before: ShownRow | null): void {
  // What is put back tells nobody: it only makes undone what is still to be told of its going.
  if (change.kind === 'put-back') note(work, null, request, () => true, true);
  if (before === request) return;
  const moved = { stage: request.stage, before: before?.stage ?? null };
  const isElsewhere = ({ formId, notice: { rule } }: Watched): boolean =>
    formId !== request.formId || !isAbout(rule.on, change, moved);
  note(work, before, request, isElsewhere);
}

/** Notes that requests leave the groups they are in: they are deleted. */
export function noteForgotten(work: Work, requestIds: readonly string[]): void {
  const some = work.tx
    .select(SHOWN_COLUMNS)
    .from(requests)
    .where(inArray(requests.id, [...requestIds]))
    .all();
  for (const request of some) note(work, request, null, () => true);
}

function note(
  work: Work,
  before: ShownRow | null,
  after: ShownRow | null,
  isNoted: (watched: Watched) => boolean,
  onlyPending = false,
): void {
  const { tx, now } = work;
  const [one] = [after, before].filter((each) => each !== null);
  if (!one || one.trial) return;
  let notes = 0;
  for (const watched of watchersOf(tx, one.registerId)) {
    if (!isNoted(watched)) continue;
    const { formId, notice } = watched;
    const was = before ? groupsAt(tx, before, notice, now) : [];
    const is = after ? groupsAt(tx, after, notice, now) : [];
    for (const value of new Set([...was, ...is])) {
      const by = Number(is.includes(value)) - Number(was.includes(value));
      if (by === 0) continue;
      const turn = { formId, rule: notice.rule.key, value: JSON.stringify(value), turned: by, last: after?.id ?? null };
      const { formId: form, rule, value: of } = noticeTurns;
      const set = { turned: sql`${noticeTurns.turned} + ${by}`, last: turn.last };
      if (onlyPending) {
        const isIt = and(eq(form, formId), eq(rule, turn.rule), eq(of, turn.value));
        tx.update(noticeTurns).set(set).where(isIt).run();
        continue;
      }
      tx.insert(noticeTurns)
        .values(turn)
        .onConflictDoUpdate({ target: [form, rule, of], set })
        .run();
      notes += 1;
    }
  }
  if (notes > 0) settleLater(work);
}

/** Has it told when what is done now is over: long work is done one after the other. */
function settleLater({ tx, now, effects }: Work): void {
  effects.jobs = true;
  addJobOnce(tx, { kind: 'groups', about: {}, by: '', of: null, now });
}

/** Tells of the groups that such work has made too small or too large: all are counted in the register as it is now. */
export const tellOfTurned: JobWork = async ({ db, clock }, { step }: Doing<never>) => {
  const turns = db.select().from(noticeTurns).all();
  for (const formId of new Set(turns.map((turn) => turn.formId))) {
    const some = turns.filter((turn) => turn.formId === formId);
    const counts = await counted(db, clock.now(), formId, some);
    await step(some.length, (work) => {
      for (const turn of some) settle(work, turn, counts.get(turn));
      return {};
    });
  }
};

/** How many each group has that turned; none where nothing watches it any more. */
async function counted(
  db: Reader,
  now: number,
  formId: string,
  turns: readonly Turn[],
): Promise<ReadonlyMap<Turn, Counted>> {
  const counts = new Map<Turn, Counted>();
  const registerId = db.select({ of: forms.registerId }).from(forms).where(eq(forms.id, formId)).get()?.of;
  if (registerId === undefined) return counts;
  const watching = watchersOf(db, registerId).filter((watched) => watched.formId === formId);
  const watched = turns.flatMap((turn) => {
    const notice = watching.find(({ notice: { rule } }) => rule.key === turn.rule)?.notice;
    if (!notice) return [];
    const found = { notice, value: JSON.parse(turn.value) as GroupValue, count: 0 };
    counts.set(turn, found);
    return [found];
  });
  if (watched.length === 0) return counts;
  const register = registerById(db, registerId);
  const picked = pickedBy(db, register.fields);
  const notices = [...new Set(watched.map(({ notice }) => notice))];
  const those = countedIn(registerId, holdsThings(register) ? 'all' : 'unfinished');
  for await (const group of inGroups(eachRequest(db, those)))
    for (const request of group)
      for (const notice of notices) {
        const groups = groupsAt(db, request, notice, now, picked);
        for (const each of watched) if (each.notice === notice && groups.includes(each.value)) each.count += 1;
      }
  return counts;
}

interface Counted {
  readonly notice: GroupNotice;
  readonly value: GroupValue;
  count: number;
}

function settle(work: Work, turn: Turn, found: Counted | undefined): void {
  const { tx } = work;
  const kept = tx.select().from(noticeTurns).where(isOne(turn)).get();
  // Told at once meanwhile.
  if (!kept) return;
  // It went on meanwhile: it is counted once more.
  if (found && kept.turned !== turn.turned) {
    settleLater(work);
    return;
  }
  tx.delete(noticeTurns).where(isOne(turn)).run();
  if (!found || !isCrossed(found.notice.rule.on, found.count - kept.turned, found.count)) return;
  const { notice, value, count } = found;
  tellOfTurn(work, kept, notice, { value, count });
}

/** Tells of a group that was not counted with one change: an email is of what changed it last, or of the newest there is. */
export function tellOfTurn(
  work: Work,
  turn: Pick<Turn, 'formId' | 'last'>,
  notice: GroupNotice,
  group: GroupCount,
): void {
  const request = subjectOf(work.tx, turn);
  if (!request) return;
  const isUrgent = asking(work.tx, request, notice.fields, work.now)(notice.urgent, false);
  tellOfGroup({ ...work, told: new Set<string>() }, request, notice, group, isUrgent);
}
