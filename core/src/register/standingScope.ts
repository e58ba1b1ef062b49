import { said, type Words } from '@tolvek/words';
import {
  type ContextEntry,
  DateTime,
  Duration,
  type Pick as Picked,
  Scope,
  type ScopeType,
  type Slots,
  type Value,
} from '../expression/index.ts';
import type { Field, Values } from './field.ts';
import { type Profile, profileEntries, profileValues } from './profile.ts';
import { type KnownNames, knownType, type RequestFacts, requestScope, requestSlots } from './requestScope.ts';
import { type Priority, priorities, type Stage } from './stage.ts';

/** Where a stored request stands, besides what its fields hold. Moments are `YYYY-MM-DDTHH:MM` at the desk. */
export interface RequestStanding {
  readonly number: string;
  /** The key of the form it came by. */
  readonly form: string;
  readonly stage: string;
  readonly phase: Stage['phase'];
  /** Groups and people by key and id; null where there is none. */
  readonly team: string | null;
  readonly handler: string | null;
  readonly priority: Priority | null;
  readonly arrived: string;
  readonly due: string | null;
  readonly finished: string | null;
  /** Minutes of working time since it arrived, until it was finished. */
  readonly age: number;
  readonly decision: 'waiting' | 'approved' | 'refused' | null;
  readonly trial: boolean;
}

/** Who looks, or does something. */
export interface StandingViewer {
  readonly person: string;
  /** By key. */
  readonly groups: readonly string[];
  readonly department: string;
  readonly profile: Profile;
}

/** Names for what the standing of a request is made of. */
export interface KnownStanding extends KnownNames {
  readonly stages?: readonly Pick<Stage, 'key' | 'label'>[];
  readonly forms?: readonly { readonly key: string; readonly label: string }[];
}

const PHASES = ['arrived', 'working', 'paused', 'finished'] as const;
const DECISIONS = ['waiting', 'approved', 'refused'] as const;

/** What `request` and `me` are made of: each by its name, with its label and type. */
function entries(known: KnownStanding) {
  const { groups = [], people = [], stages = [], forms = [], profile = [] } = known;
  const choice = (among: readonly Picked[]): ScopeType => ({
    kind: 'choice',
    options: among.map(({ key, label }) => ({ key, label })),
  });
  return {
    request: {
      number: full(said('reasons:number'), { kind: 'text' }),
      form: full(said('reasons:form'), choice(forms)),
      stage: full(said('reasons:stage'), choice(stages)),
      phase: full(said('reasons:phase'), choice(PHASES.map((key) => ({ key, label: said(`reasons:phase.${key}`) })))),
      team: full(said('reasons:team'), choice(groups)),
      handler: full(said('reasons:handler'), { kind: 'person', people }),
      priority: full(
        said('reasons:priority'),
        choice(priorities.map((key) => ({ key, label: said(`priorities:${key}`) }))),
      ),
      arrived: full(said('reasons:arrived'), { kind: 'date-time' }),
      due: full(said('reasons:due'), { kind: 'date-time' }),
      finished: full(said('reasons:finished'), { kind: 'date-time' }),
      age: full(said('reasons:age'), { kind: 'duration' }),
      decision: full(
        said('reasons:decision'),
        choice(DECISIONS.map((key) => ({ key, label: said(`reasons:decision.${key}`) }))),
      ),
      trial: full(said('reasons:trial'), { kind: 'yes-no' }),
    },
    me: {
      person: full(said('reasons:person'), { kind: 'person', people }),
      groups: full(said('reasons:personGroups'), { kind: 'list', of: choice(groups) }),
      department: full(said('reasons:personTeam'), { kind: 'text' }),
      ...profileEntries(profile, 'person', (field) => knownType(field, known)),
    },
  };
}

/** An entry whose label says what it is a part of. */
const full = (label: Words, type: ScopeType): ContextEntry => ({ label, isFull: true, type });

/**
 * The names that conditions about a stored request may use where somebody looks at it: those of
 * `requestScope`, where it stands as `request`, and who looks as `me`. A field of either name goes first.
 */
export function standingScope(fields: readonly Field[], known: KnownStanding = {}): Scope {
  const { request, me } = entries(known);
  return new Scope([
    { name: 'request', label: said('reasons:request'), type: { kind: 'context', entries: request } },
    { name: 'me', label: said('reasons:person'), type: { kind: 'context', entries: me } },
    ...requestScope(fields, known).names,
  ]);
}

const moment = (text: string | null): Value => (text === null ? null : DateTime.read(text));

/** What `me` stands for. */
export const meOf = ({ person, groups, department, profile }: StandingViewer): Value => ({
  ...profileValues(profile),
  ...{ person, groups, department: department === '' ? null : department },
});

/** What `request` stands for. */
export const requestOf = ({ age, arrived, due, finished, ...standing }: RequestStanding): Value => ({
  ...standing,
  ...{ arrived: moment(arrived), due: moment(due), finished: moment(finished), age: new Duration(age * 60) },
});

/** The values for `standingScope(fields)`, by slot. */
export const standingSlots = (
  fields: readonly Field[],
  values: Values,
  facts: RequestFacts,
  standing: RequestStanding,
  me: StandingViewer,
): Slots => [requestOf(standing), meOf(me), ...requestSlots(fields, values, facts)];
