import { type Said, said, type Words } from '@tolvek/words';
import type { AccessRule } from '../access/index.ts';
import { holdersPlanned, type SeatPlan, withStepsOf } from '../approval/index.ts';
import { calendarsOf, deadlinesIn, groupsOfDeadlines, withFormulas, withLengthFormulas } from '../deadline/index.ts';
import type { Reference } from '../design/index.ts';
import { groupsIn, inPlace, withoutPeople } from '../people/index.ts';
import { designsNamed, type Field, isFilled, type Kind, type Preset, type Vocabulary } from '../register/index.ts';
import {
  COMPUTED,
  followersIn,
  outcomesSaying,
  type RoutingOutcome,
  type RoutingRow,
  resultsWritten,
  withResults,
} from '../routing/index.ts';
import { groupsOfNotices, noticesIn, withNoticeFormulas } from '../telling/index.ts';
import { type Action, type Edition, type FormDesign, questionsOf } from './design.ts';
import { isReferring } from './offers.ts';

/** A form with all it needs, to be taken to another installation as one file. */
export interface FormFile {
  readonly format: 'tolvek-form';
  readonly version: 4;
  readonly design: FormDesign;
  /** What the form names and another installation has to have, or something in its place. */
  readonly needs: Needs;
  /** What protected its answers where it was made. */
  readonly access?: Protecting | undefined;
}

/** What protects the answers to a form, as it goes along with it: without what was allowed on purpose. */
export interface Protecting {
  readonly rules: readonly AccessRule[];
  /** Whether its requests are never taken out. */
  readonly staysIn: boolean;
}

/**
 * Vocabularies come along with their terms, so that one that is missing can be brought in;
 * registers are only named.
 */
export interface Needs {
  readonly groups: readonly Named[];
  readonly calendars: readonly Named[];
  readonly vocabularies: readonly Vocabulary[];
  readonly registers: readonly Named[];
}

interface Named {
  readonly key: string;
  readonly name: string;
}

/**
 * Where a condition names a group: `list contains(requester.groups, "boats")`, `is
 * member(requester, "boats")`.
 */
const GROUP_NAMED = /(list contains\(\s*requester\.groups\s*,\s*|is member\(\s*\w+\s*,\s*)"([^"\\]+)"/g;

/**
 * Every expression of a form about its requests, changed where it has to be; formulas of lines know
 * only their line.
 */
function inExpressions(design: FormDesign, change: (text: string) => string): FormDesign {
  const action = (each: Action): Action => (each.do === 'set' ? { ...each, value: change(each.value) } : each);
  const limited = (each: Field): Field =>
    isReferring(each.type) && each.type.offered
      ? { ...each, type: { ...each.type, offered: change(each.type.offered) } }
      : each;
  const field = (each: Field): Field => {
    if (each.source === 'computed') return { ...each, formula: change(each.formula) };
    return isFilled(each) && each.preset ? { ...each, preset: preset(each.preset) } : each;
  };
  const preset = (each: Preset): Preset =>
    each.from === 'formula' ? { ...each, formula: change(each.formula) } : each;
  const edition = (each: Edition): Edition => ({
    ...each,
    when: change(each.when),
    differences: each.differences.map((one) =>
      one.does === 'preset' && one.preset ? { ...one, preset: preset(one.preset) } : one,
    ),
  });
  const outcome = ({ formulas, deadlines, ...each }: RoutingOutcome): RoutingOutcome => ({
    ...each,
    ...(formulas ? { formulas: withFormulasIn(formulas, change) } : {}),
    ...(deadlines ? { deadlines: withLengthFormulas(deadlines, change) } : {}),
  });
  const cells = (row: RoutingRow): RoutingRow => ({
    ...row,
    outcome: outcome(row.outcome),
    cells: Object.fromEntries(Object.entries(row.cells).map(([column, cell]) => [column, change(cell)])),
  });
  return {
    ...design,
    fields: design.fields.map((each) => field(limited(each))),
    rules: design.rules.map((rule) => ({
      ...rule,
      when: change(rule.when),
      then: rule.then.map(action),
      otherwise: rule.otherwise.map(action),
    })),
    routing: {
      ...design.routing,
      columns: design.routing.columns.map((column) => ({ ...column, input: change(column.input) })),
      rows: design.routing.rows.map(cells),
      otherwise: outcome(design.routing.otherwise),
    },
    approval: withStepsOf(design.approval, (step) =>
      step.when === undefined ? step : { ...step, when: change(step.when) },
    ),
    deadline: withFormulas(design.deadline, change),
    ...(design.notices ? { notices: withNoticeFormulas(design.notices, change) } : {}),
    ...(design.editions ? { editions: design.editions.map(edition) } : {}),
  };
}

