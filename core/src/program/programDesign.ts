import { type Said, said } from '@tolvek/words';
import {
  compareContents,
  type DesignFinding,
  type DesignKind,
  type MergeRules,
  mergeContents,
} from '../design/index.ts';
import { isHookAddress, type Program } from './program.ts';

const PLACES: Readonly<Record<string, Said>> = {
  name: said('programs:theName'),
  note: said('programs:theNote'),
  address: said('programs:theAddress'),
  may: said('programs:theRights'),
  groups: said('programs:theGroups'),
  retired: said('programs:isRetired'),
};

const RULES: MergeRules = { lists: {}, nameOf: ([place = '']) => PLACES[place] ?? said('programs:theProgram') };

/** What findings of a program depend on besides: the groups and registers there are, by key and id. */
export interface ProgramSurroundings {
  readonly groups: readonly string[];
  readonly registers: readonly string[];
}

function found({ name, address, may, groups }: Program, around: ProgramSurroundings): readonly DesignFinding[] {
  const error = (at: string, message: Said): DesignFinding => ({ severity: 'error', page: 'program', at, message });
  const lostGroup = groups.some((group) => !around.groups.includes(group));
  const lostRegister = may.some(({ register }) => register !== null && !around.registers.includes(register));
  return [
    ...(name.trim() === '' ? [error('name', said('programs:noName'))] : []),
    ...(address === '' || isHookAddress(address) ? [] : [error('address', said('programs:badAddress'))]),
    ...(lostGroup ? [error('groups', said('programs:lostGroup'))] : []),
    ...(lostRegister ? [error('may', said('programs:lostRegister'))] : []),
  ];
}

/** Programs as designs. They are in force at once. */
export const PROGRAM: DesignKind<Program, ProgramSurroundings> = {
  kind: 'program',
  titleOf: ({ name }) => name,
  compare: (before, after) => compareContents(before, after, RULES),
  merge: (base, mine, theirs) => mergeContents(base, mine, theirs, RULES),
  findings: found,
  refersTo: ({ groups }) => groups.map((key) => ({ kind: 'group', key, at: said('programs:theGroups') })),
};
