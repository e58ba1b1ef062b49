import type { AnswerOf, BodyOf } from '@tolvek/contract';
import {
  type AccessPlan,
  type AccessRule,
  circumstancesOf,
  classTold,
  conditionProblems,
  isPlaced,
  openFields,
  type PlanRules,
  RANK,
  readerScope,
  ruleChanges,
  rulesOf,
  USUAL_BASE,
} from '@tolvek/core/access';
import { isSame } from '@tolvek/core/design';
import { conditionFindings, namesIn } from '@tolvek/core/expression';
import { fieldsTogether, type RegisterContent } from '@tolvek/core/form';
import { peopleIn, rightsAt, type Viewer, wordsIn } from '@tolvek/core/people';
import { partsOf } from '@tolvek/core/register';
import { refused, type Said, said, type Words } from '@tolvek/words';
import { keepDraft } from '../design/commands.ts';
import { statesOf } from '../design/queries.ts';
import { onShelf } from '../form/queries.ts';
import { nameConditions } from '../people/conditions.ts';
import { namesOf } from '../people/queries.ts';
import { iso } from '../platform/clock.ts';
import type { Reader } from '../platform/database.ts';
import type { House } from '../platform/house.ts';
import { notAllowed, Problem, staleVersion, wrongFields } from '../platform/problem.ts';
import { write } from '../platform/work.ts';
import { conditionsOf } from '../register/commands.ts';
import { type RegisterRow, registerById, registerNamed } from '../register/queries.ts';
import { meetingCount } from '../request/readings.ts';
import { knownStanding } from '../request/standing.ts';
import { audienceToday, type GridOf, gridOf, protectionsBy } from './accessView.ts';
import { askingChanges } from './askingEffect.ts';
import { changePlan, fieldsFor, opensUnread, planProblems, wordNames } from './plan.ts';
import { ownChanges, whatChanges } from './planEffect.ts';
import { asWritten, planWritten } from './planWritten.ts';
import { designOf } from './registerDraft.ts';

type Told = Omit<AnswerOf<'keepAccessPlan'>, 'version'>;

