import { canDo, type SkillAsked, type SkillHeld } from '@tolvek/core/assignment';
import { own } from '@tolvek/core/own';
import type { FieldValue, Values } from '@tolvek/core/register';
import type { SkillSource } from '@tolvek/core/settings';
import { and, eq, inArray, sql } from 'drizzle-orm';
import { todayAt } from '../people/settle.ts';
import type { Reader } from '../platform/database.ts';
import { type RegisterRow, registerByKey } from '../register/queries.ts';
import { requests } from '../request/tables.ts';
import { deskOf } from '../settings/queries.ts';
import { vocabulariesFor } from '../vocabulary/queries.ts';

/** Where it is kept who can do what: null where the desk says nothing, or the register is gone. */
export function skillsKept(db: Reader): { readonly source: SkillSource; readonly register: RegisterRow } | null {
  const { skills: source } = deskOf(db);
  const register = source && registerByKey(db, source.register);
  return source && register ? { source, register } : null;
}

/** The entries of a register that count: those in use. */
export const entriesInUse = ({ id, stages }: RegisterRow) =>
  and(
    ...[eq(requests.registerId, id), eq(requests.trial, false)],
    inArray(
      requests.stage,
      stages.flatMap(({ key, role }) => (role === 'done' ? [key] : [])),
    ),
  );

/** Texts in a value: of a field for one, or for several. */
const textsIn = (value: FieldValue | undefined): readonly string[] =>
  typeof value === 'string' ? [value] : Array.isArray(value) ? value.filter((each) => typeof each === 'string') : [];

/** A level as it is kept: a number, or a text that is one; null for none. */
function levelIn(value: FieldValue | undefined): number | null {
  const level = typeof value === 'string' && value.trim() !== '' ? Number(value) : value;
  return typeof level === 'number' && Number.isFinite(level) ? level : null;
}

/** What an entry of the register says that somebody can do: several skills where its field holds several. */
export function skillsIn({ skill, level, checked }: SkillSource, values: Values): readonly SkillHeld[] {
  const [day = null] = checked === '' ? [] : textsIn(own(values, checked));
  // Where levels are kept, an entry without one is of none yet.
  const held = level === '' ? null : (levelIn(own(values, level)) ?? 0);
  return textsIn(own(values, skill)).map((key) => ({ skill: key, level: held, checked: day }));
}

/** What some people can do, as the register has it, by person. */
export function skillsOf(db: Reader, ids: readonly string[]): ReadonlyMap<string, readonly SkillHeld[]> {
  const kept = skillsKept(db);
  const held = new Map<string, SkillHeld[]>();
  if (!kept || ids.length === 0) return held;
  const { source, register } = kept;
  const person = sql<string | null>`json_extract(${requests.values}, ${`$."${source.person}"`})`;
  for (const row of db
    .select({ person, values: requests.values })
    .from(requests)
    .where(and(entriesInUse(register), inArray(person, [...ids])))
    .all()) {
    const of = held.get(row.person ?? '') ?? [];
    of.push(...skillsIn(source, row.values));
    held.set(row.person ?? '', of);
  }
  return held;
}

/** Whether each of some people can do something today, as the register has it. */
export function abilityOf(db: Reader, ids: readonly string[], now: number): (id: string, asked: SkillAsked) => boolean {
  const held = skillsOf(db, ids);
  const today = todayAt(db, now);
  return (id, asked) => canDo(held.get(id) ?? [], asked, today);
}

/** The skills there are, by the field of the register that names them: what is no longer offered is none. */
export function skillOptions(
  db: Reader,
  { source, register }: NonNullable<ReturnType<typeof skillsKept>>,
): readonly { readonly key: string; readonly label: string }[] {
  const field = register.fields.find(({ key }) => key === source.skill);
  const type = field?.type;
  if (type?.kind === 'choice' || type?.kind === 'choices')
    return type.options.flatMap(({ key, label, retired }) => (retired ? [] : [{ key, label }]));
  if (!field || (type?.kind !== 'term' && type?.kind !== 'terms')) return [];
  return vocabulariesFor(db, [field]).flatMap(({ key, terms }) =>
    terms.flatMap((term) => (term.retired ? [] : [{ key: `${key}/${term.key}`, label: term.label }])),
  );
}

/** The skills that a rule can ask for; null where the desk does not say where they are kept. */
export function skillsToAsk(db: Reader): { key: string; label: string }[] | null {
  const kept = skillsKept(db);
  return kept && [...skillOptions(db, kept)];
}
