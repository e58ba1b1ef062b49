import { type Said, said } from '@tolvek/words';

/** What can be done with requests; each with those of one’s teams, or with all. */
export const REQUEST_RIGHTS = ['read', 'change', 'move', 'assign', 'export'] as const;
export type RequestRight = (typeof REQUEST_RIGHTS)[number];

/** What can be done with the desk itself. */
export const DESK_RIGHTS = ['configure', 'groundwork', 'people', 'rights', 'audit'] as const;
export type DeskRight = (typeof DESK_RIGHTS)[number];

/** One right, as it is given: `read:team` is to read the requests of one’s teams, `read:all` to read all there are. */
export type Right = `${RequestRight}:team` | `${RequestRight}:all` | DeskRight;

/** Somebody with rights. */
interface Entitled {
  readonly rights: readonly Right[];
}

/** All rights there are, in the order in which they are told. */
export const RIGHTS: readonly Right[] = [
  ...REQUEST_RIGHTS.flatMap((right) => [`${right}:team`, `${right}:all`] as const),
  ...DESK_RIGHTS,
];

export const isRight = (text: string): text is Right => RIGHTS.some((right) => right === text);

/** What every one of the staff may do from the start: work on what their teams are asked, and on what is theirs. */
export const FOR_EVERYONE: readonly Right[] = ['read:team', 'change:team', 'move:team', 'assign:team'];

const COORDINATES: readonly Right[] = [
  ...(['read:all', 'change:all', 'move:all', 'assign:all', 'export:all'] as const),
  ...(['configure', 'groundwork', 'people'] as const),
];

/** Rights that are given together, for convenience: a package is the list of its rights, and nothing more. */
export const PACKAGES = {
  coordinator: COORDINATES,
  administrator: [...COORDINATES, 'rights', 'audit'],
} as const satisfies Readonly<Record<string, readonly Right[]>>;

/** A package, or none of them. */
export type PackageName = keyof typeof PACKAGES | 'member';

/** The largest package that is all among some rights. */
export function packageOf(rights: readonly string[]): PackageName {
  const holds = (name: keyof typeof PACKAGES): boolean => PACKAGES[name].every((right) => rights.includes(right));
  if (holds('administrator')) return 'administrator';
  return holds('coordinator') ? 'coordinator' : 'member';
}

/** Whether a viewer has a right of the desk. */
export const may = ({ rights }: Entitled, right: DeskRight): boolean => rights.includes(right);

/** Whether a viewer may do something with a request. `worksOn`: it belongs to one of their teams, or to them. */
export const mayWith = ({ rights }: Entitled, right: RequestRight, worksOn: boolean): boolean =>
  rights.includes(`${right}:all`) || (worksOn && rights.includes(`${right}:team`));

/** Whether a viewer lays or builds anything: has a place in the Workshop. */
export const worksInWorkshop = (viewer: Entitled): boolean => DESK_RIGHTS.some((right) => may(viewer, right));

/** What a right allows, in a few words. */
export const rightInWords = (right: Right): Said => said(`rights:${right.replace(':', '.') as 'read.team'}`);
