import { createHash } from 'node:crypto';
import type { AccessPlan } from '@tolvek/core/access';
import { allSteps, holdersPlanned } from '@tolvek/core/approval';
import {
  allQuestionsOf,
  type Edition,
  type Finding,
  type FormDesign,
  findingsOf,
  formsLedTo,
  namedBy,
  rostersNamed,
  type Surroundings,
  skillWord,
} from '@tolvek/core/form';
import { peopleIn } from '@tolvek/core/people';
import { requestScope } from '@tolvek/core/register';
import { allRows, allThatMayBe, followersIn, formulasIn, handlersIn, mayBe } from '@tolvek/core/routing';
import { LRUCache } from 'lru-cache';
import { abilityOf, skillsToAsk } from '../assignment/skills.ts';
import { doorsOf } from '../door/queries.ts';
import {
  allForms,
  currentRelease,
  type FormRow,
  formById,
  formNamed,
  formsOf,
  registerOfForm,
} from '../form/queries.ts';
import { sendsTexts } from '../notice/byText.ts';
import { groupsOf, membersOf, personById } from '../people/queries.ts';
import { canonicalJson } from '../platform/canonical.ts';
import { iso } from '../platform/clock.ts';
import { nowIn, type Reader } from '../platform/database.ts';
import { aTurn } from '../platform/turns.ts';
import { inWorker } from '../platform/workers.ts';
import { programNames } from '../program/queries.ts';
import { knownRegisters } from '../request/references.ts';
import { knownStanding } from '../request/standing.ts';
import { nextGap, rosterByKey } from '../roster/queries.ts';
import { deskOf, profileDesignOf } from '../settings/queries.ts';
import { vocabulariesFor } from '../vocabulary/queries.ts';
import { gotByNobody } from './gotByNobody.ts';
import { wordNames } from './plan.ts';
import { readByFollowers } from './readByFollowers.ts';
import { LOOK_THROUGH } from './tasks.ts';

/** What was found in a draft, with what stands for the content it was found in. */
export interface Found {
  readonly content: string;
  readonly findings: readonly Finding[];
}

/** By content, so that no draft is looked through twice while nothing in or around it changed. */
const kept = new LRUCache<string, readonly Finding[]>({ max: 500 });
/** Looks that are under way: who asks meanwhile waits for the same one. */
const underWay = new Map<string, Promise<readonly Finding[]>>();

/**
 * Signs of conditions, formulas and cells up to which a draft is looked through at once, on this
 * thread.
 */
const LIGHT = 1_500;

/** The plan in force for a form’s requests. */
const planOf = (db: Reader, formId: string): AccessPlan => registerOfForm(db, formId).access;

/** The fields that the drafts of other forms of the same register ask for. */
const askedElsewhere = (db: Reader, formId: string): readonly string[] =>
  formsOf(db, registerOfForm(db, formId).id)
    .filter((form) => form.id !== formId && form.deletedAt === null)
    .flatMap((form) => allQuestionsOf(form.draft).map((part) => part.field));

/** People whom a form names and who are not here any more. */
const strangersIn = (db: Reader, { approval, routing, notices }: FormDesign): readonly string[] => {
  const handlers = handlersIn(routing).flatMap(({ ways }) => ways);
  const named = [
    ...holdersPlanned(approval).flatMap((seat) => ('person' in seat ? [seat.person] : [])),
    ...handlers.flatMap((way) => (way.by === 'person' ? [way.person] : [])),
    ...followersIn(routing).flatMap((each) => ('person' in each ? [each.person] : [])),
    ...(notices?.rules ?? []).flatMap(({ to }) =>
      to.flatMap((each) => (typeof each === 'object' && 'person' in each ? [each.person] : [])),
    ),
  ];
  return [...new Set(named)].filter((id) => personById(db, id)?.active !== true);
};

/** People from outside whom an approval path asks: their names, and the groups they are in. */
export const outsidersIn = (
  db: Reader,
  approval: FormDesign['approval'],
): readonly { readonly key: string; readonly label: string; readonly groups: readonly string[] }[] =>
  [...new Set(holdersPlanned(approval).flatMap((seat) => ('person' in seat ? [seat.person] : [])))].flatMap((id) => {
    const person = personById(db, id);
    return person?.kind === 'contact' && person.active
      ? [{ key: id, label: person.name, groups: groupsOf(db, id) }]
      : [];
  });

