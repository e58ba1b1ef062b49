import type { BodyOf } from '@tolvek/contract';
import {
  type AccessPlan,
  type AccessRule,
  circumstancesOf,
  type Disclosure,
  deskRelation,
  openedBy,
  type Protection,
  placedByName,
  planned,
  prepareAccess,
  RANK,
} from '@tolvek/core/access';
import { isSame } from '@tolvek/core/design';
import { conditionFindings, conditionInWords, parseExpression, type Scope } from '@tolvek/core/expression';
import {
  type Allowance,
  broughtFindings,
  type Finding,
  type FormDesign,
  type FormSink,
  flowFindings,
  namedBy,
  protectionOf,
  REGISTER,
  type RegisterContent,
  sinksOf,
} from '@tolvek/core/form';
import { groupsIn, inRegister, peopleIn, profileConditionsIn, type Viewer } from '@tolvek/core/people';
import { type Field, fieldKeyOf, partsOf, personScope } from '@tolvek/core/register';
import { refused, type Said, said, type Words } from '@tolvek/words';
import { desc, eq } from 'drizzle-orm';
import { keepDraft } from '../design/commands.ts';
import { designByKey } from '../design/queries.ts';
import { allForms, currentRelease, type FormRow, formNamed, formsOf, onShelf } from '../form/queries.ts';
import { groupNames, knownNames, namesOf, personById } from '../people/queries.ts';
import { iso } from '../platform/clock.ts';
import type { Reader, Transaction } from '../platform/database.ts';
import type { House } from '../platform/house.ts';
import { once } from '../platform/idempotency.ts';
import { newId } from '../platform/newId.ts';
import { notAllowed, notFound, Problem, wrongFields } from '../platform/problem.ts';
import { write } from '../platform/work.ts';
import { changeRegister } from '../register/commands.ts';
import { type RegisterRow, registerById } from '../register/queries.ts';
import { type PlanChanges, type PlanEvent, planHistory } from '../register/tables.ts';
import { closedElsewhere } from '../request/protection.ts';
import { readAll } from '../request/readings.ts';
import { knownRegisters } from '../request/references.ts';
import { profileDesignOf } from '../settings/queries.ts';
import { allVocabularies } from '../vocabulary/queries.ts';

const kept = new WeakMap<AccessPlan, WeakMap<FormDesign, readonly Finding[]>>();

/** The names that conditions on profiles use. */
const profileScope = (db: Reader): Scope =>
  personScope(profileDesignOf(db).fields, { ...knownNames(db), vocabularies: allVocabularies(db) });

/** What the words are called that rules name: groups by key, and people. */
export function wordNames(db: Reader, rules: readonly Pick<AccessRule, 'audience'>[]): ReadonlyMap<string, Words> {
  const people = namesOf(
    db,
    rules.flatMap((rule) => peopleIn(rule.audience)),
  );
  const conditions = rules.flatMap((rule) => profileConditionsIn(rule.audience));
  // All people and vocabularies are read for it: only where a condition is to be said.
  const scope = conditions.length > 0 ? profileScope(db) : undefined;
  return new Map<string, Words>([
    ...groupNames(db),
    ...[...people].map(([id, name]) => [`@${id}`, name] as const),
    ...conditions.map((condition) => {
      const parsed = parseExpression(condition);
      const told = parsed.ok && scope ? conditionInWords(parsed.value, scope) : condition;
      return [`?${condition}`, said('people:whoMeets', { condition: told })] as const;
    }),
  ]);
}

/** What a form in force tells to somebody who may not read it, as a plan has it. */
export function waysBy(
  db: Reader,
  plan: AccessPlan,
  release: { readonly formId: string; readonly design: FormDesign },
): readonly Finding[] {
  const byDesign = kept.get(plan) ?? new WeakMap<FormDesign, readonly Finding[]>();
  kept.set(plan, byDesign);
  let found = byDesign.get(release.design);
  if (!found) {
    found = flowFindings(release.design, { plan, form: release.formId }, wordNames(db, plan.rules));
    byDesign.set(release.design, found);
  }
  return found;
}

