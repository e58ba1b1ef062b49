/** What a name in an expression can stand for. */
export type ScopeType =
  | { readonly kind: 'text' | 'number' | 'date' | 'yes-no' | 'duration' }
  | { readonly kind: 'choice'; readonly options: readonly { readonly key: string; readonly label: string }[] }
  | { readonly kind: 'list'; readonly of: ScopeType }
  | { readonly kind: 'context'; readonly entries: Readonly<Record<string, { readonly label: string; readonly type: ScopeType }>> };

export interface ScopeName {
  readonly name: string;
  readonly label: string;
  readonly type: ScopeType;
}

/** The names an expression may use. A name's position is its slot in the values handed to a compiled expression. */
export class Scope {
  private readonly slots: ReadonlyMap<string, number>;

  constructor(readonly names: readonly ScopeName[]) {
    this.slots = new Map(names.map((entry, slot) => [entry.name, slot]));
  }

  slotOf(name: string): number | undefined {
    return this.slots.get(name);
  }

  find(name: string): ScopeName | undefined {
    const slot = this.slots.get(name);
    return slot === undefined ? undefined : this.names[slot];
  }

  /** The known name that is spelled most like this one, if any is near. */
  nearest(name: string): ScopeName | undefined {
    let best: ScopeName | undefined;
    let least = Math.max(2, Math.floor(name.length / 3)) + 1;
    for (const entry of this.names) {
      const far = Math.min(distance(name, entry.name), distance(name.toLowerCase(), entry.label.toLowerCase()));
      if (far < least) [best, least] = [entry, far];
    }
    return best;
  }
}

/** Levenshtein's edit distance. */
function distance(a: string, b: string): number {
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
