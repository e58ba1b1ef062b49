import type { Audience } from '../people/index.ts';

export type AccessLevel = 'hidden' | 'read' | 'write';

/** One rule of the access plan: for these people, these fields are hidden, readable or writable. */
export interface AccessRule {
  readonly id: string;
  readonly name: string;
  readonly fields: 'all' | readonly string[];
  readonly audience: Audience;
  readonly level: AccessLevel;
  /** An overriding rule sets aside the others that apply. */
  readonly overriding?: boolean;
}

/**
 * One way that a value takes, allowed on purpose by somebody who may read it: from a field to a
 * place where something is made of it.
 */
export interface Disclosure {
  readonly id: string;
  /** The id of the form. */
  readonly form: string;
  /** The sink’s lasting name in that form, and the expressions that were allowed. */
  readonly sink: string;
  readonly text: string;
  /** The key of the field that is told of. */
  readonly source: string;
  readonly what: 'verdict' | 'value';
  readonly reason: string;
  /** Who allowed it, by id, and when, epoch ms. */
  readonly by: string;
  readonly at: number;
}

/** A register’s access plan. It is always the one in force, whatever release a request came by. */
export interface AccessPlan {
  readonly rules: readonly AccessRule[];
  readonly disclosures?: readonly Disclosure[];
}
