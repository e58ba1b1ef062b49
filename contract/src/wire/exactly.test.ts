import { expect, it } from 'vitest';
import { z } from 'zod';
import { exactly } from './exactly.ts';
import { routesOf } from './route.ts';

interface Step {
  readonly key: string;
  readonly help?: string | undefined;
  readonly seats: readonly ({ readonly group: string } | { readonly person: string; readonly until?: string })[];
}

const key = z.string();
const group = z.object({ group: key });
const seats = z.array(z.union([group, z.object({ person: key, until: key.exactOptional() })])).readonly();

it('takes a schema that says all of a type', () => {
  const schema = exactly<Step>()(z.object({ key, help: key.optional(), seats }));
  expect(schema.parse({ key: 'a', seats: [{ group: 'b' }] })).toEqual({ key: 'a', seats: [{ group: 'b' }] });
});

it('does not compile with a member less or one more, as deep as it may be and though it may be left out', () => {
  // @ts-expect-error `help` is forgotten.
  exactly<Step>()(z.object({ key, seats }));
  // @ts-expect-error `until` of one kind of seat is forgotten.
  exactly<Step>()(z.object({ key, help: key.optional(), seats: z.array(z.union([group, z.object({ person: key })])) }));
  // @ts-expect-error `more` is no member.
  exactly<Step>()(z.object({ key, help: key.optional(), seats, more: key.optional() }));
  // @ts-expect-error It is a text.
  exactly<Step>()(z.object({ key: z.int(), help: key.optional(), seats }));
});

it('puts heads and shapes together, none forgotten and none too many', () => {
  const heads = { look: { method: 'GET', path: '/look', caller: 'staff' } } as const;
  const look = { says: 'Looks.', answer: z.object({ seen: z.int() }) };
  expect(routesOf(heads, { look }).look).toMatchObject({ name: 'look', path: '/look', says: 'Looks.' });
  // @ts-expect-error `look` is forgotten.
  expect(Object.keys(routesOf(heads, {}))).toEqual(['look']);
  // @ts-expect-error `leave` has no head.
  expect(Object.keys(routesOf(heads, { look, leave: look }))).toEqual(['look']);
});
