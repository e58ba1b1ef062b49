import { said, type Words } from '@tolvek/words';
import { allSteps, seatsPlanned } from '../../approval/index.ts';
import { deadlineName, fieldsOfDeadlines, formulasIn } from '../../deadline/index.ts';
import { placeholdersIn } from '../../design/index.ts';
import { namesIn } from '../../expression/index.ts';
import { isFilled, type ProfileField, requestScope } from '../../register/index.ts';
import {
  followersIn,
  handlersIn,
  missedOptions,
  routingFindings,
  formulasIn as routingFormulas,
  wishesIn,
} from '../../routing/index.ts';
import { type FormDesign, partKey, questionsOf } from '../design.ts';
import { isReferring } from '../offers.ts';
import { presetReads } from '../presets.ts';
import { approvalFindings, type Outsider } from './approval.ts';
import { deadlineFindings } from './deadlines.ts';
import { type EditionsAround, editionFindings } from './editions.ts';
import { fieldFindings } from './fields.ts';
import type { Add, Finding } from './finding.ts';
import { flowFindings, type Guarded, unplacedFindings } from './flow.ts';
import { handlerFindings, type RostersAround, type SkillsAround } from './handlers.ts';
import { knownFindings } from './known.ts';
import { type Named, namedFindings } from './named.ts';
import { noticeFields, noticeFindings } from './notices.ts';
import { publicNameFindings } from './publicNames.ts';
import { retiredFindings } from './retired.ts';
import { ruleFindings } from './rules.ts';
import { translationFindings } from './translations.ts';
import { updatesFindings } from './updates.ts';

/** What of the house a draft is checked against. */
export interface Surroundings extends Named, Guarded {
  /** The groups that exist: names by key. */
  readonly groups: ReadonlyMap<string, Words>;
  /** Ids of people that the approval path asks and who are not here any more. */
  readonly strangers?: readonly string[];
  /** Ids of those who can decide for each group that the approval path asks; nothing is found in how many when not said. */
  readonly members?: Readonly<Record<string, readonly string[]>>;
  /** People from outside whom the approval path asks; nothing is found of them when not said. */
  readonly outsiders?: readonly Outsider[];
  /** Whether the form has a door for people from outside. */
  readonly outside: boolean;
  /** Keys of fields that other forms of the register ask for. */
  readonly askedElsewhere?: readonly string[];
  /** The fields of people’s profiles, which conditions may read. */
  readonly profile?: readonly ProfileField[];
  /** The stages of the register, and what conditions of editions name; nothing is found in editions without. */
  readonly editions?: Omit<EditionsAround, 'groups'>;
  /** The stages of the register where requests can be; nothing is found in stages when not said. */
  readonly stages?: readonly { readonly key: string }[];
  /** Things are neither routed nor decided: nothing is found in how they would be. */
  readonly holds?: 'requests' | 'things';
  /** Who can do what rows ask for; null where the desk does not say where that is kept. Nothing is found in it when not said. */
  readonly skills?: SkillsAround | null | undefined;
  /** The rosters that the draft names; nothing is found in them when not said. */
  readonly rosters?: RostersAround | undefined;
  /** Whether the desk can send text messages; nothing is found of it when not said. */
  readonly texts?: boolean | undefined;
  /** The programs that can be told, by key; nothing is found in them when not said. */
  readonly programs?: readonly string[] | undefined;
}

/** All that is wrong or doubtful in a draft, errors first. */
export function findingsOf(
  design: FormDesign,
  {
    groups,
    strangers = [],
    members,
    outsiders = [],
    outside,
    askedElsewhere = [],
    holds,
    vocabularies,
    registers,
    plan,
    form,
    profile = [],
    editions,
    skills,
    rosters,
    programs,
    texts,
    stages = editions?.stages,
  }: Surroundings,
): readonly Finding[] {
  const scope = requestScope(design.fields, { vocabularies, profile });
  const found: Finding[] = [];
  const add: Add = (severity, page, at, message, fix, of) =>
    void found.push({ severity, page, at, message, ...(of ? { of } : {}), ...(fix ? { fix } : {}) });

  if (design.title.trim() === '') add('error', 'questions', 'title', said('findings:noTitle'));
  if (questionsOf(design.parts).length === 0) add('error', 'questions', 'title', said('findings:noQuestion'));
  for (const key of placeholdersIn(design.subject)) {
    if (!design.fields.some((field) => field.key === key))
      add('error', 'questions', 'subject', said('findings:nameMissesField', { field: key }));
  }
  fieldFindings(design, scope, new Set([...namesUsed(design), ...askedElsewhere]), add);
  namedFindings(design, { vocabularies, registers }, outside, add);
  partFindings(design, { groups, outside }, add);
  ruleFindings(design, scope, add);
  retiredFindings(design, vocabularies, add);
  updatesFindings(design, outside, add);
  knownFindings(design, { profile, outside, scope }, add);
  publicNameFindings(design, { plan, outside, askedElsewhere }, add);
  if (editions) editionFindings(design, scope, { ...editions, groups }, add);
  for (const unique of design.unique) {
    if (unique.fields.length === 0 || unique.fields.some((key) => !design.fields.some((field) => field.key === key)))
      add('error', 'questions', unique.id, said('findings:uniqueMissesField'));
  }
  for (const problem of routingFindings(design.routing, scope, {
    groups: new Set(groups.keys()),
    paths: new Set(design.approval.paths.map(({ id }) => id)),
    stages: stages && new Set(stages.map(({ key }) => key)),
    deadlines: new Map(design.deadline.deadlines.map((rule) => [rule.key, deadlineName(rule)])),
  }))
    add(problem.severity, 'routing', problem.row, problem.message);
  for (const { column, label, option } of missedOptions(design.routing, scope)) {
    add('caution', 'routing', 'otherwise', said('findings:optionWithoutRow', { option: option.label, label }), {
      fix: 'add-row',
      column,
      option: option.key,
    });
  }
  handlerFindings(design, { scope, groups, strangers, members, skills, rosters }, add);
  approvalFindings(design, { scope, groups, strangers, members, profile, rosters, outsiders, plan }, add);
  deadlineFindings(design, { scope, groups, stages, rosters }, add);
  noticeFindings(design, { scope, groups, strangers, stages, outside, rosters, programs, texts }, add);
  found.push(...flowFindings(design, { plan, form }, groups), ...unplacedFindings(design, plan));
  translationFindings(design, vocabularies, add);
  const counted = holds === 'things' ? found.filter(({ page }) => page !== 'routing' && page !== 'approval') : found;
  return counted.sort((a, b) => Number(a.severity === 'caution') - Number(b.severity === 'caution'));
}

