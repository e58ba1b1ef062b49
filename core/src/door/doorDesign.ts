import {
  compareContents,
  type DesignFinding,
  type DesignKind,
  type MergeRules,
  mergeContents,
} from '../design/index.ts';
import { groupsIn } from '../people/index.ts';
import type { DoorDesign } from './door.ts';

const PLACES: Readonly<Record<string, string>> = {
  name: 'the name',
  audience: 'who may ask',
  proof: 'how people prove who they are',
  open: 'whether it is open',
  opensAt: 'when it opens',
  closesAt: 'when it closes',
  limits: 'how many may come in',
  closedMessage: 'what people read when it is closed',
};

const RULES: MergeRules = {
  lists: { limits: (item) => String(item.id) },
  nameOf: ([place = '']) => PLACES[place] ?? 'the door',
};

function found({ name, opensAt, closesAt, limits }: DoorDesign): readonly DesignFinding[] {
  const error = (at: string, message: string): DesignFinding => ({ severity: 'error', page: 'doors', at, message });
  return [
    ...(name.trim() === '' ? [error('name', 'The door has no name.')] : []),
    ...(opensAt !== null && closesAt !== null && closesAt <= opensAt
      ? [error('closesAt', 'The door closes before it opens: nobody could come in.')]
      : []),
    ...limits.flatMap(({ id, of, days }, place) =>
      limits.findIndex((each) => each.of === of && each.days === days) === place
        ? []
        : [error(`limits ${id}`, 'Two limits count the same. Leave one of them out.')],
    ),
  ];
}

/** Doors as designs. They are in force at once; what came in stays. */
export const DOOR: DesignKind<DoorDesign> = {
  kind: 'door',
  titleOf: ({ name }) => name,
  compare: (before, after) => compareContents(before, after, RULES),
  merge: (base, mine, theirs) => mergeContents(base, mine, theirs, RULES),
  findings: found,
  refersTo: ({ audience }) => groupsIn(audience).map((key) => ({ kind: 'group', key, at: 'who may ask' })),
};
