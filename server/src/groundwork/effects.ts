import { REGISTER_RIGHTS, RIGHTS, type Right, rightInWords } from '@tolvek/core/people';
import { said, type Words } from '@tolvek/words';
import { holdersOfRight } from '../people/grants.ts';
import type { Reader } from '../platform/database.ts';
import type { House } from '../platform/house.ts';
import { type Work, write } from '../platform/work.ts';

/** Names that are told of those who get or lose a right. */
const NAMED = 5;

type Holders = ReadonlyMap<Right, ReadonlyMap<string, string>>;

/**
 * Who would get or lose which right by something that is done: it is done, looked at and taken back. `register`: where
 * it is looked at; the desk where it is null.
 */
export function effectsOf(house: House, does: (work: Work) => void, register: string | null = null): readonly Words[] {
  const rights = register === null ? RIGHTS : REGISTER_RIGHTS;
  const holders = (tx: Reader): Holders =>
    new Map(
      rights.map((right) => [right, new Map(holdersOfRight(tx, right, register).map((each) => [each.id, each.name]))]),
    );
  let effects: readonly Words[] = [];
  tried(house, (work) => {
    const before = holders(work.tx);
    does(work);
    const after = holders(work.tx);
    effects = rights.flatMap((right) => [
      ...told('gain', right, newIn(after, before, right)),
      ...told('lose', right, newIn(before, after, right)),
    ]);
  });
  return effects;
}

const newIn = (has: Holders, had: Holders, right: Right): readonly string[] =>
  [...(has.get(right) ?? [])].flatMap(([person, name]) => (had.get(right)?.has(person) ? [] : [name]));

const told = (what: 'gain' | 'lose', right: Right, people: readonly string[]): readonly Words[] =>
  people.length === 0
    ? []
    : [
        said(`ground:effect.${what}`, {
          ...{ right: rightInWords(right), people: people.slice(0, NAMED), count: people.length },
        }),
      ];

class Untold extends Error {}

/** Does something and takes it back: to see what it would come to. */
function tried(house: House, does: (work: Work) => void): void {
  try {
    write(house, (work) => {
      does(work);
      throw new Untold();
    });
  } catch (error) {
    if (!(error instanceof Untold)) throw error;
  }
}
