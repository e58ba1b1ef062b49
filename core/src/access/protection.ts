import type { Field } from '../register/index.ts';
import type { AccessPlan } from './plan.ts';
import type { Sink } from './sinks.ts';

/** What protects the fields of a request: the plan in force, and what each field is made from. */
export interface Protection {
  readonly fields: readonly Field[];
  readonly plan: AccessPlan;
  /** The fields, and columns of lines, that one is made from, to the end. */
  readonly madeFrom: (key: string) => readonly Field[];
  /** Whether a field is brought along from where it was closed since: nobody reads it here. */
  readonly isClosedElsewhere: (key: string) => boolean;
  /**
   * The keys of the fields that a place tells of although somebody who is told may not read them:
   * what is said there is withheld from whoever may not.
   */
  readonly tells: (sink: Sink) => readonly string[];
}
