import type { Words } from '@tolvek/words';
import type { ScopeType } from './types.ts';

export interface ScopeName {
  /** The lasting key that stored expressions use. */
  readonly name: string;
  /** What people read; and may write, where a person named it. It can change at any time. */
  readonly label: Words;
  /** Null: nothing is known of it. */
  readonly type: ScopeType | null;
}

/** Where the value of a name is found while an expression runs. */
export type NamePlace = { readonly kind: 'slot' | 'local'; readonly index: number };

/**
 * Words that mean something in an expression, so that a label with one of them in it is written by
 * its key.
 */
const RESERVED = new Set(
  'and or not in if then else for return some every satisfies between true false null instance of function item'.split(
    ' ',
  ),
);
const WORDS = /^[\p{L}_][\p{L}\p{N}_]*( [\p{L}\p{N}_]+)*$/u;

/**
 * The names an expression may use. A name's position is its slot in the values handed to a compiled
 * expression.
 */
export class Scope {
  private readonly slots: ReadonlyMap<string, number>;
  private readonly keys: ReadonlyMap<string, string>;

  constructor(
    readonly names: readonly ScopeName[],
    private readonly locals: readonly ScopeName[] = [],
  ) {
    this.slots = new Map(names.map((entry, slot) => [entry.name, slot]));
    this.keys = new Map(
      names.flatMap(({ name, label }) =>
        typeof label === 'string' && this.isWritable(name, label) ? [[label, name] as const] : [],
      ),
    );
  }

  /** The scope inside a loop: the same names and those it binds. Later ones hide earlier ones. */
  within(bound: readonly ScopeName[]): Scope {
    return new Scope(this.names, [...this.locals, ...bound]);
  }

  /** How many names loops bind around this place. */
  get depth(): number {
    return this.locals.length;
  }

  /** The name of a local by its place. */
  localAt(index: number): string {
    return this.locals[index]?.name ?? '';
  }

  placeOf(name: string): NamePlace | undefined {
    for (let index = this.locals.length - 1; index >= 0; index -= 1)
      if (this.locals[index]?.name === name) return { kind: 'local', index };
    const slot = this.slots.get(name);
    return slot === undefined ? undefined : { kind: 'slot', index: slot };
  }

  find(name: string): ScopeName | undefined {
    const place = this.placeOf(name);
    return place && (place.kind === 'local' ? this.locals[place.index] : this.names[place.index]);
  }

  /** The key behind a label, when the label can be written in an expression. */
  keyOf(label: string): string | undefined {
    return this.slots.has(label) ? label : this.keys.get(label);
  }

  /**
   * How a name is shown in an expression: its label where that can be written, its key otherwise.
   */
  shownAs(name: string): string {
    const label = this.names[this.slots.get(name) ?? -1]?.label;
    return typeof label === 'string' && this.keys.get(label) === name ? label : name;
  }

  /** Everything that may be written for a name. */
  get written(): readonly string[] {
    return [...this.slots.keys(), ...this.keys.keys()];
  }

  private isWritable(name: string, label: string): boolean {
    if (!WORDS.test(label) || label.split(' ').some((word) => RESERVED.has(word)) || this.slots.has(label))
      return false;
    return this.names.every((other) => other.name === name || other.label !== label);
  }

  /** The known name that is spelled most like this one, if any is near. */
  nearest(name: string): ScopeName | undefined {
    let best: ScopeName | undefined;
    let least = Math.max(2, Math.floor(name.length / 3)) + 1;
    for (const entry of [...this.names, ...this.locals]) {
      const label = typeof entry.label === 'string' ? entry.label : entry.name;
      const far = Math.min(distance(name, entry.name), distance(name.toLowerCase(), label.toLowerCase()));
      if (far < least) [best, least] = [entry, far];
    }
    return best;
  }
}

/** Levenshtein's edit distance. */
export function distance(a: string, b: string): number {
  let row = Array.from({ length: b.length + 1 }, (_, i) => i);
  for (let i = 1; i <= a.length; i += 1) {
    const next = [i];
    for (let j = 1; j <= b.length; j += 1) {
      const change = (row[j - 1] ?? 0) + (a[i - 1] === b[j - 1] ? 0 : 1);
      next.push(Math.min((row[j] ?? 0) + 1, (next[j - 1] ?? 0) + 1, change));
    }
    row = next;
  }
  return row[b.length] ?? 0;
}
