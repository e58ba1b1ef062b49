import type { AnswerOf, BodyOf } from '@tolvek/contract';
import { type AccessPlan, type AccessRule, type PlanRules, RANK, ruleChanges, rulesOf } from '@tolvek/core/access';
import { isSame } from '@tolvek/core/design';
import type { RegisterContent } from '@tolvek/core/form';
import { groupsIn, type Viewer } from '@tolvek/core/people';
import { refused, type Said, said, type Words } from '@tolvek/words';
import { keepDraft } from '../design/commands.ts';
import { statesOf } from '../design/queries.ts';
import { onShelf } from '../form/queries.ts';
import { namesOf } from '../people/queries.ts';
import { iso } from '../platform/clock.ts';
import type { Reader } from '../platform/database.ts';
import type { House } from '../platform/house.ts';
import { notAllowed, Problem, staleVersion, wrongFields } from '../platform/problem.ts';
import { write } from '../platform/work.ts';
import { type RegisterRow, registerById, registerNamed } from '../register/queries.ts';
import { audienceToday, gridOf } from './accessView.ts';
import { changePlan, fieldsFor, opensUnread, planProblems } from './plan.ts';
import { ownChanges, whatChanges } from './planEffect.ts';
import { designOf } from './registerDraft.ts';

type Told = Omit<AnswerOf<'keepAccessPlan'>, 'version'>;

/** The plan as it was before what was put in force last, whose change that was, and when. */
function planBefore(db: Reader, register: RegisterRow): { plan: PlanRules; by: string; at: number } | null {
  const now = rulesOf(register.access);
  let last: { by: string; at: number } | null = null;
  for (const { content, by, at } of statesOf<RegisterContent>(db, register)) {
    const plan = rulesOf(content.access);
    if (!isSame(plan, now)) return last && { plan, ...last };
    last = { by, at };
  }
  return null;
}

/** The page of a register’s access plan: as it is in force, as it is being written, and what came of it. */
export function planPage(db: Reader, viewer: Viewer, key: string): AnswerOf<'accessPlan'> {
  const register = registerNamed(db, key);
  const design = designOf(db, key);
  const before = planBefore(db, register);
  const draft = rulesOf(design.draft.access);
  const names = namesOf(db, before ? [before.by] : []);
  return {
    ...{ key, name: register.name, version: design.version, holds: register.holds },
    forms: onShelf(db, register.id).map(({ key: form, draft: { title } }) => ({ key: form, title })),
    inForce: rulesOf(register.access),
    draft,
    ...told(db, register, draft),
    fields: fieldsFor(db, register).map(({ key: field, label, source }) => ({ key: field, label, source })),
    before: before && {
      ...before.plan,
      by: names.get(before.by) ?? '',
      at: iso(before.at),
      own: before.by === viewer.personId,
    },
  };
}

function told(db: Reader, register: RegisterRow, draft: PlanRules): Told {
  const { added, changed, removed, switchedOff, switchedOn } = ruleChanges(rulesOf(register.access), draft);
  return {
    changes: {
      ...{ added: [...added], changed: [...changed], removed: [...removed] },
      switchedOff: [...switchedOff],
      switchedOn: [...switchedOn],
    },
    problems: problemsOf(db, register, draft),
    told: Object.fromEntries(
      [...draft.rules, ...draft.resting].map((rule) => [rule.id, audienceToday(db, rule.audience)]),
    ),
    grid: gridOf(db, register, draft),
  };
}

/** What keeps a plan from being put in force, each with the rule it is about. */
function problemsOf(db: Reader, register: RegisterRow, { rules }: PlanRules): Told['problems'] {
  const known = new Set(fieldsFor(db, register).map(({ key }) => key));
  const wrong = (rule: AccessRule, field: string, message: Said, fix: Said) => ({
    ...{ field: `rules ${rule.id} ${field}` },
    ...{ message, fix },
  });
  return [
    ...planProblems(db, rules),
    ...rules.flatMap((rule, index) => [
      ...(rule.name.trim() === ''
        ? [wrong(rule, 'name', said('workshopErrors:ruleNoName'), said('workshopErrors:nameRule'))]
        : []),
      ...(rules.slice(0, index).some((each) => each.name.trim() === rule.name.trim() && rule.name.trim() !== '')
        ? [
            wrong(
              rule,
              'name',
              said('workshopErrors:ruleTwice', { rule: called(rule) }),
              said('workshopErrors:otherRuleName'),
            ),
          ]
        : []),
      ...(rule.fields !== 'all' && rule.fields.length === 0
        ? [
            wrong(
              rule,
              'fields',
              said('workshopErrors:ruleNoFields', { rule: called(rule) }),
              said('workshopErrors:ruleChooseFields'),
            ),
          ]
        : []),
      ...(rule.fields !== 'all' && rule.fields.some((field) => !known.has(field))
        ? [
            wrong(
              rule,
              'fields',
              said('workshopErrors:ruleLostField', { rule: called(rule) }),
              said('workshopErrors:chooseOtherFields'),
            ),
          ]
        : []),
      ...(isNobody(rule)
        ? [
            wrong(
              rule,
              'audience',
              said('workshopErrors:ruleForNobody', { rule: called(rule) }),
              said('workshopErrors:chooseAudience'),
            ),
          ]
        : []),
    ]),
  ];
}

