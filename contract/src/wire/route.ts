import { own } from '@tolvek/core/own';
import type { DeskRight } from '@tolvek/core/people';
import { z } from 'zod';

export type Method = 'GET' | 'POST' | 'PUT' | 'PATCH';

/** Who may call a route at all; what they get is decided request by request. */
export type Caller = 'anyone' | 'staff' | 'person' | 'link';

/**
 * A right that a route asks for before it is looked at what it is about: of the desk, or one with some requests.
 * `configure` is asked for in the register that the route is about, where it is about one; `build` in any.
 */
export type RouteRight = DeskRight | 'export' | 'build' | 'work';

/** What a call is made by: all that the browser needs to know of a route. */
export interface Head {
  readonly method: Method;
  /** With `:names` for the parameters. */
  readonly path: string;
  readonly caller: Caller;
  /** What staff need to call it at all; what they get is decided beyond that. `work`: any right of the desk. */
  readonly right?: RouteRight;
  /** It stands in for something outside: what is shown to that is no key of ours. */
  readonly standsIn?: true;
  /** Programs may call it, by a key of theirs; they get what their rights let them. */
  readonly programs?: true;
  /**
   * `Idempotency-Key`: sending the same key again gets the first answer. `If-Match`: the version
   * the edit was made on.
   */
  readonly guard?: 'Idempotency-Key' | 'If-Match';
  /** What it is sent; JSON unless it is said. */
  readonly takes?: 'bytes';
  /** What it answers with; JSON of its shape unless it is said. `json`: of any shape. */
  readonly gives?: 'bytes' | 'csv' | 'events' | 'json';
}

const ABOUT = { forms: 'form', registers: 'register', doors: 'door', mailings: 'mailing' } as const;

/** What says which register a route is about: a form, the register itself, a door or a mailing, and which parameter names it. */
export interface AboutRegister {
  readonly by: (typeof ABOUT)[keyof typeof ABOUT];
  readonly param: string;
}

/** What says which register a route is about; null for a route that is about none, or about all. */
export function aboutRegister({ path }: Pick<Head, 'path'>): AboutRegister | null {
  const [, of, param] = /^\/api\/(\w+)\/:(\w+)/.exec(path) ?? [];
  const by = of === undefined ? undefined : own(ABOUT, of);
  return by === undefined || param === undefined ? null : { by, param };
}

export type Heads = Readonly<Record<string, Head>>;

/** What a route says, is sent and answers; what it isn’t sent is left out. */
export interface Shapes {
  readonly says: string;
  readonly params?: z.ZodType;
  readonly query?: z.ZodType;
  readonly body?: z.ZodType;
  readonly answer: z.ZodType;
}

/** One HTTP route: the server serves it, the browser calls it, the OpenAPI document describes it. */
export interface Route extends Head, Required<Shapes> {
  readonly name: string;
}

const none = z.strictObject({});
type Shape<S, K extends string> = S extends { readonly [k in K]: infer T extends z.ZodType } ? T : typeof none;

/** Routes with the types of their heads and shapes. */
export type RoutesOf<H extends Heads, S extends { readonly [N in keyof H]: Shapes }> = {
  readonly [N in keyof H & string]: H[N] & {
    readonly name: N;
    readonly says: string;
    readonly params: Shape<S[N], 'params'>;
    readonly query: Shape<S[N], 'query'>;
    readonly body: Shape<S[N], 'body'>;
    readonly answer: S[N]['answer'];
  };
};

/**
 * Puts the heads of some routes and their shapes together. A shape that is forgotten, or one too many,
 * does not compile.
 *
 * @example routesOf({ health: { method: 'GET', path: '/api/health', caller: 'anyone' } },
 *   { health: { says: 'Whether it answers.', answer: z.object({ ok: z.boolean() }) } })
 */
export const routesOf = <const H extends Heads, S extends { readonly [N in keyof H]: Shapes }>(
  heads: H,
  shapes: S & { readonly [N in Exclude<keyof S, keyof H>]: never },
): RoutesOf<H, S> =>
  Object.fromEntries(
    Object.entries(heads).map(([name, head]) => [
      name,
      { params: none, query: none, body: none, ...head, ...shapes[name], name },
    ]),
  ) as never;
