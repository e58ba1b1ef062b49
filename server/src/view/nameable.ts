import { hangsOn, rowHangs } from '@tolvek/core/deadline';
import { conditionFindings, type Scope } from '@tolvek/core/expression';
import { sinksOf } from '@tolvek/core/form';
import { rightsAt, type Viewer } from '@tolvek/core/people';
import type { Field, KnownStanding, Vocabulary } from '@tolvek/core/register';
import {
  type AroundView,
  fieldsShared,
  type ViewDesign,
  type ViewFact,
  viewInParts,
  viewScope,
} from '@tolvek/core/view';
import { sql } from 'drizzle-orm';
import { releaseById, releasesInto } from '../form/queries.ts';
import { knownNames } from '../people/queries.ts';
import type { Reader } from '../platform/database.ts';
import type { RegisterRow } from '../register/queries.ts';
import { askableIn, askableOf } from '../request/asking.ts';
import { protectionFor } from '../request/protection.ts';
import { knownStanding } from '../request/standing.ts';
import { tallies } from '../request/tables.ts';
import { vocabulariesFor } from '../vocabulary/queries.ts';
import { type Looking, workedBy } from './workedBy.ts';

/** What a view can name, as somebody may: fields they may not ask for are not there. */
export interface Nameable {
  readonly looking: Looking;
  readonly registers: readonly RegisterRow[];
  readonly fields: readonly Field[];
  /** Facts that would tell of a field they may not ask for. */
  readonly closed: readonly ViewFact[];
  readonly vocabularies: readonly Vocabulary[];
  readonly known: KnownStanding;
  readonly scope: Scope;
  /** What they may ask of the requests of a register, by its id. */
  readonly asking: (registerId: string) => ReturnType<typeof askableIn>;
}

/** The registers of which somebody reads something, or would as soon as something is there. */
export function lookedAtBy(looking: Looking): readonly RegisterRow[] {
  const { db, viewer } = looking;
  const held = new Set(
    db
      .selectDistinct({ id: tallies.registerId })
      .from(tallies)
      .where(workedBy(looking, tallies))
      .all()
      .map(({ id }) => id),
  );
  const works = ({ id, deskGroups }: RegisterRow): boolean =>
    rightsAt(viewer, id).includes('read:all') || deskGroups.some((group) => viewer.groups.includes(group));
  return looking.registers.filter((register) => held.has(register.id) || works(register));
}

/** What a request is due by, where that hangs on a field that somebody may not ask for: it would tell of it. */
function closedTo(db: Reader, viewer: Viewer, registers: readonly RegisterRow[]): readonly ViewFact[] {
  const isOpen = registers.every((register) => {
    const keys = releasesInto(db, register.id).flatMap((releaseId) => {
      const { release, route } = releaseById(db, releaseId);
      const { deadline, routing } = release.design;
      if (!deadline.deadlines.some(hangsOn) && !route.lengths.some(rowHangs)) return [];
      const protection = protectionFor(db, register, { releaseId, computedBy: null, trial: false });
      return sinksOf({ fields: register.fields, deadline, routing })
        .filter(({ kind }) => kind === 'deadline')
        .flatMap((sink) => protection.tells(sink));
    });
    return keys.length === 0 || askableOf(db, viewer, register, [...new Set(keys)]).unknown.length === 0;
  });
  return isOpen ? [] : ['request.due'];
}

/** What of each of several comes first, by its key. */
const eachKey = <T extends { readonly key: string }>(lists: readonly (readonly T[])[]): readonly T[] =>
  [
    ...new Map(
      lists
        .flat()
        .toReversed()
        .map((each) => [each.key, each]),
    ).values(),
  ].toReversed();

/** Of a register that is not looked at, nothing may be asked. */
const noneOf: ReturnType<typeof askableIn> = (unknown) => ({ unknown, where: sql`0`, isAll: false });

/** What a view of some registers can name, for somebody. `all`: those of which they read something. */
export function nameableIn(looking: Looking, keys: readonly string[], all = lookedAtBy(looking)): Nameable {
  const { db, viewer } = looking;
  const registers = keys.flatMap((key) => all.find((register) => register.key === key) ?? []);
  const closed = closedTo(db, viewer, registers);
  const shared = fieldsShared(registers.map(({ fields, left }) => fields.filter((field) => !left.includes(field.key))));
  const names = shared.map(({ key }) => key);
  const asked = new Map(registers.map((register) => [register.id, askableIn(db, viewer, register)]));
  const asking = (id: string): ReturnType<typeof askableIn> => asked.get(id) ?? noneOf;
  const unknown = new Set(registers.flatMap(({ id }) => asking(id)(names).unknown));
  const fields = shared.filter(({ key }) => !unknown.has(key));
  const vocabularies = vocabulariesFor(db, fields);
  const each = registers.map((register) => knownStanding(db, register));
  const known: KnownStanding = {
    ...knownNames(db),
    vocabularies,
    stages: eachKey(each.map(({ stages = [] }) => stages)),
    forms: eachKey(each.map(({ forms = [] }) => forms)),
  };
  return { looking, registers, fields, closed, vocabularies, known, scope: viewScope(fields, known, closed), asking };
}

/** The same for many views: what those that look at the same can name is found once. */
export function naming(looking: Looking, all = lookedAtBy(looking)): (keys: readonly string[]) => Nameable {
  const known = new Map<string, Nameable>();
  return (keys) => {
    const found = known.get(keys.join()) ?? nameableIn(looking, keys, all);
    known.set(keys.join(), found);
    return found;
  };
}

/** What findings of a view depend on, for somebody. */
export const aroundView = ({ registers, fields, closed, scope }: Nameable): AroundView => ({
  registers: registers.map(({ key }) => key),
  ...{ fields, closed },
  unreadable: (condition) => conditionFindings(condition, scope)[0]?.message ?? null,
});

/** A view as the parts of its sentence. */
export const saysOf = (view: ViewDesign, { registers, fields, scope }: Nameable) =>
  viewInParts(view, {
    fields,
    scope,
    register: (key) => registers.find((each) => each.key === key)?.name ?? key,
  }).map(({ part, words }) => ({ part, words }));
