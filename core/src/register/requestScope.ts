import { said } from '@tolvek/words';
import { CalendarDate, type Context, DateTime, Scope, type ScopeType, type Slots } from '../expression/index.ts';
import type { Field, Kind, Values } from './field.ts';
import { expressionValue, scopeTypeOf } from './kinds/index.ts';
import type { Around } from './kinds/kind.ts';
import { type Profile, type ProfileType, profileEntries, profileValues } from './profile.ts';
import { parentsIn, termsInOrder, type Vocabulary } from './vocabulary.ts';

/** Facts about a request besides its fields. */
export interface RequestFacts extends Around {
  readonly requesterIsOutside: boolean;
  /** Null while nobody has said who they are. */
  readonly requesterId: string | null;
  /** Keys of the groups the requester is in. */
  readonly requesterGroups: readonly string[];
  readonly door: 'staff' | 'outside';
  /** The team of the requester, by name; empty when there is none. */
  readonly department: string;
  /** What the desk knows of the requester besides, as far as conditions may read it. */
  readonly profile: Profile;
  /** What running numbers this request gets, by field; set aside where it is taken in. */
  readonly numbers: Readonly<Record<string, string>>;
  /** What counts as a working day: open weekdays, Monday first, and closed dates. */
  readonly calendar: {
    readonly open: readonly boolean[];
    readonly closed: readonly string[];
    readonly opened?: readonly string[] | undefined;
  };
}

/**
 * Groups, people and terms by name, where conditions are built or explained; a condition means the
 * same without them.
 */
export interface KnownNames {
  readonly groups?: readonly { readonly key: string; readonly label: string }[];
  readonly people?: readonly { readonly key: string; readonly label: string }[];
  readonly vocabularies?: readonly Vocabulary[];
  /** The fields of people’s profiles. */
  readonly profile?: readonly (ProfileType & Pick<Field, 'label'>)[];
}

/**
 * The names that conditions about a request may use: its fields by key, then `requester`, `door`
 * and `today`.
 */
export function requestScope(fields: readonly Field[], known: KnownNames = {}): Scope {
  return new Scope([
    ...fields.map((field) => ({
      name: field.key,
      label: field.label,
      type: knownType(field, known),
    })),
    {
      name: 'requester',
      label: said('reasons:requester'),
      type: {
        kind: 'context',
        entries: {
          outside: { label: said('reasons:requesterOutside'), isFull: true, type: { kind: 'yes-no' } },
          person: {
            label: said('reasons:requester'),
            isFull: true,
            type: { kind: 'person', people: known.people ?? [] },
          },
          department: { label: said('reasons:requesterTeam'), isFull: true, type: { kind: 'text' } },
          groups: {
            label: said('reasons:requesterGroups'),
            isFull: true,
            type: { kind: 'list', of: known.groups ? { kind: 'choice', options: known.groups } : { kind: 'text' } },
          },
          ...profileEntries(known.profile ?? [], 'requester', (field) => knownType(field, known)),
        },
      },
    },
    {
      name: 'door',
      label: said('reasons:door'),
      type: {
        kind: 'choice',
        options: [
          { key: 'staff', label: said('reasons:doorStaff') },
          { key: 'outside', label: said('reasons:doorOutside') },
        ],
      },
    },
    { name: 'today', label: said('reasons:theDay'), type: { kind: 'date' } },
    { name: 'now', label: said('reasons:now'), type: { kind: 'date-time' } },
    { name: 'calendar', label: said('reasons:calendar'), type: { kind: 'context', entries: {} } },
    { name: 'vocabularies', label: said('reasons:vocabularies'), type: { kind: 'context', entries: {} } },
  ]);
}

/** What a field stands for, with the people and terms that are known by name. */
export const knownType = (field: Pick<Field, 'type'>, known: KnownNames): ScopeType =>
  withNames(scopeTypeOf(field), field.type, known);

/** A type that picks people or terms, with those who are known by name. */
function withNames(type: ScopeType, kind: Kind, { people = [], vocabularies = [] }: KnownNames): ScopeType {
  if (type.kind === 'list' && type.of) return { kind: 'list', of: withNames(type.of, kind, { people, vocabularies }) };
  if (type.kind === 'person') return { ...type, people };
  if (kind.kind !== 'term' && kind.kind !== 'terms') return type;
  const vocabulary = vocabularies.find((each) => each.key === kind.vocabulary);
  return vocabulary ? { kind: 'choice', options: termsInOrder(vocabulary, kind.under).map(({ term }) => term) } : type;
}

/** The values for `requestScope(fields)`, by slot. */
export function requestSlots(fields: readonly Field[], values: Values, facts: RequestFacts): Slots {
  return [
    ...fields.map((field) => expressionValue(field, Object.hasOwn(values, field.key) ? values[field.key] : undefined)),
    ...factSlots(facts),
  ];
}

/** The slots after those of the fields. */
export const factSlots = (facts: RequestFacts): Slots => [
  {
    ...profileValues(facts.profile),
    outside: facts.requesterIsOutside,
    person: facts.requesterId,
    department: facts.department === '' ? null : facts.department,
    groups: facts.requesterGroups,
  },
  facts.door,
  CalendarDate.read(facts.today),
  DateTime.read(facts.now),
  facts.calendar,
  parentsOf(facts.vocabularies),
];

const parents = new WeakMap<readonly Vocabulary[], Context>();

/** What stands under what, by vocabulary and key of the term. */
function parentsOf(vocabularies: readonly Vocabulary[]): Context {
  let known = parents.get(vocabularies);
  if (!known)
    parents.set(vocabularies, (known = Object.fromEntries(vocabularies.map((each) => [each.key, parentsIn(each)]))));
  return known;
}

/** Names that stand for no field: reading them discloses nothing that the access plan protects. */
export const FACT_NAMES: ReadonlySet<string> = new Set([
  'requester',
  'door',
  'today',
  'now',
  'calendar',
  'vocabularies',
  'request',
  'me',
]);
