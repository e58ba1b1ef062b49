import type { AnswerOf } from '@tolvek/contract';

type SeenField = AnswerOf<'seeAs'>['fields'][number];

/** What of a field is another thing for the same eyes: whether it is seen, may be changed, and why. */
const same = (one: SeenField | undefined, other: SeenField | undefined): boolean =>
  JSON.stringify([one?.level, one?.isMasked, one?.layout, one?.rule]) ===
  JSON.stringify([other?.level, other?.isMasked, other?.layout, other?.rule]);

/** Fields of two requests, each once, in the order of the first. */
export function besideEachOther(
  one: readonly SeenField[],
  other: readonly SeenField[],
): readonly {
  readonly key: string;
  readonly label: string;
  readonly sides: readonly (SeenField | undefined)[];
  readonly isAlike: boolean;
}[] {
  const all = [...one, ...other.filter(({ key }) => !one.some((each) => each.key === key))];
  return all.map(({ key, label }) => {
    const sides = [one, other].map((fields) => fields.find((field) => field.key === key));
    return { key, label, sides, isAlike: same(sides[0], sides[1]) };
  });
}