/** What a form in force shows, asks by or brings along of other registers, which close it by now. */
function broughtBy(db: Reader, { design }: { readonly design: FormDesign }): readonly Finding[] {
  const names = namedBy(design).registers;
  return names.length === 0 ? [] : broughtFindings(design, knownRegisters(db, names));
}

/** What the release in force of a form tells to somebody who may not read it. */
export function waysInForce(
  db: Reader,
  form: Pick<FormRow, 'id' | 'release'>,
  register: RegisterRow,
): readonly Finding[] {
  const release = currentRelease(db, form);
  return release ? [...waysBy(db, register.access, release), ...broughtBy(db, release)] : [];
}

/** How many such ways the forms in force have, all together. */
export const countOfWays = (db: Reader): number =>
  allForms(db).reduce((sum, form) => sum + waysInForce(db, form, registerById(db, form.registerId)).length, 0);

/** What names groups or people that are not here: such a rule would protect, or open, nobody knows what. */
export function planProblems(db: Reader, rules: readonly Pick<AccessRule, 'name' | 'audience'>[]) {
  const groups = groupNames(db);
  const hasConditions = rules.some((rule) => profileConditionsIn(rule.audience).length > 0);
  const scope = hasConditions ? profileScope(db) : undefined;
  // Whose record became another’s is that other person by now.
  const isHere = (id: string): boolean => personById(db, id)?.mergedInto === null;
  const lost = (message: Said, fix: Said) => ({ field: 'access', message, fix });
  return rules.flatMap((rule) => [
    ...groupsIn(rule.audience)
      .filter((group) => !groups.has(group))
      .map((group) =>
        lost(said('workshopErrors:ruleLostGroup', { rule: rule.name, group }), said('workshopErrors:replaceGroup')),
      ),
    ...peopleIn(rule.audience)
      .filter((id) => !isHere(id))
      .map(() =>
        lost(said('workshopErrors:ruleLostPerson', { rule: rule.name }), said('workshopErrors:replacePerson')),
      ),
    ...profileConditionsIn(rule.audience)
      .flatMap((condition) => (scope ? conditionFindings(condition, scope).slice(0, 1) : []))
      .map(({ message }) =>
        lost(
          said('workshopErrors:ruleConditionUnreadable', { rule: rule.name, message }),
          said('workshopErrors:mendCondition'),
        ),
      ),
  ]);
}

/**
 * Changes the access plan of a register, which is in force at once.
 *
 * @throws Problem 422 when a form in force would tell more than before to somebody who may not read
 *   it.
 */
export function changePlan(
  tx: Transaction,
  viewer: Viewer,
  now: number,
  register: RegisterRow,
  plan: AccessPlan,
  event: PlanEvent,
): void {
  const opened = formsOf(tx, register.id).flatMap((form) => {
    const release = currentRelease(tx, form);
    if (!release) return [];
    const before = new Set(waysBy(tx, register.access, release).map(wayKey));
    return waysBy(tx, plan, release).filter((way) => !before.has(wayKey(way)));
  });
  // What was allowed can always be ended: it is withheld from then on.
  if (opened.length > 0 && event.kind !== 'ended')
    throw wrongFields(
      opened.map(({ at, message }) => ({
        field: at,
        message,
        fix: said('workshopErrors:changeOrAllow'),
      })),
    );
  const note = event.kind === 'allowed' ? event.way.reason : '';
  const access = placedByName(plan);
  changeRegister(tx, register, { access }, note, { viewer, now });
  if (!isSame(access.readers ?? [], register.access.readers ?? []))
    readAll(tx, { ...registerById(tx, register.id), access });
  rememberPlan(tx, viewer, now, register.id, event);
}

export const wayKey = ({ allow }: { readonly allow?: Allowance }): string =>
  JSON.stringify([allow?.sink, allow?.text, allow?.source]);

