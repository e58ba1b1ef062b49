import { conditionFindings, type Scope } from '@tolvek/core/expression';
import type { Viewer } from '@tolvek/core/people';
import { type Field, type KnownStanding, standingScope, type Vocabulary } from '@tolvek/core/register';
import { type AroundView, fieldsShared, type ViewDesign, viewInParts } from '@tolvek/core/view';
import { knownNames } from '../people/queries.ts';
import type { Reader } from '../platform/database.ts';
import { allRegisters, type RegisterRow } from '../register/queries.ts';
import { askableOf } from '../request/asking.ts';
import { knownStanding } from '../request/standing.ts';
import { vocabulariesFor } from '../vocabulary/queries.ts';

/** What a view can name, as somebody may: fields they may not ask for are not there. */
export interface Nameable {
  readonly registers: readonly RegisterRow[];
  readonly fields: readonly Field[];
  readonly vocabularies: readonly Vocabulary[];
  readonly known: KnownStanding;
  readonly scope: Scope;
}

/** The registers that keys name, as far as there are such. */
const registersNamed = (db: Reader, keys: readonly string[]): readonly RegisterRow[] => {
  const all = allRegisters(db);
  return keys.flatMap((key) => all.find((register) => register.key === key) ?? []);
};

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

/** What a view of some registers can name, for somebody. */
export function nameableIn(db: Reader, viewer: Viewer, keys: readonly string[]): Nameable {
  const registers = registersNamed(db, keys);
  const shared = fieldsShared(registers.map(({ fields, left }) => fields.filter((field) => !left.includes(field.key))));
  const names = shared.map(({ key }) => key);
  const unknown = new Set(registers.flatMap((register) => askableOf(db, viewer, register, names).unknown));
  const fields = shared.filter(({ key }) => !unknown.has(key));
  const vocabularies = vocabulariesFor(db, fields);
  const each = registers.map((register) => knownStanding(db, register));
  const known: KnownStanding = {
    ...knownNames(db),
    vocabularies,
    stages: eachKey(each.map(({ stages = [] }) => stages)),
    forms: eachKey(each.map(({ forms = [] }) => forms)),
  };
  return { registers, fields, vocabularies, known, scope: standingScope(fields, known) };
}

/** What findings of a view depend on, for somebody. */
export const aroundView = (db: Reader, { fields, scope }: Nameable): AroundView => ({
  registers: allRegisters(db).map(({ key }) => key),
  fields,
  unreadable: (condition) => conditionFindings(condition, scope)[0]?.message ?? null,
});

/** A view as the parts of its sentence. */
export const saysOf = (view: ViewDesign, { registers, fields, scope }: Nameable) =>
  viewInParts(view, {
    fields,
    scope,
    register: (key) => registers.find((each) => each.key === key)?.name ?? key,
  }).map(({ part, words }) => ({ part, words }));