const withFormulasIn = (
  formulas: NonNullable<RoutingOutcome['formulas']>,
  change: (text: string) => string,
): RoutingOutcome['formulas'] =>
  Object.fromEntries(
    COMPUTED.flatMap((name) => (formulas[name] === undefined ? [] : [[name, change(formulas[name])]])),
  );

/** The keys of the groups that conditions of a form name. */
function groupsInConditions(design: FormDesign): readonly string[] {
  const named: string[] = [];
  inExpressions(design, (text) => {
    for (const [, , key = ''] of text.matchAll(GROUP_NAMED)) named.push(key);
    return text;
  });
  return named;
}

/** The groups a form names and where: teams, approvers, who hears of delays, those people are picked from, and those in conditions. */
export function groupsNamed(design: FormDesign): readonly Reference[] {
  const { routing, approval, deadline, notices, fields } = design;
  const named =
    (at: Words) =>
    (key: string): Reference => ({ kind: 'group', key, at });
  const deciding = holdersPlanned(approval).flatMap((seat) => ('group' in seat ? [seat.group] : []));
  return [
    ...outcomesSaying(routing, 'team')
      .flatMap(({ team, formulas }) => [team, ...(formulas?.team === undefined ? [] : resultsWritten(formulas.team))])
      .map(named(said('pages:routing'))),
    ...followersIn(routing).flatMap((each) => ('group' in each ? [named(said('pages:routing'))(each.group)] : [])),
    ...[...deciding, ...groupsOfDeadlines(deadline)].map(named(said('pages:approval'))),
    ...(notices ? groupsOfNotices(notices) : []).map(named(said('pages:notices'))),
    ...fields.flatMap(({ label, type }) =>
      type.kind === 'person' || type.kind === 'people' ? type.from.map(named(label)) : [],
    ),
    ...groupsInConditions(design).map(named(said('pages:rules'))),
    ...(design.editions ?? []).flatMap(({ audience }) => groupsIn(audience).map(named(said('pages:editions')))),
  ];
}

/** The keys of the groups a form names. */
export const groupsNeeded = (design: FormDesign): readonly string[] => [
  ...new Set(groupsNamed(design).map(({ key }) => key)),
];

/**
 * The keys of the vocabularies a form takes terms from, and of the registers its references point
 * to.
 */
export function namedBy({ fields }: Pick<FormDesign, 'fields'>): {
  readonly vocabularies: readonly string[];
  readonly registers: readonly string[];
} {
  const named = designsNamed(fields);
  const keysOf = (kind: string): readonly string[] => [
    ...new Set(named.flatMap((each) => (each.kind === kind ? [each.key] : []))),
  ];
  return { vocabularies: keysOf('vocabulary'), registers: keysOf('register') };
}

/** What a house has that a form can need. */
export interface Ground {
  readonly groups: readonly Named[];
  readonly calendars: readonly Named[];
  readonly vocabularies: readonly Vocabulary[];
  readonly registers: readonly Named[];
}