/** Adds to what happened to a plan. */
export function rememberPlan(tx: Transaction, viewer: Viewer, now: number, registerId: string, event: PlanEvent): void {
  tx.insert(planHistory).values({ id: newId(), registerId, at: now, actorId: viewer.personId, event }).run();
}

const opened = (tx: Reader, key: string): { form: FormRow; register: RegisterRow } => {
  const form = formNamed(tx, key);
  return { form, register: registerById(tx, form.registerId) };
};

/** Every place of a form’s draft and of its release in force. */
function placesOf(db: Reader, form: FormRow): readonly FormSink[] {
  const release = currentRelease(db, form);
  return [...sinksOf(form.draft), ...(release ? sinksOf(release.design) : [])];
}

const labelOf = ({ draft }: FormRow, register: RegisterRow, key: string): string =>
  partsOf([...draft.fields, ...register.fields]).find((field) => field.key === key)?.label ?? key;

const together = new WeakMap<FormDesign, WeakMap<RegisterRow['fields'], readonly Field[]>>();

/** The fields of a draft, then those that only its register still has; the same list for the same two. */
function fieldsOf({ draft }: FormRow, { fields }: RegisterRow): readonly Field[] {
  const known = together.get(draft) ?? new WeakMap<RegisterRow['fields'], readonly Field[]>();
  together.set(draft, known);
  const found = known.get(fields) ?? [
    ...draft.fields,
    ...fields.filter((field) => !draft.fields.some((each) => each.key === field.key)),
  ];
  known.set(fields, found);
  return found;
}

/** The fields that a plan can speak of: its register’s, and those that drafts of its forms add. */
export function fieldsFor(db: Reader, register: RegisterRow): readonly Field[] {
  const added = onShelf(db, register.id).flatMap(({ draft }) => draft.fields);
  return [...new Map([...register.fields, ...added].map((field) => [field.key, field])).values()];
}

/**
 * The labels of fields that a plan opens to anybody further than somebody has them open on requests they work on.
 * Whoever gives rights may open all: they could take the place of those who read.
 */
export function opensUnread(db: Reader, viewer: Viewer, register: RegisterRow, plan: AccessPlan): string[] {
  if (viewer.rights.includes('rights')) return [];
  const fields = partsOf(fieldsFor(db, register));
  // What gets its place is opened no further than its rules say: it had none of its own before.
  const before = plan.placed ? { ...register.access, placed: plan.placed } : register.access;
  const opened = openedBy(before, plan, fields);
  const who = inRegister(viewer, register.id);
  // As far as they have it open on any request, whatever becomes of it.
  const circumstances = circumstancesOf(before.rules) ?? [];
  const desk = deskRelation(viewer, register.id);
  const unread = fields.filter((field) => {
    const level = opened.get(field.key);
    const has = Math.min(
      ...circumstances.map((at) => RANK[planned(field, before, who, desk, at).level]),
      circumstances.length > 0 ? RANK.write : RANK.hidden,
    );
    return level !== undefined && RANK[level] > has;
  });
  // Lines are told of as one.
  return unread.flatMap(({ key, label }) => {
    const lines = fieldKeyOf(key);
    return lines !== key && unread.some((each) => each.key === lines) ? [] : [label];
  });
}

/** What would protect the fields of requests that came by a draft. */
export const protectionOfDraft = (db: Reader, form: FormRow, register: RegisterRow): Protection =>
  protectionOf(register.access, {
    fields: fieldsOf(form, register),
    release: { form: form.id, design: form.draft },
    closed: closedElsewhere(db, register),
  });

/** The fields that a viewer may read on requests of a form that are not their own. */
export function readBy(db: Reader, form: FormRow, register: RegisterRow, viewer: Viewer): readonly string[] {
  const protection = protectionOfDraft(db, form, register);
  return [
    ...prepareAccess(protection)({ viewer, relation: deskRelation(viewer, register.id), purpose: 'sheet', at: null })
      .readable,
  ];
}

