import { type GroupCount, heardBy, isAbout, type Written, writtenWith } from '@tolvek/core/notice';
import { own } from '@tolvek/core/own';
import type { Happening } from '@tolvek/core/request';
import { type NoticeRule, type Recipient, waysOf } from '@tolvek/core/telling';
import { openSeats, roundOf } from '../approval/queries.ts';
import { releaseInForce } from '../form/queries.ts';
import { askedFor } from '../people/absences.ts';
import { membersOf } from '../people/queries.ts';
import { todayAt } from '../people/settle.ts';
import type { Reader } from '../platform/database.ts';
import { followersOf } from '../request/followers.ts';
import type { ShownRow } from '../request/queries.ts';
import { onDuty } from '../roster/queries.ts';
import { mailboxOf } from './addressee.ts';
import { crossedBy, type GroupNotice, isOfGroup } from './groups.ts';
import { toldAtOnce } from './groupTurns.ts';
import { isDeciding, leadsGroup, leadsOf, workingOn } from './hearers.ts';
import { type CausedByRule, notifyBy, notifyGroupBy, notifyProgramBy, type Telling } from './notify.ts';
import { asking, type ReadyNotice, readyNotices } from './ready.ts';

/** Tells what the form of a request tells besides what is usual. */
export function tellByRules(work: Telling, request: ShownRow, change: Happening, before: ShownRow | null): void {
  const design = releaseInForce(work.tx, request.formId)?.design;
  const { notices } = design ?? {};
  if (!design || !notices?.rules.length) return;
  const moved = { stage: request.stage, before: before?.stage ?? null };
  // What they read is looked up once for all of them, and only where one asks.
  const holds = asking(work.tx, request, design.fields, work.now);
  const held = before && asking(work.tx, before, design.fields, work.now);
  for (const each of readyNotices(notices, design.fields)) {
    const { rule } = each;
    if (!isAbout(rule.on, change, moved)) continue;
    if (isOfGroup(each)) {
      tellOfGroups(work, request, each, { before, isUrgent: holds(each.urgent, false) });
      continue;
    }
    if (!holds(each.applies)) continue;
    if (rule.on.is === 'becomes' && held?.(each.applies)) continue;
    const isArrival = change.kind === 'arrived';
    tellRule(work, request, each, {
      written: writtenWith(change),
      // What one does oneself is no news to oneself; that it arrived is.
      isTold: (id, to) => id !== work.actor || (isArrival && to === 'requester'),
      isUrgent: holds(each.urgent, false),
    });
  }
}

/** Tells of the groups that a change made too small or too large. */
function tellOfGroups(
  work: Telling,
  request: ShownRow,
  notice: GroupNotice,
  { before, isUrgent }: { readonly before: ShownRow | null; readonly isUrgent: boolean },
): void {
  for (const group of crossedBy(work.tx, notice, before, request, work.now)) {
    tellOfGroup(work, request, notice, group, isUrgent);
    toldAtOnce(work.tx, { formId: request.formId, rule: notice.rule.key }, group.value);
  }
}

/** Tells of a group by the request that made it too small or too large. */
export const tellOfGroup = (
  work: Telling,
  request: ShownRow,
  notice: GroupNotice,
  group: GroupCount,
  isUrgent: boolean,
): void =>
  // What one does oneself may still be news: how many are left.
  tellRule(work, request, notice, { written: { text: '', group }, isTold: () => true, isUrgent });

/** Tells everybody whom one notice names, each once. */
export function tellRule(
  work: Telling,
  request: ShownRow,
  { rule }: Pick<ReadyNotice, 'rule'>,
  {
    written,
    isTold,
    isUrgent,
  }: { readonly written: Written; readonly isTold: (id: string, to: Recipient) => boolean; readonly isUrgent: boolean },
): void {
  const told = new Set<string>();
  const leaving = { goes: rule.goes, isUrgent };
  const ways = waysOf(rule);
  for (const to of rule.to) {
    const cause = causeFor(rule, to, work.actor, written);
    if (typeof to === 'object' && 'program' in to) {
      notifyProgramBy(work, request, to.program, cause);
      continue;
    }
    const group = ways.includes('email') ? mailboxMeant(work.tx, request, to) : undefined;
    // Whoever gets the email with their group gets what goes otherwise by themselves.
    const own = group ? ways.filter((way) => way !== 'email') : ways;
    const ids = recipientsOf(work, request, to);
    if (group && !told.has(group.key)) notifyGroupBy(work, request, group, cause, leaving);
    if (group) told.add(group.key);
    for (const id of ids) {
      if (told.has(id) || !isTold(id, to)) continue;
      told.add(id);
      if (!group || own.length > 0) notifyBy(work, request, id, cause, { ...leaving, ways: own });
    }
  }
}

/** Why somebody gets a notice. `by`: who did what it is about; null for the desk itself. */
export const causeFor = (rule: NoticeRule, to: Recipient, by: string | null, written: Written): CausedByRule => ({
  ...{ kind: 'rule', rule: rule.key, by, ...written, as: heardBy(to) },
  ...(typeof to === 'object' && 'field' in to ? { field: to.field } : {}),
});

/** The group that is meant, where it gets its emails together. */
export function mailboxMeant(db: Reader, request: ShownRow, to: Recipient) {
  const isForTeam = to === 'team' || (to === 'working' && request.handlerId === null && !isDeciding(db, request));
  const key = isForTeam
    ? request.team
    : to === 'leads'
      ? leadsGroup(db, request)
      : typeof to === 'object' && 'group' in to
        ? to.group
        : null;
  return key === null ? undefined : mailboxOf(db, key);
}

/** Who somebody named by a notice is, by id. */
export function recipientsOf(
  { tx, now }: { readonly tx: Reader; readonly now: number },
  request: ShownRow,
  to: Recipient,
): readonly string[] {
  if (to === 'requester') return request.requesterId === null ? [] : [request.requesterId];
  if (to === 'followers') return followersOf(tx, request.id);
  if (to === 'leads') return leadsOf(tx, request);
  if (to === 'team') return request.team === null ? [] : membersOf(tx, request.team).map(({ id }) => id);
  if (to === 'deciding' || (to === 'working' && isDeciding(tx, request))) {
    const round = roundOf(tx, request.id);
    if (round?.state !== 'open') return [];
    const seated = openSeats(round).flatMap(({ holder }) => askedFor(tx, holder, todayAt(tx, now)));
    return [...new Set(seated.map(({ id }) => id))].filter((id) => id !== request.requesterId);
  }
  if (to === 'working') return workingOn(tx, request);
  if ('group' in to) return membersOf(tx, to.group).map(({ id }) => id);
  if ('person' in to) return [to.person];
  // Programs are told in a way of their own.
  if ('program' in to) return [];
  if ('duty' in to) return onDuty(tx, { roster: to.duty }, now);
  const named = own(request.values, to.field);
  if (typeof named === 'string') return [named];
  return Array.isArray(named) ? (named as readonly unknown[]).filter((each) => typeof each === 'string') : [];
}
