import {
  ACTIVITIES,
  type Access,
  type AccessLevel,
  type AccessPlan,
  accessAsking,
  accessTo,
  circumstancesOf,
  type Doing,
  deskRelation,
  type PlanRules,
  type Protection,
  prepareAccess,
  RANK,
  type Relation,
} from '@tolvek/core/access';
import { holdersPlanned } from '@tolvek/core/approval';
import { protectionOf } from '@tolvek/core/form';
import {
  type Audience,
  audienceInWords,
  belongs,
  CONTACT,
  FOR_EVERYONE,
  groupsIn,
  isRelation,
  PACKAGES,
  peopleIn,
  profileConditionsIn,
  RELATION_WORDS,
  type Viewer,
  wordsIn,
} from '@tolvek/core/people';
import { type Field, PARTY_RELATIONS, partsOf, requestScope } from '@tolvek/core/register';
import { allThatMayBe } from '@tolvek/core/routing';
import { said, type Words } from '@tolvek/words';
import { and, eq } from 'drizzle-orm';
import { type FormRow, onShelf } from '../form/queries.ts';
import { groupNames, groupsOf, membersOf, metBy, namesOf, personById, staffIn, viewerIn } from '../people/queries.ts';
import { todayAt } from '../people/settle.ts';
import { people as peopleTable } from '../people/tables.ts';
import { nowIn, type Reader } from '../platform/database.ts';
import { notFound } from '../platform/problem.ts';
import type { RegisterRow } from '../register/queries.ts';
import { closedElsewhere } from '../request/protection.ts';
import { requests } from '../request/tables.ts';
import { fieldsFor, protectionOfDraft, wordNames } from './plan.ts';
import { asWritten } from './planWritten.ts';

/** Somebody by whom a plan is looked at: a column of its grid. */
interface Seat {
  readonly who: Words;
  readonly viewer: Viewer;
  readonly relation: Relation;
}

/** The groups that work on requests of a register: at its desk, and those that its forms route to and let decide. */
function workingOn(register: RegisterRow, forms: readonly FormRow[]): readonly string[] {
  // Things are neither routed nor decided: whatever their form says of it, nobody works on them by that.
  const working =
    register.holds === 'things'
      ? []
      : forms.flatMap(({ draft }) => [
          ...allThatMayBe(draft.routing, 'team', () => requestScope(draft.fields)),
          ...holdersPlanned(draft.approval).flatMap((seat) => ('group' in seat ? [seat.group] : [])),
        ]);
  return [...new Set([...register.deskGroups, ...working])];
}

/** Whether anybody from outside handles or decides requests of a register, or its plan says something of them. */
const callsIn = (
  db: Reader,
  { id, access }: RegisterRow,
  forms: readonly FormRow[],
  draft: Pick<PlanRules, 'base'> = access,
): boolean =>
  [access, draft].some(({ base }) => base?.outside !== undefined) ||
  forms.some(({ draft: { approval } }) =>
    holdersPlanned(approval).some((seat) => 'person' in seat && personById(db, seat.person)?.kind === 'contact'),
  ) ||
  db
    .select({ id: requests.id })
    .from(requests)
    .innerJoin(peopleTable, eq(peopleTable.id, requests.handlerId))
    .where(and(eq(requests.registerId, id), eq(peopleTable.kind, 'contact')))
    .limit(1)
    .get() !== undefined;

/**
 * Who is looked at: the requester, whom rules name by what they are to a request, each group, people whom rules name,
 * and whoever reads all as a coordinator does.
 */
function seatsOf(
  db: Reader,
  groups: readonly string[],
  isCalledIn: boolean,
  named: readonly string[] = [],
  nameOf: (word: string) => Words = (word) => word,
): readonly Seat[] {
  const names = groupNames(db);
  const desk: Relation = { isDesk: true, isRequester: false };
  const people = named.flatMap((word) => (word.startsWith('@') ? [word.slice(1)] : []));
  const staff = { personId: '', kind: 'staff' as const, rights: FOR_EVERYONE, groups: [] };
  return [
    {
      who: said('workshopErrors:theRequester'),
      viewer: { personId: '', kind: 'staff', rights: [], groups: [] },
      relation: { isDesk: false, isRequester: true },
    },
    ...(named.includes(CONTACT)
      ? [
          {
            who: RELATION_WORDS[CONTACT],
            viewer: { personId: '', kind: 'contact' as const, rights: [], groups: [] },
            relation: { isDesk: false, isRequester: true },
          },
        ]
      : []),
    ...(isCalledIn
      ? [
          {
            who: said('people:calledIn'),
            viewer: { personId: '', kind: 'contact' as const, rights: [], groups: [] },
            relation: { isDesk: false, isRequester: false, calledIn: true },
          },
        ]
      : []),
    ...PARTY_RELATIONS.flatMap((as) =>
      named.includes(`~${as}`)
        ? [{ who: RELATION_WORDS[`~${as}`], viewer: staff, relation: { ...desk, as: [as] } }]
        : [],
    ),
    ...groups.map((group) => ({
      who: names.get(group) ?? group,
      viewer: { ...staff, groups: [group] },
      relation: desk,
    })),
    ...[...new Set(named)]
      .filter((word) => word.startsWith('?'))
      .map((word) => ({ who: nameOf(word), viewer: { ...staff, meets: [word.slice(1)] }, relation: desk })),
    ...[...namesOf(db, people)].map(([personId, who]) => ({
      ...{ who, relation: desk },
      viewer: { ...staff, personId, groups: groupsOf(db, personId) },
    })),
    {
      who: said('workshopErrors:coordinators'),
      viewer: { personId: '', kind: 'staff', rights: PACKAGES.coordinator, groups: [] },
      relation: { ...desk, builds: true },
    },
  ];
}

