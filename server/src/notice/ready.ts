import { type Compiled, compileText, conditionOf, namesIn } from '@tolvek/core/expression';
import { type Field, requestScope, requestSlots } from '@tolvek/core/register';
import { formulasOfNotice, type NoticePlan, type NoticeRule } from '@tolvek/core/telling';
import type { Reader } from '../platform/database.ts';
import { registerById } from '../register/queries.ts';
import { factsOfRequest, type Picked } from '../request/facts.ts';
import type { ShownRow } from '../request/queries.ts';

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
  const by = rule.on.is === 'group' && rule.on.by !== null ? [rule.on.by] : [];
  return [...new Set([...asked, ...(rule.on.is === 'changed' ? rule.on.fields : []), ...by])];
}

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
