import { type Field, isFilled, partsOf } from '../register/index.ts';
import { planned } from './accessTo.ts';
import { circumstancesOf } from './circumstance.ts';
import { classesOf, type ViewerClass } from './classes.ts';
import { Origins, type Step } from './origins.ts';
import { type AccessPlan, concernedWith, type Deciding, type Disclosure, isPlaced, leavesToBuilders } from './plan.ts';
import { SINKS, type Sink } from './sinks.ts';

/** A place that tells somebody what the plan hides from them. */
export interface Leak {
  readonly sink: Sink;
  /** The field that is told of. */
  readonly source: Field;
  /** Its value, or only whether something holds. */
  readonly how: 'value' | 'verdict';
  /** Who would be told: of those the plan tells apart, the one in the fewest groups. */
  readonly to: ViewerClass;
  readonly way: readonly Step[];
}

/** What is looked through, and by which plan. */
export interface FlowInput {
  readonly fields: readonly Field[];
  readonly sinks: readonly Sink[];
  readonly plan: AccessPlan;
  /** Ways of this form that were allowed on purpose. */
  readonly disclosures?: readonly Disclosure[];
}

/**
 * The places that tell more than the plan allows. A place reads fields, directly and through other
 * fields to the end, and through the conditions that decide whether it is made. Whoever may read
 * what is made there has to be allowed to read all of that: for every kind of viewer that the plan
 * tells apart. Null when the plan tells more kinds of viewer apart than can be looked at.
 *
 * What is told of too freely at one place is not told of again at those that go on from there.
 */
export function leaksOf({ fields, sinks, plan, disclosures = [] }: FlowInput): readonly Leak[] | null {
  const readers = new Readership(fields, plan);
  if (!readers.isKnown) return null;
  const guarded = sinks.filter((sink) => SINKS[sink.kind] === 'release');
  const parts = partsOf(fields);
  const all = new Origins(parts, sinks, disclosures);
  const stopped = new Map<Sink, bigint>();
  for (const sink of guarded) {
    const open = readers.tooMuch(sink, all);
    if (open !== 0n) stopped.set(sink, open);
  }
  if (stopped.size === 0) return [];
  const first = new Origins(parts, sinks, disclosures, stopped);
  const fieldOf = new Map(parts.map((field) => [field.key, field]));
  return [...stopped.keys()].flatMap((sink) => {
    const { value } = first.toldAt(sink);
    return first.bits.keysIn(readers.tooMuch(sink, first)).flatMap((key): Leak[] => {
      const source = fieldOf.get(key);
      const to = readers.told(sink, key);
      const how = (value & first.bits.of(key)) === 0n ? 'verdict' : 'value';
      return source && to ? [{ sink, source, how, to, way: first.way(key, sink) }] : [];
    });
  });
}

const UNKNOWN: readonly ViewerClass[] = (circumstancesOf([]) ?? []).map((at) => ({
  ...{ groups: [], at },
  relation: { isDesk: true, isRequester: false },
}));

/**
 * Who may read what, as bits of kinds of viewer. Where the plan tells too many kinds apart, nobody
 * counts as one who may read anything.
 */
export class Readership {
  /** Whether the kinds of viewer are few enough to be told apart. */
  readonly isKnown: boolean;
  private readonly classes: readonly ViewerClass[];
  private readonly readable = new Map<string, bigint>();
  private readonly writable = new Map<string, bigint>();
  private readonly noMore = new WeakMap<Origins, Map<string, boolean>>();
  private readonly asked: ReadonlySet<string>;
  private readonly filled: ReadonlySet<string>;
  private readonly desk: bigint;
  private readonly changers: bigint;
  private readonly requesters: bigint;
  /** Keys of the fields that somebody may not read. */
  private readonly closed: readonly string[];

