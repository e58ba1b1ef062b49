import type { Viewer } from './audience.ts';

/** What a seat is held by: the members of a group, or one person. */
export type Holder = { readonly group: string } | { readonly person: string };

/** A holder as one word: the key of a group, or `@` and the id of a person, which no key begins with. */
export const wordOf = (holder: Holder): string => ('group' in holder ? holder.group : `@${holder.person}`);

export const holderOf = (word: string): Holder => (word.startsWith('@') ? { person: word.slice(1) } : { group: word });

/** Every word by which a viewer holds something: their groups, and they themselves. */
export const holdersOf = ({ personId, groups }: Pick<Viewer, 'personId' | 'groups'>): readonly string[] => [
  ...groups,
  wordOf({ person: personId }),
];

/** Every word by which a viewer decides: those by which they hold seats, and those whose place they take. */
export const seatsHeldBy = (viewer: Pick<Viewer, 'personId' | 'groups' | 'standsIn'>): readonly string[] => [
  ...holdersOf(viewer),
  ...(viewer.standsIn ?? []),
];
