import type { Viewer } from './audience.ts';
import { DESK_RIGHTS, may, mayWith, REGISTER_RIGHTS, type RequestRight, type Right, type Standing } from './rights.ts';

/** One right that a register gives a subject although the desk does not, or does not give although the desk does. */
export interface Difference {
  /** `*`, the key of a group, or a person’s word. */
  readonly subject: string;
  readonly right: Right;
  readonly given: boolean;
}

/** How the rights of one register differ from the desk’s. */
export interface RegisterRights {
  readonly register: string;
  /** What the desk gives counts for nothing there: only what the register gives itself. */
  readonly apart: boolean;
  readonly differences: readonly Difference[];
}

/** What is given, to whom. */
export interface Grant {
  readonly subject: string;
  readonly right: Right;
}

const OF_REGISTERS: ReadonlySet<Right> = new Set(REGISTER_RIGHTS);

/**
 * What is given at a register, from what the desk gives: what it takes away, or all where it stands apart, is not;
 * what it gives itself is. Rights that are the desk’s alone stay as they are.
 */
export function grantsAt(
  desk: readonly Grant[],
  { apart, differences }: Pick<RegisterRights, 'apart' | 'differences'>,
): readonly Grant[] {
  const taken = (grant: Grant): boolean =>
    differences.some((each) => !each.given && each.subject === grant.subject && each.right === grant.right);
  const stays = desk.filter((grant) => !OF_REGISTERS.has(grant.right) || (!apart && !taken(grant)));
  const added = differences.filter(
    ({ given, subject, right }) => given && !stays.some((grant) => grant.subject === subject && grant.right === right),
  );
  return [...stays, ...added.map(({ subject, right }) => ({ subject, right }))];
}

/** What somebody may do with what is in a register: as at the desk, unless it is otherwise there. */
export const rightsAt = (
  { rights, otherwise }: Pick<Viewer, 'rights' | 'otherwise'>,
  register: string,
): readonly Right[] => otherwise?.[register] ?? rights;

/** The same person, with the rights that count in a register. */
export const inRegister = (viewer: Viewer, register: string): Viewer => {
  const rights = rightsAt(viewer, register);
  return rights === viewer.rights ? viewer : { ...viewer, rights };
};

/** Whether somebody may do something with requests they stand so to, at the desk or in any register. */
export const mayAnywhere = (
  { rights, otherwise = {} }: Pick<Viewer, 'rights' | 'otherwise'>,
  right: RequestRight,
  standing: Standing,
): boolean => [rights, ...Object.values(otherwise)].some((each) => mayWith({ rights: each }, right, standing));

/** Whether somebody builds the forms of any register. */
export const configuresAnything = ({ rights, otherwise = {} }: Pick<Viewer, 'rights' | 'otherwise'>): boolean =>
  [rights, ...Object.values(otherwise)].some((each) => each.includes('configure'));

/** Whether somebody lays or builds anything: has a place in the Workshop. */
export const worksInWorkshop = (viewer: Viewer): boolean =>
  DESK_RIGHTS.some((right) => may(viewer, right)) || configuresAnything(viewer);
