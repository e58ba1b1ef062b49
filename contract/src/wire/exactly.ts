import type { Said } from '@tolvek/words';
import type { z } from 'zod';

/** The ways to every member of a type, as texts with dots; those of all members of a union. */
type Ways<T> = T extends string | Said | number | boolean | null | undefined
  ? never
  : T extends readonly (infer Each)[]
    ? Ways<Each>
    : T extends object
      ? { readonly [K in keyof T & string]: K | `${K}.${Ways<NonNullable<T[K]>>}` }[keyof T & string]
      : never;

/** `unknown` when a schema names every member of a type and no other; else what is forgotten or too much. */
type Says<T, S> = [Exclude<Ways<T>, Ways<S>>] extends [never]
  ? [Exclude<Ways<S>, Ways<T>>] extends [never]
    ? unknown
    : { readonly tooMuch: Exclude<Ways<S>, Ways<T>> }
  : { readonly forgotten: Exclude<Ways<T>, Ways<S>> };

/**
 * A schema of a core type, in both directions: a member that it forgets does not compile, though it be one
 * that may be left out, nor does one that the type doesn’t have.
 *
 * @example exactly<Term>()(z.strictObject({ key, label, under: key.optional() }))
 */
export const exactly =
  <T>() =>
  <S extends z.ZodType<T>>(schema: S & Says<T, z.output<S>>): z.ZodType<T, T> =>
    schema as unknown as z.ZodType<T, T>;