/** Somebody as one who works on requests of a register that are not theirs; who comes from outside, as who asked. */
function seatOf(db: Reader, register: RegisterRow, id: string): Seat {
  const person = personById(db, id);
  if (!person) throw notFound('person');
  const viewer = viewerIn(db, person);
  const asks: Relation = { isDesk: false, isRequester: true };
  return { who: person.name, viewer, relation: viewer.kind === 'staff' ? deskRelation(viewer, register.id) : asks };
}

/**
 * The access plan in sentences, and the grid that comes of it for each group, computed by the same
 * rule that protects.
 */
export function accessView(db: Reader, register: RegisterRow, form: FormRow) {
  const names = wordNames(db, register.access.rules);
  const nameOf = (word: string): Words => names.get(word) ?? word;
  const protection = protectionOfDraft(db, form, register);
  const { fields } = protection;
  const readingOf = prepareAccess(protection);
  const seats = seatsOf(db, workingOn(register, [form]), callsIn(db, register, [form]));
  return {
    access: register.access.rules.map((rule) => ({
      name: rule.name,
      fields:
        rule.fields === 'all'
          ? [said('workshopErrors:everyField')]
          : rule.fields.map((key) => partsOf(fields).find((field) => field.key === key)?.label ?? key),
      audience: audienceInWords(rule.audience, nameOf),
      level: rule.level,
    })),
    grid: fields.map((field) => ({
      field: field.key,
      label: field.label,
      cells: seats.map(({ who, viewer, relation }) => ({
        who,
        ...readingOf({ viewer, relation, purpose: 'sheet', at: null }).levelOf(field.key),
      })),
    })),
  };
}

/** What protects a field on requests that came by each of the forms of a register. */
export function protectionsBy(
  db: Reader,
  register: RegisterRow,
  plan: AccessPlan,
  fields: readonly Field[],
): readonly Protection[] {
  const closed = closedElsewhere(db, register);
  const releases = onShelf(db, register.id).map(({ id, draft }) => ({ form: id, design: draft }));
  return (releases.length > 0 ? releases : [null]).map((release) =>
    protectionOf(plan, { fields, release, ran: register.ran, closed }),
  );
}

/** Of what a grid is told: requests at one stage, in one of the things that are done with them; of all where none is said. */
export interface GridOf {
  readonly stage?: string | undefined;
  readonly activity?: Doing | undefined;
  /** Somebody who is looked at besides, as one who works on requests. @throws Problem 404 for who is not here. */
  readonly person?: string | undefined;
}

/**
 * What comes of a plan as it is written, field by field, for whoever it tells apart; with what is in force where that is
 * otherwise. Where that hangs on the request, or forms make a field of different things, the strictest is told, with the
 * most there can be.
 */
