import type { AnswerOf } from '@tolvek/contract';
import { type AccessRule, exceptionScope, readerScope } from '@tolvek/core/access';
import { conditionInWords, parseExpression, type Scope } from '@tolvek/core/expression';
import { type KnownStanding, personScope } from '@tolvek/core/register';
import { say, told } from '../../wire/words.ts';
import { graceOf } from './planEdits.ts';
import type { Plan } from './usePlan.ts';

/** The names that conditions of a plan may use, with what stands behind them here. */
export const scopeOf = (plan: Plan, ground: AnswerOf<'ground'> | undefined): Scope =>
  exceptionScope(plan.fields, knownBy(plan, ground));

/** What stands here behind the names of conditions. */
const knownBy = ({ stages, forms }: Plan, ground: AnswerOf<'ground'> | undefined): KnownStanding => ({
  ...{ stages, forms: forms.map(({ key, title }) => ({ key, label: title })) },
  groups: ground?.groups.map(({ key, name }) => ({ key, label: name })) ?? [],
  vocabularies: ground?.vocabularies ?? [],
  profile: ground?.profile ?? [],
});

/** The names that conditions on whole requests may use. */
export const readerScopeOf = (plan: Plan, ground: AnswerOf<'ground'> | undefined): Scope =>
  readerScope(plan.fields, knownBy(plan, ground));

/** The names that conditions on profiles use, in rules for whoever meets them; none where profiles have no fields. */
export const profileScopeOf = (ground: AnswerOf<'ground'> | undefined): Scope | undefined => {
  const fields = ground?.profile.filter(({ retired }) => !retired) ?? [];
  return fields.length > 0 ? personScope(fields, { vocabularies: ground?.vocabularies ?? [] }) : undefined;
};

/** Where a rule says something else, and on which days it holds: a sentence for each. */
export function exceptionsInWords(
  { exceptions = [], from, until, asking, level }: AccessRule,
  { stages }: Plan,
  scope: Scope,
): readonly string[] {
  const days = [
    ...(from ? [say('accessPlan:saysFrom', { day: from })] : []),
    ...(until ? [say('accessPlan:saysUntil', { day: until })] : []),
  ];
  return [
    ...exceptions.map(({ level: says, stages: at = [], activities = [], when }) => {
      const parsed = when ? parseExpression(when) : null;
      const where = [
        ...(at.length > 0
          ? [
              say('accessPlan:saysStages', {
                stages: at.map((key) => stages.find((each) => each.key === key)?.label ?? key),
              }),
            ]
          : []),
        ...(activities.length > 0
          ? [
              say('accessPlan:saysActivities', {
                activities: activities.map((each) => say(`accessPlan:activity.${each}`)),
              }),
            ]
          : []),
        ...(when && graceOf(when) !== null
          ? [say('accessPlan:saysGrace', { count: graceOf(when) ?? 0 })]
          : parsed?.ok
            ? [say('accessPlan:saysWhen', { condition: told(conditionInWords(parsed.value, scope)) })]
            : when
              ? [when]
              : []),
      ];
      return say('accessPlan:saysException', { level: say(`accessPlan:level.${says}`), where });
    }),
    ...(asking && level !== 'write' ? [say(`accessPlan:alsoAsking.${level}`)] : []),
    ...days,
  ];
}
