import { Scope } from '../src/expression/index.ts';
import type { RoutingTable } from '../src/routing/index.ts';

/** The same figures at every run (mulberry32): large tables to be analysed. */
function seeded(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let mixed = Math.imul(state ^ (state >>> 15), state | 1);
    mixed ^= mixed + Math.imul(mixed ^ (mixed >>> 7), mixed | 61);
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 4_294_967_296;
  };
}

export interface LargeTable {
  readonly scope: Scope;
  readonly table: RoutingTable;
}

/**
 * A table of rows over columns named by their kind: `n` numbers with two decimals, `c` choices of
 * twelve, `b` yes or no. About a third of the cells are empty.
 */
export function largeTable(kinds: string, rows: number, seed: number, empty = 0.35): LargeTable {
  const random = seeded(seed);
  const upTo = (most: number): number => Math.floor(random() * most);
  const options = Array.from({ length: 12 }, (_, index) => ({ key: `o${index}`, label: `Option ${index}` }));
  const names = [...kinds].map((kind, index) => ({ name: `${kind}${index}`, kind }));
  const scope = new Scope(
    names.map(({ name, kind }) => ({
      name,
      label: name,
      type:
        kind === 'n' ? { kind: 'number', places: 2 } : kind === 'c' ? { kind: 'choice', options } : { kind: 'yes-no' },
    })),
  );
  const cell = (kind: string): string => {
    if (random() < empty) return '';
    if (kind === 'n') {
      const low = upTo(900);
      return random() < 0.5 ? `> ${low}` : `[${low}..${low + 1 + upTo(400)}]`;
    }
    return kind === 'c' ? `"o${upTo(12)}", "o${upTo(12)}"` : String(random() < 0.5);
  };
  const outcome = { team: 't', priority: 'normal', workingDays: 1, path: null } as const;
  return {
    scope,
    table: {
      columns: names.map(({ name }) => ({ id: name, label: name, input: name })),
      rows: Array.from({ length: rows }, (_, index) => ({
        id: String(index),
        note: '',
        cells: Object.fromEntries(names.map(({ name, kind }) => [name, cell(kind)])),
        outcome,
      })),
      otherwise: outcome,
    },
  };
}

/** 200 rows over three numbers, three choices and two of yes or no, as the bench measures. */
export const benchTable = (): LargeTable => largeTable('nnncccbb', 200, 5);

/** 200 rows of which half of the eight columns are numbers: few values tell two rows apart. */
export const numbersTable = (): LargeTable => largeTable('nnnncccb', 200, 7);
