import { said, type Words } from '@tolvek/words';
import type { Field, FieldValue, Phase } from '../register/index.ts';
import { addedParts, type FormDesign, type Instruction, type NamedAction } from './design.ts';

/** Who wants to take part. */
export interface Joining {
  readonly personId: string;
  readonly isStaff: boolean;
  /** Keys of their groups. */
  readonly groups: readonly string[];
}

/** How somebody stands to the places in a field for people. */
export interface TakingPart {
  /** Whether they have one. */
  readonly isIn: boolean;
  /** How many are free; null where nothing limits them. */
  readonly left: number | null;
  /** Why they can neither take one nor give theirs back; null where they can. */
  readonly whyNot: Words | null;
}

/** The named actions that words beside a request offer. */
export const actionsIn = (words: readonly Pick<Instruction, 'actions'>[]): readonly NamedAction[] =>
  words.flatMap(({ actions = [] }) => actions);

/** The ids of the approval paths that something else than a row begins: buttons of editions, and deadlines. */
export const pathsBegun = ({
  editions = [],
  deadline,
}: Partial<Pick<FormDesign, 'editions' | 'deadline'>>): ReadonlySet<string> =>
  new Set([
    ...editions
      .flatMap(({ differences }) => actionsIn(addedParts(differences).filter((part) => part.part === 'instruction')))
      .flatMap((action) => (action.does === 'begin' ? [action.path] : [])),
    ...(deadline?.deadlines ?? []).flatMap(({ rings }) =>
      rings.flatMap(({ does }) => does.flatMap((act) => (act.do === 'decide' ? [act.path] : []))),
    ),
  ]);

/** The people in a field, by id; none where it is not one for people. */
export const takingPart = (value: FieldValue | undefined): readonly string[] =>
  Array.isArray(value) ? (value as readonly unknown[]).filter((each) => typeof each === 'string') : [];

/**
 * Whether somebody can take a place among the people in a field, or give theirs back: each person has one, as many have
 * one as the field takes, of those it takes, as long as the request is not finished.
 */
export function placeFor(
  { type }: Pick<Field, 'type'>,
  value: FieldValue | undefined,
  { personId, isStaff, groups }: Joining,
  phase: Phase,
): TakingPart {
  const there = takingPart(value);
  const isIn = there.includes(personId);
  if (type.kind !== 'people') return { isIn: false, left: null, whyNot: said('actions:noPlaces') };
  const { most, from } = type;
  const left = most === undefined ? null : Math.max(0, most - there.length);
  const isTaken = isStaff && (from.length === 0 || groups.some((group) => from.includes(group)));
  const whyNot =
    phase === 'finished'
      ? said('actions:finished')
      : isIn
        ? null
        : !isTaken
          ? said('actions:notOffered')
          : left === 0
            ? said('actions:noPlaceLeft')
            : null;
  return { isIn, left, whyNot };
}

/** The people in a field with somebody among them, last, or without them; null where nobody is left. */
export function withPlaceOf(value: FieldValue | undefined, personId: string, takes: boolean): readonly string[] | null {
  const others = takingPart(value).filter((id) => id !== personId);
  const next = takes ? [...others, personId] : others;
  return next.length > 0 ? next : null;
}