/** The form as a file, with the names of what it needs. */
export function formFile(
  design: FormDesign,
  { groups, calendars, vocabularies, registers }: Ground,
  access: Protecting,
): FormFile {
  const names = namedBy(design);
  const named = (key: string, among: readonly Named[]): Named => ({
    key,
    name: among.find((each) => each.key === key)?.name ?? key,
  });
  return {
    format: 'tolvek-form',
    version: 4,
    design,
    needs: {
      groups: [
        ...new Set([...groupsNeeded(design), ...access.rules.flatMap(({ audience }) => groupsIn(audience))]),
      ].map((key) => named(key, groups)),
      calendars: calendarsOf(design.deadline).map((key) => named(key, calendars)),
      vocabularies: vocabularies.filter((each) => names.vocabularies.includes(each.key)),
      registers: names.registers.map((key) => named(key, registers)),
    },
    access,
  };
}

/**
 * What stands in the place of groups, calendars, vocabularies and registers that are not here, by
 * their keys in the file.
 */
export interface Places {
  readonly groups: Readonly<Record<string, string>>;
  readonly calendars: Readonly<Record<string, string>>;
  readonly vocabularies: Readonly<Record<string, string>>;
  readonly registers: Readonly<Record<string, string>>;
}

/**
 * A form from elsewhere with what it names put in its place. What is not named in `places` stays as
 * it is.
 */
export function settledHere(design: FormDesign, places: Places): FormDesign {
  const group = (key: string): string => places.groups[key] ?? key;
  const inTerm = <K extends { readonly vocabulary: string }>(type: K): K => ({
    ...type,
    vocabulary: places.vocabularies[type.vocabulary] ?? type.vocabulary,
  });
  const inKind = (type: Kind): Kind => {
    switch (type.kind) {
      case 'person':
      case 'people':
        return { ...type, from: [...new Set(type.from.map(group))] };
      case 'term':
      case 'terms':
        return inTerm(type);
      case 'reference':
      case 'references':
        return { ...type, register: places.registers[type.register] ?? type.register };
      case 'line-items':
        return {
          ...type,
          columns: type.columns.map((column) =>
            column.type.kind === 'term' ? { ...column, type: inTerm(column.type) } : column,
          ),
        };
      default:
        return type;
    }
  };
  const moved = inExpressions(design, (text) =>
    text.replace(GROUP_NAMED, (_, call: string, key: string) => `${call}"${group(key)}"`),
  );
  const { routing, approval, deadline } = moved;
  // One person is somebody else elsewhere: that they are not here is found in the draft.
  const seatThere = (seat: SeatPlan): SeatPlan => ('group' in seat ? { group: group(seat.group) } : seat);
  const outcomeThere = ({ formulas, followers, ...outcome }: RoutingOutcome): RoutingOutcome => ({
    ...outcome,
    team: group(outcome.team),
    ...(formulas
      ? {
          formulas: {
            ...formulas,
            ...(formulas.team === undefined ? {} : { team: withResults(formulas.team, group) }),
          },
        }
      : {}),
    ...(followers
      ? { followers: followers.map((each) => ('group' in each ? { group: group(each.group) } : each)) }
      : {}),
  });
  return {
    ...moved,
    fields: moved.fields.map((field) => ({ ...field, type: inKind(field.type) })),
    routing: {
      ...routing,
      rows: routing.rows.map((row) => ({ ...row, outcome: outcomeThere(row.outcome) })),
      otherwise: outcomeThere(routing.otherwise),
    },
    approval: withStepsOf(approval, ({ instead, ...step }) => ({
      ...step,
      seats: step.seats.map(seatThere),
      ...(instead ? { instead: instead.map(seatThere) } : {}),
    })),
    ...(moved.notices ? { notices: noticesIn(moved.notices, group) } : {}),
    deadline: deadlinesIn(deadline, { group, calendar: (key) => places.calendars[key] ?? key }),
    ...(moved.editions
      ? {
          editions: moved.editions.map((edition) => ({
            ...edition,
            audience: withoutPeople(inPlace(edition.audience, places.groups)),
          })),
        }
      : {}),
  };
}