/** The plan as it was before what was put in force last, whose change that was, and when. */
function planBefore(db: Reader, register: RegisterRow): { plan: PlanRules; by: string; at: number } | null {
  const now = rulesOf(register.access);
  let last: { by: string; at: number } | null = null;
  for (const { content, by, at } of statesOf<RegisterContent>(db, register)) {
    // Before fields had their place in a plan, all had.
    const plan = rulesOf({ ...(now.placed ? { placed: now.placed } : {}), ...content.access });
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
  const { placed } = register.access;
  const draft = rulesOf({ ...(placed ? { placed } : {}), ...design.draft.access });
  const names = namesOf(db, before ? [before.by] : []);
  return {
    ...{ key, name: register.name, version: design.version, holds: register.holds },
    forms: onShelf(db, register.id).map(({ key: form, draft: { title } }) => ({ key: form, title })),
    inForce: rulesOf(register.access),
    draft,
    ...told(db, register, draft),
    stages: register.stages.filter(({ retired }) => !retired).map(({ key: stage, label }) => ({ key: stage, label })),
    fields: [...fieldsFor(db, register)],
    together: [
      ...fieldsTogether(
        onShelf(db, register.id).map(({ draft: { title, parts } }) => ({ title, parts })),
        fieldsFor(db, register),
      ),
    ],
    before: before && {
      ...before.plan,
      by: names.get(before.by) ?? '',
      at: iso(before.at),
      own: before.by === viewer.personId,
    },
  };
}

function told(db: Reader, register: RegisterRow, draft: PlanRules): Told {
  return {
    changes: changesOf(db, register, draft),
    problems: problemsOf(db, register, draft),
    told: Object.fromEntries(
      [...draft.rules, ...draft.resting, ...(draft.readers ?? [])].map((rule) => [
        rule.id,
        audienceToday(db, rule.audience),
      ]),
    ),
    reached: Object.fromEntries((draft.readers ?? []).map(({ id, when }) => [id, meetingCount(db, register, when)])),
    grid: gridOf(db, register, draft),
    unplaced: fieldsFor(db, register).flatMap((field) =>
      isPlaced(asWritten(register, draft), field) ? [] : [field.key],
    ),
    people: Object.fromEntries(
      namesOf(
        db,
        [...draft.rules, ...draft.resting, ...(draft.readers ?? [])].flatMap(({ audience }) => peopleIn(audience)),
      ),
    ),
  };
}

/** What became of the rules, and whose reading is noted or is not any more, by their labels. */
function changesOf(db: Reader, register: RegisterRow, draft: PlanRules) {
  const { added, changed, removed, switchedOff, switchedOn } = ruleChanges(rulesOf(register.access), draft);
  const labels = new Map(partsOf(fieldsFor(db, register)).map(({ key, label }) => [key, label]));
  const [was, is] = [register.access.noted ?? [], draft.noted ?? []];
  const [stood, stand] = [register.access.placed ?? [], asWritten(register, draft).placed ?? []];
  const but = (keys: readonly string[], others: readonly string[]): string[] =>
    keys.filter((key) => !others.includes(key)).map((key) => labels.get(key) ?? key);
  return {
    ...{ added: [...added], changed: [...changed], removed: [...removed] },
    ...{ switchedOff: [...switchedOff], switchedOn: [...switchedOn] },
    ...{ noted: but(is, was), notNoted: but(was, is), placed: but(stand, stood) },
    readers: !isSame(register.access.readers ?? [], draft.readers ?? []),
    base: !isSame(register.access.base ?? USUAL_BASE, draft.base ?? USUAL_BASE),
  };
}

const wrong = (rule: AccessRule, field: string, message: Said, fix: Said) => ({
  ...{ field: `rules ${rule.id} ${field}` },
  ...{ message, fix },
});

/** What keeps a plan from being put in force, each with the rule it is about. */
function problemsOf(db: Reader, register: RegisterRow, draft: PlanRules): Told['problems'] {
  const { rules } = draft;
  const known = new Set(partsOf(fieldsFor(db, register)).map(({ key }) => key));
  const names = rules.map(({ name }) => name.trim());
  return [
    ...planProblems(db, [...rules, ...(draft.readers ?? [])]),
    ...readerProblems(db, register, draft),
    ...(circumstancesOf(rules) === null
      ? [
          {
            field: 'access',
            message: said('workshopErrors:planHangsOnTooMuch'),
            fix: said('workshopErrors:fewerExceptions'),
          },
        ]
      : []),
    ...rules.flatMap((rule, index) => {
      const [name, called_] = [names[index] ?? '', { rule: called(rule) }];
      const found: Told['problems'][number][] = [];
      if (name === '')
        found.push(wrong(rule, 'name', said('workshopErrors:ruleNoName'), said('workshopErrors:nameRule')));
      else if (names.indexOf(name) < index)
        found.push(
          wrong(rule, 'name', said('workshopErrors:ruleTwice', called_), said('workshopErrors:otherRuleName')),
        );
      if (rule.fields !== 'all' && rule.fields.length === 0)
        found.push(
          wrong(rule, 'fields', said('workshopErrors:ruleNoFields', called_), said('workshopErrors:ruleChooseFields')),
        );
      if (rule.fields !== 'all' && rule.fields.some((field) => !known.has(field)))
        found.push(
          wrong(
            rule,
            'fields',
            said('workshopErrors:ruleLostField', called_),
            said('workshopErrors:chooseOtherFields'),
          ),
        );
      if (isNobody(rule))
        found.push(
          wrong(rule, 'audience', said('workshopErrors:ruleForNobody', called_), said('workshopErrors:chooseAudience')),
        );
      if (rule.from && rule.until && rule.until < rule.from)
        found.push(wrong(rule, 'days', said('workshopErrors:ruleEndsFirst', called_), said('workshopErrors:swapDays')));
      return [
        ...found,
        ...exceptionProblems(register, rule),
        ...tellingProblems(db, register, asWritten(register, draft), rule),
      ];
    }),
  ];
}

/** Readers of whole requests that mean nobody, or ask for what can't be read, or what would tell them of what is hidden. */
function readerProblems(db: Reader, register: RegisterRow, draft: PlanRules): Told['problems'] {
  const fields = fieldsFor(db, register);
  const scope = readerScope(fields, knownStanding(db, register));
  return (draft.readers ?? []).flatMap((reader) => {
    const told = { rule: reader.name.trim() || said('workshopErrors:unnamedReader') };
    const at = (field: string, message: Said, fix: Said) => ({ field: `readers ${reader.id} ${field}`, message, fix });
    const [unreadable] = conditionFindings(reader.when, scope);
    const meansNobody = !('everyone' in reader.audience.in) && wordsIn({ ...reader.audience, outOf: [] }).length === 0;
    return [
      ...(reader.name.trim() === ''
        ? [at('name', said('workshopErrors:readerNoName'), said('workshopErrors:nameReader'))]
        : []),
      ...(meansNobody
        ? [at('audience', said('workshopErrors:ruleForNobody', told), said('workshopErrors:chooseAudience'))]
        : []),
      ...(unreadable
        ? [
            at(
              'when',
              said('workshopErrors:readerUnreadable', { ...told, message: unreadable.message }),
              said('workshopErrors:mendCondition'),
            ),
          ]
        : []),
      ...(unreadable ? [] : readerTells(db, register, asWritten(register, draft), reader.when)).map((field) =>
        at(
          'when',
          said('workshopErrors:readerTells', { ...told, field }),
          said('workshopErrors:askSomethingElse', { field }),
        ),
      ),
    ];
  });
}

/** The labels of fields that a condition on whole requests asks for, and that are hidden from anybody of the desk on any. */
function readerTells(db: Reader, register: RegisterRow, plan: AccessPlan, when: string): readonly string[] {
  const names = namesIn(when);
  const fields = fieldsFor(db, register);
  return [
    ...new Set(
      protectionsBy(db, register, plan, fields).flatMap((protection) => {
        const open = openFields(protection);
        return fields.flatMap((field) => (names.includes(field.key) && !open.includes(field) ? [field.label] : []));
      }),
    ),
  ];
}

/** Exceptions that name nothing, or a stage that is not there. */
function exceptionProblems({ stages }: RegisterRow, rule: AccessRule): Told['problems'] {
  const known = new Set(stages.map(({ key }) => key));
  return (rule.exceptions ?? []).flatMap((exception, index) => {
    const at = `exception ${exception.id}`;
    const told = { rule: called(rule), number: index + 1 };
    const { activities, stages: named, when } = exception;
    const isNamed = [activities, named].some((list) => list && list.length > 0) || when?.trim();
    const isEmpty = !isNamed || activities?.length === 0 || named?.length === 0 || when?.trim() === '';
    return [
      ...(isEmpty
        ? [wrong(rule, at, said('workshopErrors:exceptionAlways', told), said('workshopErrors:sayWhenExcepted'))]
        : []),
      ...(named?.some((stage) => !known.has(stage))
        ? [wrong(rule, at, said('workshopErrors:exceptionLostStage', told), said('workshopErrors:chooseStages'))]
        : []),
    ];
  });
}

/** Conditions that can’t be read, or would tell somebody of what is hidden from them. */
function tellingProblems(db: Reader, register: RegisterRow, plan: AccessPlan, of: AccessRule): Told['problems'] {
  // As it is written, with the spaces around its name taken off.
  const rule = plan.rules.find(({ id }) => id === of.id) ?? of;
  if (!rule.exceptions?.some(({ when }) => when)) return [];
  const { rules } = plan;
  const known = knownStanding(db, register);
  const names = wordNames(db, rules);
  const found = protectionsBy(db, register, plan, fieldsFor(db, register)).flatMap((protection) =>
    conditionProblems(rule, protection, known),
  );
  const once = new Map<string, Told['problems'][number]>();
  for (const each of found) {
    const told = { rule: called(rule) };
    switch (each.kind) {
      case 'unreadable':
        once.set(
          each.kind,
          wrong(
            rule,
            'exceptions',
            said('workshopErrors:exceptionUnreadable', { ...told, message: each.message }),
            said('workshopErrors:mendCondition'),
          ),
        );
        break;
      case 'too-many':
        once.set(
          each.kind,
          wrong(rule, 'exceptions', said('workshopErrors:planHangsOnTooMuch'), said('workshopErrors:fewerExceptions')),
        );
        break;
      case 'tells': {
        const field = each.field.label;
        const who = classTold(each.to, { rules }, [each.field.key], (word) => names.get(word) ?? word);
        once.set(
          each.field.key,
          wrong(
            rule,
            'exceptions',
            said('workshopErrors:exceptionTells', { ...told, field, who }),
            said('workshopErrors:askSomethingElse', { field }),
          ),
        );
      }
    }
  }
  return [...once.values()];
}

/** A rule as it is spoken of. */
const called = ({ name }: AccessRule): Words => name.trim() || said('workshopErrors:unnamedRule');

/** Whether a rule speaks of nobody, whoever may be in which group. */
const isNobody = ({ audience }: AccessRule): boolean =>
  !('everyone' in audience.in) && audience.requester !== 'in' && wordsIn({ ...audience, outOf: [] }).length === 0;

/** What comes of a plan as it is being written, at one stage or in one of the things that are done with requests. */
export function planGrid(db: Reader, key: string, of: GridOf): AnswerOf<'accessPlanGrid'> {
  return gridOf(db, registerNamed(db, key), rulesOf(designOf(db, key).draft.access), of);
}

/** Keeps a plan as it is being written. Nothing of it is in force. @throws Problem 412 when somebody was faster. */
export function keepPlan(
  house: House,
  viewer: Viewer,
  { key, version, plan }: { readonly key: string; readonly version: number; readonly plan: BodyOf<'keepAccessPlan'> },
): AnswerOf<'keepAccessPlan'> {
  return write(house, ({ tx, now }) => {
    const design = designOf(tx, key);
    const { noted: _, base: __, placed: ___, readers: ____, ...access } = design.draft.access;
    // What has its place keeps it, whatever was written when places were not known.
    const { placed } = registerNamed(tx, key).access;
    const content = { ...design.draft, access: { ...access, ...(placed ? { placed } : {}), ...plan } };
    const next = keepDraft<RegisterContent>(tx, design, { version, content }, { viewer, now });
    nameConditions(tx, { register: key, isDraft: true }, conditionsOf(content.access));
    const register = registerNamed(tx, key);
    return { version: next, ...told(tx, register, plan) };
  });
}

/** What putting the plan in force would change, for whom. */
export function planEffect(db: Reader, viewer: Viewer, key: string): AnswerOf<'accessPlanEffect'> {
  const register = registerNamed(db, key);
  const plan = planWritten(db, register);
  const after = { ...register, access: plan };
  return {
    ...whatChanges(db, register, after),
    asking: askingChanges(db, register, after),
    yours: ownChanges(db, viewer, register, after),
    mayNotOpen: mayNotOpen(db, viewer, register, plan),
  };
}

/**
 * The labels of fields that a plan opens further than somebody who puts it in force has them open; whoever made the
 * last change may take it back.
 */
function mayNotOpen(db: Reader, viewer: Viewer, register: RegisterRow, plan: AccessPlan): Words[] {
  const before = planBefore(db, register);
  if (before?.by === viewer.personId && isSame(before.plan, rulesOf(plan))) return [];
  const opens = (plan.readers ?? []).some((reader) => !register.access.readers?.some((each) => isSame(each, reader)));
  // Whoever lets others read whole requests reads all of them, or gives rights.
  const mayLet = viewer.rights.includes('rights') || rightsAt(viewer, register.id).includes('read:all');
  return [
    ...opensUnread(db, viewer, register, plan),
    ...(opens && !mayLet ? [said('workshopErrors:wholeRequests')] : []),
  ];
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
    const changes = changesOf(tx, register, rulesOf(plan));
    changePlan(tx, viewer, now, register, plan, { kind: 'put', changes, note: note.trim() });
    return { version: registerById(tx, register.id).version };
  });
}
