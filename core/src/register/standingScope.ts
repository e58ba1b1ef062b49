import { DateTime, Duration, Scope, type ScopeType, type Slots, type Value } from '../expression/index.ts';
import type { Field, Values } from './field.ts';
import { type KnownNames, type RequestFacts, requestScope, requestSlots } from './requestScope.ts';
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
}

/** Names for what the standing of a request is made of. */
export interface KnownStanding extends KnownNames {
  readonly stages?: readonly Pick<Stage, 'key' | 'label'>[];
  readonly forms?: readonly { readonly key: string; readonly label: string }[];
}

const PHASES = { arrived: 'new', working: 'worked on', paused: 'waiting', finished: 'finished' } as const;
const DECISIONS = { waiting: 'waits', approved: 'approved', refused: 'refused' } as const;

const options = (of: Readonly<Record<string, string>>) => Object.entries(of).map(([key, label]) => ({ key, label }));

/** What `request` and `me` are made of: each by its name, with its label and type. */
function entries({ groups = [], people = [], stages = [], forms = [] }: KnownStanding) {
  const choice = (among: readonly { readonly key: string; readonly label: string }[]): ScopeType => ({
    kind: 'choice',
    options: among.map(({ key, label }) => ({ key, label })),
  });
  return {
    request: {
      number: { label: 'number', type: { kind: 'text' } },
      form: { label: 'form', type: choice(forms) },
      stage: { label: 'stage', type: choice(stages) },
      phase: { label: 'phase', type: choice(options(PHASES)) },
      team: { label: 'team', type: choice(groups) },
      handler: { label: 'handler', type: { kind: 'person', people } },
      priority: { label: 'priority', type: choice(priorities.map((key) => ({ key, label: key }))) },
      arrived: { label: 'arrived', type: { kind: 'date-time' } },
      due: { label: 'due', type: { kind: 'date-time' } },
      finished: { label: 'finished', type: { kind: 'date-time' } },
      age: { label: 'age in working time', type: { kind: 'duration' } },
      decision: { label: 'decision', type: choice(options(DECISIONS)) },
      trial: { label: 'trial', type: { kind: 'yes-no' } },
    },
    me: {
      person: { label: 'myself', type: { kind: 'person', people } },
      groups: { label: 'my groups', type: { kind: 'list', of: choice(groups) } },
      department: { label: 'my department', type: { kind: 'text' } },
    },
  } as const satisfies Readonly<Record<string, Readonly<Record<string, { label: string; type: ScopeType }>>>>;
}

/**
 * The names that conditions about a stored request may use where somebody looks at it: those of
 * `requestScope`, where it stands as `request`, and who looks as `me`. A field of either name goes first.
 */
export function standingScope(fields: readonly Field[], known: KnownStanding = {}): Scope {
  const { request, me } = entries(known);
  return new Scope([
    { name: 'request', label: 'Request', type: { kind: 'context', entries: request } },
    { name: 'me', label: 'Me', type: { kind: 'context', entries: me } },
    ...requestScope(fields, known).names,
  ]);
}

const moment = (text: string | null): Value => (text === null ? null : DateTime.read(text));

/** What `me` stands for. */
export const meOf = ({ person, groups, department }: StandingViewer): Value => ({
  ...{ person, groups, department: department === '' ? null : department },
});

/** The values for `standingScope(fields)`, by slot. */
export function standingSlots(
  fields: readonly Field[],
  values: Values,
  facts: RequestFacts,
  { age, arrived, due, finished, ...standing }: RequestStanding,
  me: StandingViewer,
): Slots {
  const request = {
    ...standing,
    ...{ arrived: moment(arrived), due: moment(due), finished: moment(finished), age: new Duration(age * 60) },
  };
  return [request, meOf(me), ...requestSlots(fields, values, facts)];
}