/**
 * Allows one way of a value on purpose. Who allows it has to be able to read what it tells of, and
 * to say why; the way has to be one that was found.
 */
export function allowWay(
  house: House,
  viewer: Viewer,
  formKey: string,
  input: BodyOf<'allowWay'>,
  key: string,
): { id: string } {
  return write(house, ({ tx, now }) => {
    const { form, register } = opened(tx, formKey);
    return once(tx, { key, scope: `allow ${form.id} ${viewer.personId}`, content: input, now }, () => {
      if (!readBy(tx, form, register, viewer).includes(input.source))
        throw notAllowed(refused('allowNeedsReader', { field: labelOf(form, register, input.source) }));
      if (input.reason === '')
        throw wrongFields([
          {
            field: 'reason',
            message: said('workshopErrors:sayWhy'),
            fix: said('workshopErrors:oneSentence'),
          },
        ]);
      const release = currentRelease(tx, form);
      const found = [
        ...flowFindings(form.draft, { plan: register.access, form: form.id }, wordNames(tx, register.access.rules)),
        ...(release ? waysBy(tx, register.access, release) : []),
      ].some(({ allow }) => allow && wayKey({ allow }) === wayKey({ allow: input }) && allow.what === input.what);
      if (!found) throw new Problem(409, 'changed-meanwhile', refused('findingGone'));
      const { reason, sink, text, source, what } = input;
      const way: Disclosure = {
        id: newId(),
        form: form.id,
        sink,
        text,
        source,
        what,
        reason,
        by: viewer.personId,
        at: now,
      };
      const plan = { ...register.access, disclosures: [...(register.access.disclosures ?? []), way] };
      changePlan(tx, viewer, now, register, plan, {
        kind: 'allowed',
        way,
        words: wordsOf(placesOf(tx, form), form, register, way),
      });
      return { id: way.id };
    });
  });
}

/** Ends what was allowed on purpose: it is withheld again from whoever may not read it. */
export function endWay(house: House, viewer: Viewer, formKey: string, id: string): void {
  write(house, ({ tx, now }) => {
    const { form, register } = opened(tx, formKey);
    const disclosures = register.access.disclosures ?? [];
    const way = disclosures.find((each) => each.id === id && each.form === form.id);
    if (!way) throw notFound('allowance');
    const plan = { ...register.access, disclosures: disclosures.filter((each) => each !== way) };
    changePlan(tx, viewer, now, register, plan, {
      kind: 'ended',
      way,
      words: wordsOf(placesOf(tx, form), form, register, way),
    });
  });
}

/** Lets every rule that protects a field by name protect another as well. */
export function protectAlike(
  house: House,
  viewer: Viewer,
  formKey: string,
  { source, field }: BodyOf<'protectAlike'>,
): void {
  write(house, ({ tx, now }) => {
    const { form, register } = opened(tx, formKey);
    if (![...form.draft.fields, ...register.fields].some((each) => each.key === field)) throw notFound('field');
    const rules = register.access.rules.map((rule) =>
      rule.fields !== 'all' && rule.fields.includes(source) && !rule.fields.includes(field)
        ? { ...rule, fields: [...rule.fields, field] }
        : rule,
    );
    if (rules.every((rule, index) => rule === register.access.rules[index])) throw notFound('protectingRule');
    const plan = { ...register.access, rules };
    const unread = opensUnread(tx, viewer, register, plan);
    if (unread.length > 0) throw notAllowed(refused('opensUnread', { fields: unread }));
    changePlan(tx, viewer, now, register, plan, { kind: 'protected', field, like: source });
  });
}

/**
 * Gives fields their place in the plan: from then on its rules say who reads and changes them, and where none does, what
 * holds besides. In force at once.
 */
