import type { z } from 'zod';

export type Method = 'GET' | 'POST' | 'PUT' | 'PATCH';

/** Who may call a route at all; what they get is decided request by request. */
export type Caller = 'anyone' | 'staff' | 'coordinator' | 'link';

/**
 * One HTTP route: the server serves it, the browser calls it, the OpenAPI document describes it.
 */
export interface Route<
  P extends z.ZodType = z.ZodType,
  Q extends z.ZodType = z.ZodType,
  B extends z.ZodType = z.ZodType,
  A extends z.ZodType = z.ZodType,
  C extends Caller = Caller,
  Path extends string = string,
> {
  readonly name: string;
  readonly method: Method;
  /** With `:names` for the parameters. */
  readonly path: Path;
  readonly says: string;
  readonly caller: C;
  readonly params: P;
  readonly query: Q;
  readonly body: B;
  readonly answer: A;
  /**
   * `Idempotency-Key`: sending the same key again gets the first answer. `If-Match`: the version
   * the edit was made on.
   */
  readonly guard: 'none' | 'Idempotency-Key' | 'If-Match';
}

/** Keeps the types of a definition. */
export const route = <
  P extends z.ZodType,
  Q extends z.ZodType,
  B extends z.ZodType,
  A extends z.ZodType,
  C extends Caller,
  Path extends string,
>(
  definition: Route<P, Q, B, A, C, Path>,
): Route<P, Q, B, A, C, Path> => definition;
