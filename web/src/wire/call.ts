import type { FetchArgs } from '@reduxjs/toolkit/query/react';
import type { BodyOf, ParamsOf, QueryOf, RouteName, Routes } from '@tolvek/contract';
import { frontHeads } from '@tolvek/contract/front-heads';

/** Nothing to give where a route is not sent any. */
type Unless<T, Given> = string extends keyof T ? unknown : Given;
type Guarded<N extends RouteName> = Routes[N] extends { readonly guard: 'If-Match' }
  ? { readonly version: number }
  : Routes[N] extends { readonly guard: 'Idempotency-Key' }
    ? { readonly once: string }
    : unknown;
type Given<N extends RouteName> = Unless<ParamsOf<N>, { readonly [K in keyof ParamsOf<N>]: string | number }> &
  Unless<QueryOf<N>, { readonly query: QueryOf<N> }> &
  Unless<BodyOf<N>, { readonly body: BodyOf<N> }> &
  Guarded<N>;

/**
 * What a call of a route is given: its parameters by name, its `query` and `body`, the `version` the edit was
 * made on, and a key under which it is done `once`. Nothing for a route that is sent nothing.
 */
// biome-ignore lint/suspicious/noConfusingVoidType: the library's word for a call that is given nothing.
export type Asked<N extends RouteName> = unknown extends Given<N> ? void : Given<N>;

interface AnyAsked {
  readonly query?: Readonly<Record<string, unknown>>;
  readonly body?: unknown;
  readonly version?: number;
  readonly once?: string;
}

type Heads = Readonly<Record<string, { readonly method: string; readonly path: string; readonly guard?: string }>>;

/** How routes are called, of which the heads are given: address, method and guard come from them. */
export const callOf =
  <H extends Heads>(heads: H) =>
  <N extends RouteName & keyof H>(name: N) =>
  (asked: Asked<N>): FetchArgs => {
    const { method, path, guard } = heads[name] as Heads[string];
    const given: AnyAsked & Readonly<Record<string, unknown>> = { ...(asked as object | undefined) };
    const filled = path.replace(/:(\w+)/g, (_, param: string) => encodeURIComponent(String(given[param] ?? '')));
    const query = new URLSearchParams(
      Object.entries(given.query ?? {}).flatMap(([key, value]) => (value ? [[key, String(value)]] : [])),
    );
    return {
      url: query.size > 0 ? `${filled}?${query}` : filled,
      method,
      ...(method === 'GET' ? {} : { body: given.body ?? {} }),
      ...(guard === 'If-Match' ? { headers: { 'If-Match': `"${given.version}"` } } : {}),
      ...(guard === 'Idempotency-Key' ? { headers: { 'Idempotency-Key': given.once } } : {}),
    };
  };

/**
 * How a route of the Front desk is called.
 *
 * @example call('changeMine')({ number: 'AC-00012', version: 3, body: { changes: { berth: 'B2' } } })
 */
export const call = callOf(frontHeads);
