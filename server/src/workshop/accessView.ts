import {
  type AccessPlan,
  type PlanRules,
  type Protection,
  prepareAccess,
  RANK,
  type Relation,
} from '@tolvek/core/access';
import { protectionOf } from '@tolvek/core/form';
import {
  type Audience,
  audienceInWords,
  belongs,
  FOR_EVERYONE,
  groupsIn,
  PACKAGES,
  type Viewer,
} from '@tolvek/core/people';
import type { Field } from '@tolvek/core/register';
import { said, type Words } from '@tolvek/words';
import { type FormRow, onShelf } from '../form/queries.ts';
import { groupNames, membersOf, staffIn } from '../people/queries.ts';
import type { Reader } from '../platform/database.ts';
import type { RegisterRow } from '../register/queries.ts';
import { closedElsewhere } from '../request/protection.ts';
import { fieldsFor, protectionOfDraft } from './plan.ts';

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
          ...draft.routing.rows.map((row) => row.outcome.team),
          draft.routing.otherwise.team,
          ...draft.approval.steps.flatMap((step) =>
            step.seats.flatMap((seat) => ('group' in seat ? [seat.group] : [])),
          ),
        ]);
  return [...new Set([...register.deskGroups, ...working])];
}

/** Who is looked at: the requester, each group, and whoever reads all as a coordinator does. */
function seatsOf(db: Reader, groups: readonly string[]): readonly Seat[] {
  const names = groupNames(db);
  const desk = { isDesk: true, isRequester: false };
  return [
    {
      who: said('workshopErrors:theRequester'),
      viewer: { personId: '', kind: 'contact', rights: [], groups: [] },
      relation: { isDesk: false, isRequester: true },
    },
    ...groups.map((group) => ({
      who: names.get(group) ?? group,
      viewer: { personId: '', kind: 'staff' as const, rights: FOR_EVERYONE, groups: [group] },
      relation: desk,
    })),
    {
      who: said('workshopErrors:coordinators'),
      viewer: { personId: '', kind: 'staff', rights: PACKAGES.coordinator, groups: [] },
      relation: desk,
    },
  ];
}

/**
 * The access plan in sentences, and the grid that comes of it for each group, computed by the same
 * rule that protects.
 */
export function accessView(db: Reader, register: RegisterRow, form: FormRow) {
  const names = groupNames(db);
  const nameOf = (group: string): string => names.get(group) ?? group;
  const protection = protectionOfDraft(db, form, register);
  const { fields } = protection;
  const readingOf = prepareAccess(protection);
  const seats = seatsOf(db, workingOn(register, [form]));
  return {
    access: register.access.rules.map((rule) => ({
      name: rule.name,
      fields:
        rule.fields === 'all'
          ? [said('workshopErrors:everyField')]
          : rule.fields.map((key) => fields.find((field) => field.key === key)?.label ?? key),
      audience: audienceInWords(rule.audience, nameOf),
      level: rule.level,
    })),
    grid: fields.map((field) => ({
      field: field.key,
      label: field.label,
      cells: seats.map(({ who, viewer, relation }) => ({
        who,
        ...readingOf({ viewer, relation, purpose: 'sheet' }).levelOf(field.key),
      })),
    })),
  };
}

/** The same for all forms of a register: what protects a field on requests that came by each. */
function protectionsBy(
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

/**
 * What comes of a plan as it is written, field by field, for whoever it tells apart by a group; with what is in force
 * where that is otherwise. Where forms make a field of different things, the strictest is told.
 */
export function gridOf(db: Reader, register: RegisterRow, { rules }: PlanRules) {
  const fields = fieldsFor(db, register);
  const named = [...register.access.rules, ...rules].flatMap(({ audience }) => groupsIn(audience));
  const known = groupNames(db);
  const groups = [...new Set([...workingOn(register, onShelf(db, register.id)), ...named])].filter((key) =>
    known.has(key),
  );
  const seats = seatsOf(db, groups);
  const [before, after] = [register.access, { ...register.access, rules }].map((plan) =>
    protectionsBy(db, register, plan, fields).map(prepareAccess),
  ) as [ReturnType<typeof prepareAccess>[], ReturnType<typeof prepareAccess>[]];
  return {
    seats: seats.map(({ who }) => who),
    rows: fields.map((field) => ({
      field: field.key,
      cells: seats.map(({ viewer, relation }) => {
        const at = (readings: ReturnType<typeof prepareAccess>[]) =>
          readings
            .map((readingOf) => readingOf({ viewer, relation, purpose: 'sheet' }).levelOf(field.key))
            .reduce((strictest, each) => (RANK[each.level] < RANK[strictest.level] ? each : strictest));
        const [was, is] = [at(before), at(after)];
        return { level: is.level, rule: is.rule, was: was.level === is.level ? null : was.level };
      }),
    })),
  };
}

/** So many people are named; the others are counted. */
const NAMED = 8;

/** The active people of some groups, staff or not, each with those of the groups that they are in. */
function activeIn(db: Reader, groups: readonly string[]) {
  const found = new Map<string, { readonly name: string; readonly groups: string[] }>();
  for (const group of new Set(groups))
    for (const { id, name, active } of membersOf(db, group)) {
      if (!active) continue;
      const person = found.get(id) ?? { name, groups: [] };
      person.groups.push(group);
      found.set(id, person);
    }
  return [...found.values()];
}

/** Whom an audience means today: how many, some by name, and who would be in it but for a group that is left out. */
export function audienceToday(db: Reader, audience: Audience) {
  const names = groupNames(db);
  const of = (group: string): string => names.get(group) ?? group;
  const isEveryone = 'everyone' in audience.in;
  const some = isEveryone ? staffIn(db, 'all') : activeIn(db, groupsIn(audience));
  const meant = some.filter((person) => belongs({ ...audience, outOf: [] }, person, false));
  const isLeft = (person: (typeof some)[number]): boolean => belongs(audience, person, false);
  const left = meant.filter(isLeft).map(({ name }) => name);
  return {
    who: audienceInWords(audience, of),
    people: left.length,
    names: left.toSorted().slice(0, NAMED),
    // Of everybody, those left out are meant to be.
    caught: isEveryone ? [] : meant.flatMap((person) => (isLeft(person) ? [] : [person.name])).toSorted(),
  };
}
