import { type Compiled, compileText, conditionOf, namesIn } from '@tolvek/core/expression';
import { heardBy, isAbout, type Written, writtenWith } from '@tolvek/core/notice';
import { own } from '@tolvek/core/own';
import { type Field, requestScope, requestSlots } from '@tolvek/core/register';
import type { Happening } from '@tolvek/core/request';
import { formulasOfNotice, type NoticePlan, type NoticeRule, type Recipient, waysOf } from '@tolvek/core/telling';
import { openSeats, roundOf } from '../approval/queries.ts';
import { releaseInForce } from '../form/queries.ts';
import { askedFor } from '../people/absences.ts';
import { membersOf } from '../people/queries.ts';
import { todayAt } from '../people/settle.ts';
import type { Reader } from '../platform/database.ts';
import { registerById } from '../register/queries.ts';
import { factsOfRequest, type Picked } from '../request/facts.ts';
import { followersOf } from '../request/followers.ts';
import type { ShownRow } from '../request/queries.ts';
import { onDuty } from '../roster/queries.ts';
import { mailboxOf } from './addressee.ts';
import { isDeciding, leadsGroup, leadsOf, workingOn } from './hearers.ts';
import { type CausedByRule, notifyBy, notifyGroupBy, notifyProgramBy, type Telling } from './notify.ts';

/** A notice with its conditions compiled. */
export interface ReadyNotice {
  readonly rule: NoticeRule;
  readonly applies: Compiled | null;
  readonly urgent: Compiled | null;
  /** What they are compiled over: they are asked with the values of these. */
  readonly fields: readonly Field[];
}

const ready = new WeakMap<NoticePlan, readonly ReadyNotice[]>();

export function readyNotice(rule: NoticeRule, fields: readonly Field[]): ReadyNotice {
  const scope = requestScope(fields);
  const when = conditionOf(rule);
  return {
    rule,
    applies: when === null ? null : compileText(when, scope),
    urgent: rule.urgent?.trim() ? compileText(rule.urgent, scope) : null,
    fields,
  };
}

/** The notices of a form, ready to be asked; those that are off are not there. */
export function readyNotices(plan: NoticePlan, fields: readonly Field[]): readonly ReadyNotice[] {
  let found = ready.get(plan);
  if (!found) {
    found = plan.rules.filter(({ off }) => !off).map((rule) => readyNotice(rule, fields));
    ready.set(plan, found);
  }
  return found;
}

/** The fields that somebody learns of by hearing of it at all. */
export function fieldsRead(rule: NoticeRule, fields: readonly Field[]): readonly string[] {
  const keys = new Set(fields.map(({ key }) => key));
  const asked = formulasOfNotice(rule).flatMap((text) => namesIn(text).filter((name) => keys.has(name)));
  return [...new Set([...asked, ...(rule.on.is === 'changed' ? rule.on.fields : [])])];
}

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

/** Whether conditions hold for a request at a moment (epoch ms); what is not asked holds, or what is said then. */
export function asking(db: Reader, request: ShownRow, fields: readonly Field[], now: number, picked?: Picked) {
  let slots: ReturnType<typeof requestSlots> | undefined;
  return (condition: Compiled | null, otherwise = true): boolean => {
    if (condition === null) return otherwise;
    const register = registerById(db, request.registerId);
    slots ??= requestSlots(
      fields,
      request.values,
      factsOfRequest(db, request, register, now, picked ? { picked } : {}),
    );
    return condition(slots, null) === true;
  };
}

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