function partFindings(
  design: FormDesign,
  { groups, outside }: Pick<Surroundings, 'groups' | 'outside'>,
  add: Add,
): void {
  const keys = new Set<string>();
  for (const part of design.parts) {
    const key = partKey(part);
    if (keys.has(key))
      add(
        'error',
        'questions',
        key,
        part.part === 'question' ? said('findings:fieldTwice') : said('findings:partTwice'),
      );
    keys.add(key);
    if ((part.part === 'section' || part.part === 'page') && part.title.trim() === '')
      add('caution', 'questions', key, said(part.part === 'page' ? 'findings:pageNoTitle' : 'findings:sectionNoTitle'));
    if (part.part === 'instruction') {
      if (part.text.trim() === '') add('caution', 'questions', key, said('findings:emptyText'));
      for (const name of placeholdersIn(part.text)) {
        if (!design.fields.some((field) => field.key === name))
          add('error', 'questions', key, said('findings:textMissesField', { field: name }));
      }
    }
    const field = part.part === 'question' ? design.fields.find((each) => each.key === part.field) : undefined;
    if (part.part === 'question' && !field) add('error', 'questions', key, said('findings:questionMissesField'));
    if (field?.type.kind === 'person' || field?.type.kind === 'people') {
      if (outside) add('caution', 'questions', key, said('findings:staffPicker', { label: field.label }));
      const gone = field.type.from.find((group) => !groups.has(group));
      if (gone !== undefined) add('error', 'questions', key, said('findings:pickerLostGroup', { label: field.label }));
    }
  }
}

/**
 * Fields that something besides a question reads: a rule, a formula, a default, the routing table,
 * the subject.
 */
export function namesUsed(design: FormDesign): ReadonlySet<string> {
  const actions = design.rules.flatMap((rule) => [...rule.then, ...rule.otherwise]);
  return new Set([
    ...design.rules.flatMap((rule) => namesIn(rule.when)),
    ...actions.flatMap((action) =>
      action.do === 'set'
        ? [action.field, ...namesIn(action.value)]
        : 'fields' in action
          ? action.fields
          : 'field' in action
            ? [action.field]
            : [],
    ),
    ...design.fields.flatMap((field) =>
      field.source === 'computed'
        ? namesIn(field.formula)
        : field.source === 'carried'
          ? [field.reference]
          : isFilled(field) && field.preset
            ? [...presetReads(field.preset), field.key]
            : [],
    ),
    ...design.fields.flatMap((field) =>
      isReferring(field.type) && field.type.offered ? namesIn(field.type.offered) : [],
    ),
    ...design.fields.flatMap((field) =>
      'notBefore' in field.type && field.type.notBefore ? [field.type.notBefore] : [],
    ),
    ...design.routing.columns.flatMap((column) => namesIn(column.input)),
    ...handlersIn(design.routing).flatMap(({ ways }) => ways.flatMap((way) => (way.by === 'field' ? [way.field] : []))),
    ...followersIn(design.routing).flatMap((each) => ('field' in each ? [each.field] : [])),
    ...routingFormulas(design.routing).flatMap((text) => namesIn(text)),
    ...wishesIn(design.routing),
    ...design.approval.paths.flatMap(({ again = [] }) => again),
    ...allSteps(design.approval).flatMap((step) => [
      ...(step.when === undefined ? [] : namesIn(step.when)),
      ...seatsPlanned(step).flatMap((seat) => ('field' in seat ? [seat.field] : [])),
    ]),
    ...formulasIn(design.deadline).flatMap((text) => namesIn(text)),
    ...fieldsOfDeadlines(design.deadline),
    ...noticeFields(design),
    ...design.unique.flatMap((unique) => unique.fields),
    ...placeholdersIn(design.subject),
    ...(design.editions ?? []).flatMap(({ when, differences }) => [
      ...namesIn(when),
      ...differences.flatMap((each) => (each.does === 'preset' && each.preset ? presetReads(each.preset) : [])),
    ]),
  ]);
}
