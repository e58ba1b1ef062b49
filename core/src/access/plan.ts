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

/** A register's access plan. It is always the one in force, whatever release a request came by. */
export interface AccessPlan {
  readonly rules: readonly AccessRule[];
}
