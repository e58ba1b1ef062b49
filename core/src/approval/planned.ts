import { type Compiled, compileText, type Scope, type Slots } from '../expression/index.ts';
import type { ApprovalPath, ApprovalStep } from './approval.ts';

/** The condition of a step; null where it is asked always. */
export const conditionOf = ({ when = '' }: Pick<ApprovalStep, 'when'>): string | null =>
  when.trim() === '' ? null : when;

/** A path, compiled: the steps that one request is asked by, in turn; null where none of them applies to it. */
export type PathFor = (slots: Slots) => ApprovalPath | null;

/**
 * Compiles a path once. A step whose condition can’t be said (an empty answer compared with something) is not asked, as a
 * row of the routing table would not be taken; one that can’t be read is never asked, and findings stop its release.
 */
export function preparePath({ steps }: ApprovalPath, scope: Scope): PathFor {
  const ready = steps.map(({ when, ...step }): { readonly step: ApprovalStep; readonly holds: Compiled | null } => {
    const condition = conditionOf({ when });
    return { step, holds: condition === null ? null : compileText(condition, scope) };
  });
  return (slots) => {
    const asked = ready.flatMap(({ step, holds }) => (holds === null || holds(slots, null) === true ? [step] : []));
    return asked.length === 0 ? null : { steps: asked };
  };
}