/** What protected a form elsewhere, with the groups that stand here in the place of its own; people of elsewhere are not here. */
export const protectedHere = ({ rules, staysIn }: Protecting, groups: Places['groups']): Protecting => ({
  staysIn,
  rules: rules.map((rule) => ({ ...rule, audience: withoutPeople(inPlace(rule.audience, groups)) })),
});

/** JSON Schema, as far as answers need it. */
export interface JsonSchema {
  readonly [keyword: string]: unknown;
}

/**
 * The shape of the answers a form takes, as JSON Schema 2020-12: what another program has to send.
 * A rule of the form may refuse more; the schema refuses nothing that the form would take.
 *
 * @param told Makes the words that say how an answer is written.
 */
export function answerSchema(design: FormDesign, told: Told): JsonSchema {
  const fields = new Map(design.fields.map((field) => [field.key, field]));
  const asked = questionsOf(design.parts).flatMap((question) => {
    const field = fields.get(question.field);
    return field?.source === 'asked' ? [{ question, field }] : [];
  });
  return {
    $schema: 'https://json-schema.org/draft/2020-12/schema',
    title: design.title,
    type: 'object',
    properties: Object.fromEntries(
      asked.map(({ question, field }) => [
        field.key,
        {
          title: question.asks || field.label,
          ...(question.help ? { description: question.help } : {}),
          ...orBlank(shapeOf(field.type, told)),
        },
      ]),
    ),
    additionalProperties: false,
  };
}

/**
 * Every answer may be left empty as far as its shape goes; that one is required is said by the
 * form.
 */
const orBlank = (shape: JsonSchema): JsonSchema => ({
  anyOf: [shape, { type: 'string', pattern: '^\\s*$' }, { type: 'null' }],
});

const TEXT = { type: 'string' };
const FIGURES = { type: ['string', 'number'] };

type Told = (words: Words) => string;

function shapeOf(type: Kind, told: Told): JsonSchema {
  switch (type.kind) {
    case 'number':
    case 'money':
      return { ...FIGURES, description: told(numberIn(type.kind === 'money' ? type.currency : type.unit)) };
    case 'duration':
      return { ...FIGURES, description: told(said('sheets:answer.duration')) };
    case 'yes-no':
      return { enum: [true, false, 'yes', 'no', 'true', 'false'] };
    case 'choice':
      return type.other ? TEXT : { enum: offered(type.options) };
    case 'level':
      return {
        enum: [
          ...type.levels
            .filter((level) => !level.retired)
            .flatMap((level) => [level.worth, String(level.worth), level.label]),
        ],
      };
    case 'choices':
      return { type: 'array', items: type.other ? TEXT : { enum: offered(type.options) } };
    case 'people':
    case 'terms':
    case 'references':
    case 'files':
      return { type: 'array', items: { type: 'string' } };
    case 'date':
      return { ...TEXT, description: told(said('sheets:answer.date')) };
    case 'date-time':
      return { ...TEXT, description: told(said('sheets:answer.dateTime')) };
    case 'phone':
      return FIGURES;
    case 'line-items': {
      const columns = type.columns.filter((column) => column.formula === undefined);
      return {
        type: 'array',
        items: {
          type: 'object',
          properties: Object.fromEntries(
            columns.map((column) => [column.key, { title: column.label, ...orBlank(shapeOf(column.type, told)) }]),
          ),
          additionalProperties: false,
        },
      };
    }
    default:
      return TEXT;
  }
}

const numberIn = (unit: string | undefined): Said =>
  unit ? said('sheets:answer.numberIn', { unit }) : said('sheets:answer.number');

const offered = (options: readonly { readonly key: string; readonly retired?: boolean }[]): readonly string[] =>
  options.filter((option) => !option.retired).map((option) => option.key);
