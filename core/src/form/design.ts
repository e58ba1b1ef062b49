import type { ApprovalPath } from '../approval/index.ts';
import type { DeadlinePlan } from '../deadline/index.ts';
import type { Field } from '../register/index.ts';
import type { RoutingTable } from '../routing/index.ts';

/** A question asks for one field, in words of its own. */
export interface Question {
  readonly field: string;
  /** What the requester reads; the field's label when empty. */
  readonly asks: string;
  readonly help: string;
  readonly required: boolean;
}

/** “When … then show …”: its questions stay away until the condition holds. */
export interface FormRule {
  readonly id: string;
  readonly name: string;
  /** FEEL over the fields, `requester`, `door` and `today`. */
  readonly when: string;
  readonly show: readonly string[];
  readonly on: boolean;
}

/** Everything a release freezes. */
export interface FormDesign {
  readonly title: string;
  readonly intro: string;
  /** What a request is called in lists, with fields in braces: `{visitor}, {institute}`. */
  readonly subject: string;
  readonly fields: readonly Field[];
  readonly questions: readonly Question[];
  readonly rules: readonly FormRule[];
  readonly routing: RoutingTable;
  readonly approval: ApprovalPath;
  readonly deadline: DeadlinePlan;
}