export function gridOf(db: Reader, register: RegisterRow, draft: PlanRules, { stage, activity, person }: GridOf = {}) {
  const { rules } = draft;
  const fields = fieldsFor(db, register);
  const both = [...register.access.rules, ...rules];
  const named = both.flatMap(({ audience }) => wordsIn(audience));
  const known = groupNames(db);
  const groups = [...new Set([...workingOn(register, onShelf(db, register.id)), ...named])].filter((key) =>
    known.has(key),
  );
  const names = wordNames(db, both);
  const seats = [
    ...seatsOf(
      db,
      groups,
      callsIn(db, register, onShelf(db, register.id), draft),
      named,
      (word) => names.get(word) ?? word,
    ),
    ...(person === undefined ? [] : [seatOf(db, register, person)]),
  ];
  const isAsking = activity === 'asking';
  const told = isAsking ? both.map((rule) => (rule.asking ? rule : { ...rule, exceptions: [] })) : both;
  const circumstances = circumstancesOf(told, isAsking ? ['working'] : activity ? [activity] : ACTIVITIES, {
    ...(stage === undefined ? {} : { stage }),
    day: todayAt(db, nowIn(db)),
  });
  const [before, after] = [register.access, asWritten(register, draft)].map((plan) =>
    protectionsBy(db, register, plan, fields),
  ) as [readonly Protection[], readonly Protection[]];
  return {
    seats: seats.map(({ who }) => who),
    rows: partsOf(fields).map((field) => ({
      field: field.key,
      cells: seats.map(({ viewer, relation }) => {
        const at = (protections: readonly Protection[]) =>
          rangeOf(
            protections.flatMap((protection) =>
              (circumstances ?? []).map((each) =>
                isAsking
                  ? accessAsking(field, protection.plan, viewer, each)
                  : accessTo(field, protection, viewer, relation, each),
              ),
            ),
          );
        const [was, is] = [at(before), at(after)];
        const isSame = was.level === is.level && was.most === is.most;
        return { level: is.level, rule: is.rule, most: is.most, was: isSame ? null : was.level };
      }),
    })),
  };
}

/** The strictest of some levels, with its rule, and the most there is where that is more. */
function rangeOf(found: readonly Access[]): Access & { readonly most: AccessLevel | null } {
  const first: Access = found[0] ?? { level: 'hidden', rule: said('access:hangsOnTooMuch') };
  const least = found.reduce((strictest, each) => (RANK[each.level] < RANK[strictest.level] ? each : strictest), first);
  const most = found.reduce((loosest, each) => (RANK[each.level] > RANK[loosest.level] ? each : loosest), first);
  return { ...least, most: most.level === least.level ? null : most.level };
}

/** So many people are named; the others are counted. */
const NAMED = 8;

/** The active people of some groups, staff or not, each with those of the groups that they are in. */
function activeIn(db: Reader, groups: readonly string[]) {
  const found = new Map<string, { readonly personId: string; readonly name: string; readonly groups: string[] }>();
  for (const group of new Set(groups))
    for (const { id, name, active } of membersOf(db, group)) {
      if (!active) continue;
      const person = found.get(id) ?? { personId: id, name, groups: [] };
      person.groups.push(group);
      found.set(id, person);
    }
  return [...found.values()];
}

/** Who an audience may mean, whatever the request, with their groups as far as it names any. */
function inQuestion(db: Reader, audience: Audience) {
  if ('everyone' in audience.in) return staffIn(db, 'all').map(({ id, ...person }) => ({ ...person, personId: id }));
  // Whoever comes from outside, or meets a condition, can be anybody.
  const conditions = profileConditionsIn(audience);
  const anybody = conditions.length > 0 || wordsIn(audience).includes(CONTACT);
  const all = anybody
    ? db
        .select()
        .from(peopleTable)
        .where(eq(peopleTable.active, true))
        .all()
        .map((person) => ({
          ...{ personId: person.id, name: person.name, kind: person.kind, groups: groupsOf(db, person.id) },
          meets: metBy(db, person, conditions),
        }))
    : [];
  const named = peopleIn(audience).flatMap((id) => {
    const person = personById(db, id);
    return person?.active ? [{ personId: id, name: person.name, groups: groupsOf(db, id) }] : [];
  });
  const found = [...activeIn(db, groupsIn(audience)), ...named, ...all];
  return [...new Map(found.map((each) => [each.personId, each])).values()];
}

/**
 * Whom an audience means today: how many, some by name, and who would be in it but for whom is left out. Who is meant by
 * what they are to a request is somebody else on each.
 */
export function audienceToday(db: Reader, audience: Audience) {
  const names = wordNames(db, [{ audience }]);
  const of = (word: string): Words => names.get(word) ?? word;
  const isEveryone = 'everyone' in audience.in;
  // Of whoever has to be several things at once, what they are to a request may be.
  const { in: inside } = audience;
  const stands = {
    isRequester: false,
    as: 'allOf' in inside ? inside.allOf.flatMap((word) => (isRelation(word) ? [word.slice(1)] : [])) : [],
  };
  const meant = inQuestion(db, audience).filter((person) => belongs({ ...audience, outOf: [] }, person, stands));
  const isLeft = (person: (typeof meant)[number]): boolean => belongs(audience, person, stands);
  const left = meant.filter(isLeft).map(({ name }) => name);
  return {
    who: audienceInWords(audience, of),
    people: left.length,
    names: left.toSorted().slice(0, NAMED),
    // Of everybody, those left out are meant to be.
    caught: isEveryone ? [] : meant.flatMap((person) => (isLeft(person) ? [] : [person.name])).toSorted(),
    byRequest: wordsIn({ ...audience, outOf: [] }).some(isRelation) || audience.requester === 'in',
  };
}
