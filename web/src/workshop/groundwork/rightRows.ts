import {
  REACHES,
  REQUEST_RIGHTS,
  type Reach,
  type RequestRight,
  type Right,
  reachesOf,
  rightInWords,
} from '@tolvek/core/people';
import { said, type Words } from '@tolvek/words';

/** One line of a table of rights: something that is done with requests, as far as it reaches; or a right of the desk. */
export type RightRow =
  | {
      readonly kind: 'requests';
      readonly right: RequestRight;
      readonly words: Words;
      readonly reaches: readonly Reach[];
    }
  | { readonly kind: 'desk'; readonly right: Right; readonly words: Words };

const rightTo = (right: RequestRight, reach: Reach): Right => `${right}:${reach}` as Right;

/** The lines that some rights make, in their order: those with requests in one line each. */
export function rowsOf(rights: readonly Right[]): readonly RightRow[] {
  const withRequests = REQUEST_RIGHTS.filter((right) => rights.some((each) => each.startsWith(`${right}:`)));
  const ofDesk = rights.filter((right) => !right.includes(':'));
  return [
    ...withRequests.map(
      (right): RightRow => ({
        ...{ kind: 'requests', right, words: said(`rights:row.${right}`), reaches: reachesOf(right) },
      }),
    ),
    ...ofDesk.map((right): RightRow => ({ kind: 'desk', right, words: rightInWords(right) })),
  ];
}

/** The rights of a line, the one that reaches furthest last. */
export const rightsOf = (row: RightRow): readonly Right[] =>
  row.kind === 'desk' ? [row.right] : row.reaches.map((reach) => rightTo(row.right, reach));

/** How far a right reaches that is given with some others; null where it is not given. */
export const reachOf = (right: RequestRight, given: readonly string[]): Reach | null =>
  REACHES.findLast((reach) => given.includes(rightTo(right, reach))) ?? null;

/** What is given and taken so that a right reaches so far, and no further; null: not given at all. */
export function toReach(
  right: RequestRight,
  reach: Reach | null,
  given: readonly string[],
): { readonly give: readonly Right[]; readonly take: readonly Right[] } {
  const wanted = reach === null ? [] : [rightTo(right, reach)];
  const others = reachesOf(right).map((each) => rightTo(right, each));
  return {
    give: wanted.filter((each) => !given.includes(each)),
    take: others.filter((each) => given.includes(each) && !wanted.includes(each)),
  };
}
