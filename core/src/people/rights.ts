import { type Said, said } from '@tolvek/words';

/** What can be done with requests: each with what one handles oneself, with those of one’s teams, or with all. */
export const REQUEST_RIGHTS = [
  ...(['read', 'change', 'move', 'assign', 'decide', 'delete', 'export', 'share', 'history'] as const),
] as const;
export type RequestRight = (typeof REQUEST_RIGHTS)[number];

/** What can be done with the desk itself. */
export const DESK_RIGHTS = ['configure', 'groundwork', 'people', 'rights', 'audit'] as const;
export type DeskRight = (typeof DESK_RIGHTS)[number];

/** How far a right with requests goes; each includes those before it. */
export const REACHES = ['own', 'team', 'all'] as const;
export type Reach = (typeof REACHES)[number];

/** Whoever handles a request reads it, and whoever is asked decides: that is no right that is given. */
type Inherent = 'read' | 'decide';

/** One right, as it is given: `read:team` is to read the requests of one’s teams, `read:all` to read all there are. */
export type Right = `${Exclude<RequestRight, Inherent>}:own` | `${RequestRight}:${Exclude<Reach, 'own'>}` | DeskRight;

/** Somebody with rights. */
interface Entitled {
  readonly rights: readonly Right[];
}

/** How far a right with requests can go, the least first. */
export const reachesOf = (right: RequestRight): readonly Reach[] =>
  right === 'read' || right === 'decide' ? ['team', 'all'] : REACHES;

/** All rights there are, in the order in which they are told. */
export const RIGHTS: readonly Right[] = [
  ...REQUEST_RIGHTS.flatMap((right) => reachesOf(right).map((reach) => `${right}:${reach}` as Right)),
  ...DESK_RIGHTS,
];

/** Rights that a register can give otherwise than the desk does. */
export const REGISTER_RIGHTS: readonly Right[] = RIGHTS.filter(
  (right) => right === 'configure' || !DESK_RIGHTS.some((each) => each === right),
);

export const isRight = (text: string): text is Right => RIGHTS.some((right) => right === text);

/** What every one of the staff may do from the start: work on what their teams are asked, and on what is theirs. */
export const FOR_EVERYONE: readonly Right[] = [
  ...(['read:team', 'change:team', 'move:team', 'assign:team', 'history:team'] as const),
];

/** Whether a right is another one, or goes further: to read all there are is to read those of one’s teams as well. */
export function includesRight(right: Right, other: string): boolean {
  if (right === other) return true;
  const [what, reach] = right.split(':');
  const [otherWhat, otherReach] = other.split(':');
  return what === otherWhat && REACHES.indexOf(reach as Reach) > REACHES.indexOf(otherReach as Reach) && isRight(other);
}

const COORDINATES: readonly Right[] = [
  ...(['read:all', 'change:all', 'move:all', 'assign:all', 'decide:all'] as const),
  ...(['export:all', 'share:all', 'history:all'] as const),
  ...(['configure', 'groundwork', 'people'] as const),
];

/** Rights that are given together, for convenience: a package is the list of its rights, and nothing more. */
export const PACKAGES = {
  coordinator: COORDINATES,
  administrator: [...COORDINATES, 'delete:all', 'rights', 'audit'],
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

/** How somebody stands to a request: it is theirs, of one of their teams or desks, or of neither. */
export type Standing = 'own' | 'team' | 'none';

const REACHED: Readonly<Record<Standing, readonly Reach[]>> = { own: REACHES, team: ['team', 'all'], none: ['all'] };

/** Whether some rights let somebody who stands so to a request do something with it. */
export const mayWith = ({ rights }: Entitled, right: RequestRight, standing: Standing): boolean =>
  REACHED[standing].some((reach) => rights.some((each) => each === `${right}:${reach}`));

/** What a right allows, in a few words. */
export const rightInWords = (right: Right): Said => said(`rights:${right.replace(':', '.') as 'read.team'}`);