/** Who is in the groups that an approval path asks, and in the teams of which somebody is made the handler. */
function membersAsked(db: Reader, { approval, routing, fields }: FormDesign): Surroundings['members'] {
  const groups = [
    ...holdersPlanned(approval).flatMap((seat) => ('group' in seat ? [seat.group] : [])),
    ...allRows(routing).flatMap((row) => (row.outcome.handler ? mayBe(row, 'team', () => requestScope(fields)) : [])),
  ];
  return Object.fromEntries(groups.map((group) => [group, membersOf(db, group).map(({ id }) => id)]));
}

/** Who has the skills today that rules of handlers ask for; null where the desk does not say where skills are kept. */
function skillsAsked(db: Reader, { routing, fields }: FormDesign): Surroundings['skills'] {
  const asked = handlersIn(routing).flatMap(({ ways }) => ways.filter((way) => way.by === 'skill'));
  if (asked.length === 0) return undefined;
  const known = skillsToAsk(db);
  if (!known) return null;
  const teams = allThatMayBe(routing, 'team', () => requestScope(fields));
  const ids = [...new Set([...teams].flatMap((team) => membersOf(db, team).map(({ id }) => id)))];
  const can = abilityOf(db, ids, nowIn(db));
  return {
    known: known.map(({ key }) => key),
    able: Object.fromEntries(asked.map((way) => [skillWord(way), ids.filter((id) => can(id, way))])),
  };
}

/** The rosters that a form asks, and when each will have nobody on duty first. */
const rostersAsked = (db: Reader, design: FormDesign): Surroundings['rosters'] =>
  Object.fromEntries(
    [...new Set(rostersNamed(design).map(({ key }) => key))].flatMap((key) => {
      const roster = rosterByKey(db, key)?.draft;
      if (!roster) return [];
      const gap = nextGap(db, roster, nowIn(db));
      return [[key, { name: roster.name, gap: gap && iso(gap.from) }]];
    }),
  );

/** What findings depend on besides the draft. */
function aroundOf(db: Reader, formId: string, design: FormDesign): Surroundings {
  return {
    groups: wordNames(db, planOf(db, formId).rules),
    strangers: strangersIn(db, design),
    members: membersAsked(db, design),
    outsiders: outsidersIn(db, design.approval),
    skills: skillsAsked(db, design),
    rosters: rostersAsked(db, design),
    programs: programNames(db).map(({ key }) => key),
    texts: sendsTexts(db),
    stages: registerOfForm(db, formId).stages.flatMap(({ key, retired }) => (retired ? [] : [{ key }])),
    plan: planOf(db, formId),
    form: formId,
    outside: doorsOf(db, formId).some((door) => door.kind === 'outside'),
    askedElsewhere: askedElsewhere(db, formId),
    holds: registerOfForm(db, formId).holds,
    vocabularies: vocabulariesFor(db, design.fields),
    profile: profileDesignOf(db).fields,
    registers: knownRegisters(db, namedBy(design).registers),
    ...(design.editions?.length ? { editions: editionsAround(db, formId, design.editions) } : {}),
  };
}

/** What editions name of the house. */
function editionsAround(db: Reader, formId: string, editions: readonly Edition[]): Surroundings['editions'] {
  const register = registerOfForm(db, formId);
  const people = new Set(editions.flatMap(({ audience }) => peopleIn(audience)));
  return {
    stages: register.stages.flatMap(({ key, label, retired }) => (retired ? [] : [{ key, label }])),
    form: formById(db, formId)?.key ?? '',
    forms: leadingForms(db),
    hosts: deskOf(db).hosts ?? [],
    gone: [...people].filter((id) => !personById(db, id)?.active),
    known: knownStanding(db, register),
  };
}

/** Forms in use, and the others to which their editions in force lead. */
const leadingForms = (db: Reader) =>
  allForms(db).flatMap((form) => {
    const release = currentRelease(db, form);
    const { key, draft } = form;
    return release ? [{ key, title: draft.title, leads: formsLedTo(release.design.editions ?? []) }] : [];
  });

/** What stands for things that never change: a list of forms reads many of them again and again. */
const digests = new WeakMap<object, string>();

function digestOf(value: object): string {
  let digest = digests.get(value);
  if (digest === undefined) {
    digest = createHash('sha256').update(canonicalJson(value)).digest('base64url');
    if (Object.isFrozen(value)) digests.set(value, digest);
  }
  return digest;
}

