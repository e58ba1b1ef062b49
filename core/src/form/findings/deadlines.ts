import { said, type Words } from '@tolvek/words';
import { type DeadlineRule, deadlineName, LONGEST_LENGTH, MOST_WORKING_DAYS, type Ring } from '../../deadline/index.ts';
import {
  checkExpression,
  conditionFindings,
  conditionOf,
  kindOf,
  parseExpression,
  type Scope,
  typeOf,
} from '../../expression/index.ts';
import { own } from '../../own/index.ts';
import type { FormDesign } from '../design.ts';
import type { Add } from './finding.ts';
import type { RostersAround } from './handlers.ts';

interface Around {
  readonly scope: Scope;
  readonly groups: ReadonlyMap<string, Words>;
  /** The stages of the register; nothing is found in stages when not said. */
  readonly stages: readonly { readonly key: string }[] | undefined;
  readonly rosters: RostersAround | undefined;
}

/** What is wrong or doubtful in what a request is due by, and in what happens on the way. */
export function deadlineFindings(design: FormDesign, around: Around, add: Add): void {
  const { deadlines } = design.deadline;
  const names = deadlines.map(({ name }) => name.trim().toLowerCase());
  for (const [place, rule] of deadlines.entries()) {
    const doubt = (message: Words): void => add('caution', 'approval', rule.key, message);
    if (names[place] !== '' && names.indexOf(names[place] ?? '') !== place)
      doubt(said('findings:deadlineTwice', { name: rule.name }));
    ruleFindings(rule, design, around, add);
    for (const ring of rule.rings) ringFindings(ring, rule, design, around, add);
  }
}

function ruleFindings(rule: DeadlineRule, { fields }: FormDesign, { scope, stages }: Around, add: Add): void {
  const { key, begins, length, stands, ends } = rule;
  const deadline = deadlineName(rule);
  const error = (message: Words, of?: 'condition'): void => add('error', 'approval', key, message, undefined, of);
  const when = conditionOf(rule);
  for (const { message } of when === null ? [] : conditionFindings(when, scope))
    error(said('findings:deadlineWrong', { deadline, message }), 'condition');
  if (length.by === 'formula') {
    const parsed = parseExpression(length.formula);
    const problems = parsed.ok ? checkExpression(parsed.value, scope) : parsed.findings;
    for (const { message } of problems) error(said('findings:deadlineFormula', { deadline, message }));
    const gives = parsed.ok && problems.length === 0 ? kindOf(typeOf(parsed.value, scope)) : 'number';
    if (gives !== 'number' && gives !== 'unknown') error(said('findings:deadlineNoNumber', { deadline }));
  }
  const isDated = (field: string): boolean =>
    fields.some(({ key: each, type }) => each === field && (type.kind === 'date' || type.kind === 'date-time'));
  if (length.by === 'field' && !isDated(length.field)) error(said('findings:deadlineLostField', { deadline }));
  if (length.by === 'time' && (length.time === 0 || length.time > LONGEST_LENGTH))
    error(said('findings:deadlineTooLong', { deadline }));
  if (ends.on === 'left' && begins.on === 'arrival') error(said('findings:deadlineNeverLeft', { deadline }));
  const named = [begins, stands, ends].flatMap((each) => ('stages' in each ? [each.stages] : []));
  if (named.some((some) => some.length === 0)) error(said('findings:deadlineNoStage', { deadline }));
  if (stages && named.flat().some((stage) => !stages.some((each) => each.key === stage)))
    error(said('findings:deadlineLostStage', { deadline }));
}

function ringFindings(
  { at, days = 0, again = 0, tells, does }: Ring,
  rule: DeadlineRule,
  { fields, approval }: FormDesign,
  { groups, stages, rosters }: Around,
  add: Add,
): void {
  const deadline = deadlineName(rule);
  const error = (message: Words): void => add('error', 'approval', rule.key, message);
  if (Math.abs(at) > LONGEST_LENGTH || Math.abs(days) > MOST_WORKING_DAYS || again > LONGEST_LENGTH)
    error(said('findings:ringTooFar', { deadline }));
  for (const hearer of tells) {
    if (typeof hearer !== 'object') continue;
    if ('group' in hearer && !groups.has(hearer.group)) error(said('findings:ringLostGroup', { deadline }));
    if ('field' in hearer && !fields.some(({ key, type }) => key === hearer.field && type.kind === 'person'))
      error(said('findings:ringLostField', { deadline }));
    if ('duty' in hearer && rosters && !own(rosters, hearer.duty)) error(said('findings:ringLostRoster', { deadline }));
  }
  for (const act of does) {
    if (act.do === 'team' && !groups.has(act.team)) error(said('findings:ringLostGroup', { deadline }));
    if (act.do === 'stage' && stages && !stages.some(({ key }) => key === act.stage))
      error(said('findings:deadlineLostStage', { deadline }));
    if (act.do === 'decide' && !approval.paths.some(({ id }) => id === act.path))
      error(said('findings:ringLostPath', { deadline }));
  }
  if (tells.length === 0 && does.length === 0)
    add('caution', 'approval', rule.key, said('findings:ringIdle', { deadline }));
}