  constructor(fields: readonly Field[], plan: Deciding) {
    const { rules } = plan;
    const classes = classesOf(plan, undefined, leavesToBuilders(plan, fields));
    this.isKnown = classes !== null;
    this.classes = [...(classes ?? UNKNOWN)].sort((a, b) => a.groups.length - b.groups.length);
    let writing = 0n;
    // Fields that the same rules are about, and that come the same way, are read by the same people.
    const known = new Map<string, { readonly reads: bigint; readonly writes: bigint }>();
    for (const field of partsOf(fields)) {
      const concerned = concernedWith(plan, [field.key]);
      const alike = `${field.source} ${isPlaced(plan, field)} ${concerned.rules.map((rule) => rules.indexOf(rule)).join()}`;
      const found = known.get(alike) ?? this.readersOf(field, concerned);
      known.set(alike, found);
      this.readable.set(field.key, found.reads);
      this.writable.set(field.key, found.writes);
      writing |= found.writes;
    }
    const everybody = this.those(() => true);
    this.asked = new Set(partsOf(fields).flatMap((field) => (field.source === 'asked' ? [field.key] : [])));
    this.filled = new Set(partsOf(fields).flatMap((field) => (isFilled(field) ? [field.key] : [])));
    this.desk = this.those(({ relation }) => relation.isDesk);
    this.changers = writing;
    this.requesters = this.those(({ relation }) => relation.isRequester && !relation.isDesk);
    this.closed = [...this.readable].flatMap(([key, bits]) => (bits === everybody ? [] : [key]));
  }

  private readersOf(field: Field, plan: Deciding): { readonly reads: bigint; readonly writes: bigint } {
    const levels = this.classes.map((each) =>
      this.isKnown ? planned(field, plan, each, each.relation, each.at).level : 'hidden',
    );
    return {
      reads: this.those((_, index) => levels[index] !== 'hidden'),
      writes: isFilled(field) ? this.those((_, index) => levels[index] === 'write') : 0n,
    };
  }

  private those(is: (each: ViewerClass, index: number) => boolean): bigint {
    return this.classes.reduce((bits, each, index) => (is(each, index) ? bits | (1n << BigInt(index)) : bits), 0n);
  }

  /** Who reads what is made at a place. */
  private at({ readers }: Sink): bigint {
    switch (readers.who) {
      case 'field':
        return this.readable.get(readers.field) ?? 0n;
      case 'touching':
        return this.writable.get(readers.field) ?? 0n;
      case 'desk':
      case 'anybody':
        return this.desk;
      case 'changers':
        return this.changers;
      case 'asker':
        return this.requesters;
    }
  }

  private untold(sink: Sink, key: string): bigint {
    return this.at(sink) & ~(this.readable.get(key) ?? 0n);
  }

  /** The fields, as bits, that a place tells of to somebody who may not read them. */
  tooMuch(sink: Sink, origins: Origins): bigint {
    // Whoever fills a form in knows what they typed, and what follows from it: only what is shown to
    // them by name can be what the plan hides.
    const shown = sink.readers.who === 'asker' ? sink.reads.filter(({ how }) => how === 'value') : null;
    const told = origins.toldAt(sink).all;
    return this.closed.reduce((bits, key) => {
      const bit = origins.bits.of(key);
      if ((told & bit) === 0n || this.untold(sink, key) === 0n || this.isNoMoreThan(key, origins)) return bits;
      if (shown && (this.asked.has(key) || !shown.some((read) => read.field === key))) return bits;
      return bits | bit;
    }, 0n);
  }

  /**
   * Whether a field is computed or brought along, and hidden from nobody who may read all it comes
   * from: it tells no more than they do.
   */
  private isNoMoreThan(key: string, origins: Origins): boolean {
    if (this.filled.has(key) || !this.isKnown) return false;
    const known = this.noMore.get(origins) ?? new Map<string, boolean>();
    this.noMore.set(origins, known);
    let found = known.get(key);
    if (found === undefined) {
      const from = origins.of(key);
      const readers = from.reduce((bits, each) => bits & (this.readable.get(each) ?? 0n), ~0n);
      found = from.length > 0 && (readers & ~(this.readable.get(key) ?? 0n)) === 0n;
      known.set(key, found);
    }
    return found;
  }

  /** The one in the fewest groups whom a place tells of a field they may not read. */
  told(sink: Sink, key: string): ViewerClass | null {
    const open = this.untold(sink, key);
    return this.classes.find((_, index) => ((open >> BigInt(index)) & 1n) === 1n) ?? null;
  }
}
