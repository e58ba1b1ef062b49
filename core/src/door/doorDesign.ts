import { type Said, said } from '@tolvek/words';
import {
  compareContents,
  type DesignFinding,
  type DesignKind,
  type MergeRules,
  mergeContents,
} from '../design/index.ts';
import { groupsIn } from '../people/index.ts';
import type { DoorDesign } from './door.ts';

const PLACES: Readonly<Record<string, Said>> = {
  name: said('doors:theName'),
  audience: said('doors:theAudience'),
  proof: said('doors:theProof'),
  unnamed: said('doors:isUnnamed'),
  open: said('doors:isOpen'),
  opensAt: said('doors:theOpening'),
  closesAt: said('doors:theClosing'),
  limits: said('doors:theLimits'),
  closedMessage: said('doors:theMessage'),
};

const RULES: MergeRules = {
  lists: { limits: (item) => String(item.id) },
  nameOf: ([place = '']) => PLACES[place] ?? said('doors:theDoor'),
};

function found({ name, opensAt, closesAt, limits, unnamed }: DoorDesign): readonly DesignFinding[] {
  const error = (at: string, message: Said): DesignFinding => ({ severity: 'error', page: 'doors', at, message });
  return [
    ...(name.trim() === '' ? [error('name', said('doors:noName'))] : []),
    ...(unnamed && limits.some(({ of }) => of === 'each') ? [error('limits', said('doors:unnamedEach'))] : []),
    ...(opensAt !== null && closesAt !== null && closesAt <= opensAt
      ? [error('closesAt', said('doors:closesFirst'))]
      : []),
    ...limits.flatMap(({ id, of, days }, place) =>
      limits.findIndex((each) => each.of === of && each.days === days) === place
        ? []
        : [error(`limits ${id}`, said('doors:sameLimits'))],
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
  refersTo: ({ audience }) => groupsIn(audience).map((key) => ({ kind: 'group', key, at: said('doors:theAudience') })),
};