export function placeFields(house: House, viewer: Viewer, formKey: string, { fields }: BodyOf<'placeFields'>): void {
  write(house, ({ tx, now }) => {
    const { register } = opened(tx, formKey);
    const known = fieldsFor(tx, register);
    if (fields.some((key) => known.every((field) => field.key !== key))) throw notFound('field');
    const { placed } = register.access;
    const fresh = fields.filter((key) => placed && !placed.includes(key));
    if (!placed || fresh.length === 0) return;
    const plan = { ...register.access, placed: [...placed, ...fresh] };
    const unread = opensUnread(tx, viewer, register, plan);
    if (unread.length > 0) throw notAllowed(refused('opensUnread', { fields: unread }));
    changePlan(tx, viewer, now, register, plan, { kind: 'placed', fields: fresh });
    // What is being written has them in their place as well.
    const design = designByKey<RegisterContent>(tx, REGISTER, register.key);
    if (!design) return;
    const { access } = design.draft;
    const missing = fresh.filter((key) => access.placed && !access.placed.includes(key));
    if (!access.placed || missing.length === 0) return;
    const content = { ...design.draft, access: { ...access, placed: [...access.placed, ...missing] } };
    keepDraft(tx, design, { version: design.version, content }, { viewer, now });
  });
}

function wordsOf(
  places: readonly FormSink[],
  form: FormRow,
  register: RegisterRow,
  { sink, source, what }: Pick<Disclosure, 'sink' | 'source' | 'what'>,
): Said {
  const field = labelOf(form, register, source);
  return places.find((each) => each.id === sink)?.says(field, what) ?? said('workshopErrors:placeGone', { field });
}

/** What was allowed for a form, and what happened to the plan of its register, the newest first. */
export function planView(db: Reader, form: FormRow, register: RegisterRow) {
  const events = db
    .select()
    .from(planHistory)
    .where(eq(planHistory.registerId, register.id))
    .orderBy(desc(planHistory.at), desc(planHistory.id))
    .all();
  const allowed = (register.access.disclosures ?? []).filter((each) => each.form === form.id);
  const places = allowed.length > 0 ? placesOf(db, form) : [];
  const names = namesOf(db, [...events.map((each) => each.actorId), ...allowed.map((each) => each.by)]);
  return {
    allowed: allowed.map((way) => ({
      id: way.id,
      words: wordsOf(places, form, register, way),
      source: labelOf(form, register, way.source),
      what: way.what,
      reason: way.reason,
      by: names.get(way.by) ?? '',
      at: iso(way.at),
      stands: places.some((each) => each.id === way.sink && each.text === way.text),
    })),
    planHistory: events.map(({ at, actorId, event }) => ({
      at: iso(at),
      who: names.get(actorId) ?? '',
      words: eventInWords(event, (key) => labelOf(form, register, key)),
    })),
  };
}

/** What became of the rules of a plan, and why. */
function changesInWords(changes: PlanChanges, note: string): Said {
  const { base, readers, ...named } = changes;
  const lines = (Object.keys(named) as (keyof typeof named)[]).flatMap((how) => {
    const rules = named[how] ?? [];
    return rules.length > 0 ? [said(`workshopErrors:planRules.${how}`, { rules })] : [];
  });
  if (base) lines.push(said('workshopErrors:planBaseChanged'));
  if (readers) lines.push(said('workshopErrors:planReadersChanged'));
  const all = said('workshopErrors:planPut', { lines });
  return note === '' ? all : said('workshopErrors:planPutBecause', { all, note });
}

function eventInWords(event: PlanEvent, labelOf: (key: string) => string): Said {
  switch (event.kind) {
    case 'brought':
      return said('workshopErrors:planBrought', { rules: event.rules });
    case 'protected':
      return said('workshopErrors:planProtected', { field: labelOf(event.field), like: labelOf(event.like) });
    case 'placed':
      return said('workshopErrors:planPlaced', { fields: event.fields.map(labelOf) });
    case 'allowed':
      return said('workshopErrors:planAllowed', { words: event.words, reason: event.way.reason });
    case 'ended':
      return said('workshopErrors:planEnded', { words: event.words });
    case 'put':
      return changesInWords(event.changes, event.note);
  }
}