/** A rule as it is spoken of. */
const called = ({ name }: AccessRule): Words => name.trim() || said('workshopErrors:unnamedRule');

/** Whether a rule speaks of nobody, whoever may be in which group. */
const isNobody = ({ audience }: AccessRule): boolean =>
  !('everyone' in audience.in) && audience.requester !== 'in' && groupsIn({ ...audience, outOf: [] }).length === 0;

/** Keeps a plan as it is being written. Nothing of it is in force. @throws Problem 412 when somebody was faster. */
export function keepPlan(
  house: House,
  viewer: Viewer,
  { key, version, plan }: { readonly key: string; readonly version: number; readonly plan: BodyOf<'keepAccessPlan'> },
): AnswerOf<'keepAccessPlan'> {
  return write(house, ({ tx, now }) => {
    const design = designOf(tx, key);
    const content = { ...design.draft, access: { ...design.draft.access, ...plan } };
    const next = keepDraft<RegisterContent>(tx, design, { version, content }, { viewer, now });
    const register = registerNamed(tx, key);
    return { version: next, ...told(tx, register, plan) };
  });
}

/** What would be in force: the rules as they are written, and what was allowed as it is. */
const asWritten = (register: RegisterRow, { rules, resting }: PlanRules): AccessPlan => ({
  ...register.access,
  rules: rules.map((rule) => ({ ...rule, name: rule.name.trim() })),
  resting,
});

/** What putting the plan in force would change, for whom. */
export function planEffect(db: Reader, viewer: Viewer, key: string): AnswerOf<'accessPlanEffect'> {
  const register = registerNamed(db, key);
  const plan = asWritten(register, rulesOf(designOf(db, key).draft.access));
  const after = { ...register, access: plan };
  return {
    ...whatChanges(db, register, after),
    yours: ownChanges(db, viewer, register, after),
    mayNotOpen: mayNotOpen(db, viewer, register, plan),
  };
}

/**
 * The labels of fields that a plan opens further than somebody who puts it in force has them open; whoever made the
 * last change may take it back.
 */
function mayNotOpen(db: Reader, viewer: Viewer, register: RegisterRow, plan: AccessPlan): string[] {
  const before = planBefore(db, register);
  if (before?.by === viewer.personId && isSame(before.plan, rulesOf(plan))) return [];
  return opensUnread(db, viewer, register, plan);
}

/**
 * Puts a plan that was written in force, for all requests of its register.
 *
 * @throws Problem 403 where it opens what whoever does it may not read or change, 409 where it closes something to
 *   themselves that they did not say yes to, 412 when somebody was faster, 422 when something is wrong with it, or a
 *   form in force would tell more than before to somebody who may not read it.
 */
export function putPlan(
  house: House,
  viewer: Viewer,
  { key, version, note, closesToMyself }: BodyOf<'putAccessPlan'> & { readonly key: string; readonly version: number },
): { version: number } {
  return write(house, ({ tx, now }) => {
    const register = registerNamed(tx, key);
    const design = designOf(tx, key);
    if (design.version !== version) throw staleVersion();
    const draft = rulesOf(design.draft.access);
    const problems = problemsOf(tx, register, draft);
    if (problems.length > 0) throw wrongFields(problems);
    const plan = asWritten(register, draft);
    if (isSame(rulesOf(plan), rulesOf(register.access))) return { version };
    const unread = mayNotOpen(tx, viewer, register, plan);
    if (unread.length > 0) throw notAllowed(refused('opensUnread', { fields: unread }));
    const lost = ownChanges(tx, viewer, register, { ...register, access: plan }).filter(
      ({ before, after }) => RANK[after] < RANK[before],
    );
    if (lost.length > 0 && !closesToMyself)
      throw new Problem(
        409,
        'closes-to-yourself',
        refused('closesToYourself', { fields: lost.map(({ label }) => label) }),
      );
    const changes = ruleChanges(rulesOf(register.access), rulesOf(plan));
    changePlan(tx, viewer, now, register, plan, { kind: 'put', changes, note: note.trim() });
    return { version: registerById(tx, register.id).version };
  });
}
