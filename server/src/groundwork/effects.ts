import { REGISTER_RIGHTS, RIGHTS, type Right, rightInWords } from '@tolvek/core/people';
import { said, type Words } from '@tolvek/words';
import { holdersOfRight } from '../people/given.ts';
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
    effects = [...told('gain', rights, newIn(after, before)), ...told('lose', rights, newIn(before, after))];
  });
  return effects;
}

type NewIn = (right: Right) => readonly string[];

/** Who has a right among some and not among others, by name. */
const newIn =
  (has: Holders, had: Holders): NewIn =>
  (right) =>
    [...(has.get(right) ?? [])].flatMap(([person, name]) => (had.get(right)?.has(person) ? [] : [name]));

/** Rights that the same people get, or lose, in one line. */
function told(what: 'gain' | 'lose', rights: readonly Right[], people: NewIn): readonly Words[] {
  const together = new Map<string, { readonly people: readonly string[]; readonly rights: Right[] }>();
  for (const right of rights) {
    const who = people(right);
    if (who.length === 0) continue;
    const key = who.join('\n');
    const line = together.get(key) ?? { people: who, rights: [] };
    together.set(key, line);
    line.rights.push(right);
  }
  return [...together.values()].map((line) =>
    said(`ground:effect.${what}`, {
      ...{ right: inOne(line.rights), people: line.people.slice(0, NAMED), count: line.people.length },
    }),
  );
}

/** Rights one after the other. */
const inOne = (rights: readonly Right[]): Words =>
  said('values:joined', {
    pieces: rights.flatMap((right, at) => (at > 0 ? [' · ', rightInWords(right)] : [rightInWords(right)])),
  });

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