const contentOf = (
  design: FormDesign,
  {
    groups,
    strangers,
    members,
    outsiders,
    skills,
    rosters,
    programs,
    texts,
    stages,
    plan,
    form,
    outside,
    askedElsewhere,
    holds,
    vocabularies,
    registers,
    profile,
    editions,
    ...rest
  }: Surroundings,
): string => {
  // Whatever findings may one day depend on besides has to stand here too.
  const nothingElse: Record<string, never> = rest;
  return digestOf([
    digestOf(design),
    [...groups].sort(),
    strangers ?? [],
    members ?? {},
    outsiders ?? [],
    skills ?? null,
    rosters ?? {},
    programs ?? [],
    texts ?? null,
    stages ?? [],
    digestOf(plan),
    form,
    outside,
    askedElsewhere ?? [],
    holds ?? null,
    vocabularies.map(({ key, name, terms }) => [key, name, digestOf(terms)]),
    digestOf(profile ?? []),
    editions ?? null,
    registers.map(({ fields, ...others }) => [digestOf(fields), others]),
    nothingElse,
  ]);
};

/** Whether a draft has so little to reason about that a look is over in a moment. */
function isLight({ fields, rules, routing, approval, editions = [] }: FormDesign): boolean {
  const written = [
    ...rules.map((rule) => rule.when),
    ...routing.rows.flatMap((row) => Object.values(row.cells)),
    ...formulasIn(routing),
    ...fields.flatMap((field) => (field.source === 'computed' ? [field.formula] : [])),
    ...editions.map((edition) => edition.when),
    ...allSteps(approval).map(({ when = '' }) => when),
  ];
  return written.reduce((length, text) => length + text.length, 0) <= LIGHT;
}

/** What stands for a draft and all around it that findings depend on. */
export const draftContent = (db: Reader, formId: string, design: FormDesign): string =>
  contentOf(design, aroundOf(db, formId, design));

/**
 * Looks through a draft, or takes what was found before; a heavy one is looked through in a thread.
 */
export async function findingsFor(db: Reader, formId: string, design: FormDesign): Promise<Found> {
  const found = await inTheDraft(db, formId, design);
  return { ...found, findings: [...found.findings, ...amongPeople(db, formId, design, found.findings)] };
}

/** What is found by looking at everybody, where the draft itself does not say it of the same edition already. */
function amongPeople(db: Reader, formId: string, design: FormDesign, found: readonly Finding[]): readonly Finding[] {
  const form = formById(db, formId);
  const isSaid = ({ at }: Finding): boolean =>
    found.some(({ at: there, message }) => there === at && typeof message !== 'string' && SAYS_NOBODY.has(message.say));
  if (!form) return [];
  return [...gotByNobody(db, form, design).filter((each) => !isSaid(each)), ...readByFollowers(db, form, design)];
}

const SAYS_NOBODY: ReadonlySet<string> = new Set(['findings:editionNever', 'findings:editionNobody']);

/** What is found in a draft by what is in it and around it. */
async function inTheDraft(db: Reader, formId: string, design: FormDesign): Promise<Found> {
  const around = aroundOf(db, formId, design);
  const content = contentOf(design, around);
  const known = kept.get(content);
  if (known) return { content, findings: known };
  if (isLight(design)) {
    const findings = findingsOf(design, around);
    kept.set(content, findings);
    return { content, findings };
  }
  let look = underWay.get(content);
  if (!look) {
    look = inWorker(LOOK_THROUGH, { design, around }).finally(() => underWay.delete(content));
    underWay.set(content, look);
  }
  const findings = await look;
  kept.set(content, findings);
  return { content, findings };
}

/** What is found in the draft of a form as it stands. */
export async function findingsOfForm(db: Reader, key: string): Promise<Found> {
  const form = formNamed(db, key);
  return findingsFor(db, form.id, form.draft);
}

/**
 * How many findings a draft has, as far as it was looked through; null otherwise, and the look
 * begins. A list of forms waits for none.
 */
export function countOfFindings(db: Reader, form: FormRow): number | null {
  const known = kept.get(contentOf(form.draft, aroundOf(db, form.id, form.draft)));
  if (!known)
    aTurn('long work')
      .then(() => findingsFor(db, form.id, form.draft))
      .catch(() => undefined);
  return known ? known.length + amongPeople(db, form.id, form.draft, known).length : null;
}
