import type { Field } from '../register/index.ts';
import type { Disclosure } from './plan.ts';
import type { Sink } from './sinks.ts';

/** What something tells of, as bits of fields. */
export interface Told {
  /** Every field that something of is told by it. */
  readonly all: bigint;
  /** Those of them whose value it tells, not only whether something holds. */
  readonly value: bigint;
}

/** A field, and the place where it is read. */
export interface Step {
  readonly field: string;
  readonly sink: Sink;
}

const NOTHING: Told = { all: 0n, value: 0n };

/** The keys of fields as bits of a number. */
export class FieldBits {
  private readonly places: ReadonlyMap<string, number>;

  constructor(readonly keys: readonly string[]) {
    this.places = new Map(keys.map((key, index) => [key, index]));
  }

  /** Zero for what is no field. */
  of(key: string): bigint {
    const place = this.places.get(key);
    return place === undefined ? 0n : 1n << BigInt(place);
  }

  keysIn(bits: bigint): readonly string[] {
    const keys: string[] = [];
    for (let index = 0, left = bits; left !== 0n; index += 1, left >>= 1n)
      if ((left & 1n) === 1n) keys.push(this.keys[index] ?? '');
    return keys;
  }
}

/** What a disclosure is about. */
export type Allowed = Pick<Disclosure, 'sink' | 'text' | 'source' | 'what'>;

function byKey<T>(values: readonly T[], keysOf: (value: T) => readonly string[]): ReadonlyMap<string, readonly T[]> {
  const found = new Map<string, T[]>();
  for (const value of values)
    for (const key of new Set(keysOf(value))) {
      const before = found.get(key);
      if (before) before.push(value);
      else found.set(key, [value]);
    }
  return found;
}

const fieldMade = ({ readers }: Sink): string | null => (readers.who === 'field' ? readers.field : null);

/**
 * Follows values from field to field, to the end. What was disclosed on purpose at a place is not
 * followed any further from there.
 */
export class Origins {
  readonly bits: FieldBits;
  private readonly into: ReadonlyMap<string, readonly Sink[]>;
  private readonly readBy: ReadonlyMap<string, readonly Sink[]>;
  private readonly allowed: ReadonlyMap<string, readonly Allowed[]>;
  private readonly carried = new Map<string, Told>();

  /** `stopped`: bits of fields that are not followed any further from a place, besides. */
  constructor(
    fields: readonly Pick<Field, 'key'>[],
    sinks: readonly Sink[],
    allowed: readonly Allowed[] = [],
    private readonly stopped: ReadonlyMap<Sink, bigint> = new Map(),
  ) {
    this.bits = new FieldBits([...new Set(fields.map((field) => field.key))]);
    this.into = byKey(sinks, (sink) => [fieldMade(sink) ?? []].flat());
    this.readBy = byKey(sinks, (sink) => sink.reads.map((read) => read.field));
    this.allowed = byKey(allowed, (each) => [each.sink]);
    this.settle();
  }

  /** Goes round until nothing more is carried. Circles end too: what is carried only grows. */
  private settle(): void {
    for (let moved = true; moved; ) {
      moved = false;
      for (const [key, sinks] of this.into) {
        const before = this.carried.get(key) ?? NOTHING;
        let { all, value } = before;
        for (const sink of sinks) {
          const told = this.toldAt(sink);
          const stopped = this.stopped.get(sink) ?? 0n;
          all |= told.all & ~stopped;
          value |= told.value & ~stopped;
        }
        if (all === before.all && value === before.value) continue;
        this.carried.set(key, { all, value });
        moved = true;
      }
    }
  }

  /** What a place tells of: the fields it reads, and all that those are made from. */
  toldAt(sink: Sink): Told {
    let [all, value] = [0n, 0n];
    for (const { field, how } of sink.reads) {
      const from = this.carried.get(field) ?? NOTHING;
      const itself = this.bits.of(field);
      all |= itself | from.all;
      if (how === 'value') value |= itself | from.value;
    }
    for (const { text, source, what } of this.allowed.get(sink.id) ?? []) {
      const bit = this.bits.of(source);
      if (text !== sink.text || (what === 'verdict' && (value & bit) !== 0n)) continue;
      all &= ~bit;
      value &= ~bit;
    }
    return { all, value };
  }

  /** The keys of the fields that a field is made from, to the end; without itself. */
  of(key: string): readonly string[] {
    const { all } = this.carried.get(key) ?? NOTHING;
    return this.bits.keysIn(all & ~this.bits.of(key));
  }

  /**
   * The shortest way from a field to a place, as the fields it goes through and where each of them
   * is read; empty when there is none.
   */
  way(source: string, to: Sink): readonly Step[] {
    const bit = this.bits.of(source);
    const seen = new Set([source]);
    let ends: readonly { readonly at: string; readonly steps: readonly Step[] }[] = [{ at: source, steps: [] }];
    while (ends.length > 0) {
      const next: { at: string; steps: readonly Step[] }[] = [];
      for (const { at, steps } of ends) {
        if (to.reads.some((read) => read.field === at)) return [...steps, { field: at, sink: to }];
        for (const sink of this.readBy.get(at) ?? []) {
          const made = fieldMade(sink);
          if (made === null || seen.has(made) || (this.toldAt(sink).all & bit) === 0n) continue;
          seen.add(made);
          next.push({ at: made, steps: [...steps, { field: at, sink }] });
        }
      }
      ends = next;
    }
    return [];
  }
}
