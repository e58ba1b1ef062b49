import { type Compiled, compileText, conditionOf, type Scope, type Slots } from '../expression/index.ts';
import type { ApprovalPath, ApprovalPlan, ApprovalStep } from './approval.ts';

/**
 * A plan, compiled: the steps of a path that one request is asked by, in turn; null where none of them applies to it, no
 * path is asked for (null), or it is not there.
 */
export type PathFor = (path: string | null, slots: Slots) => ApprovalPath | null;

/**
 * Compiles a plan once. A step whose condition can’t be said (an empty answer compared with something) is not asked, as a
 * row of the routing table would not be taken; one that can’t be read is never asked, and findings stop its release.
 */
export function preparePaths({ paths }: ApprovalPlan, scope: Scope): PathFor {
  const ready = paths.map((path) => ({
    path,
    steps: path.steps.map(({ when, ...step }): { readonly step: ApprovalStep; readonly holds: Compiled | null } => {
      const condition = conditionOf({ when });
      return { step, holds: condition === null ? null : compileText(condition, scope) };
    }),
  }));
  return (id, slots) => {
    const found = ready.find(({ path }) => path.id === id);
    if (!found) return null;
    const asked = found.steps.flatMap(({ step, holds }) =>
      holds === null || holds(slots, null) === true ? [step] : [],
    );
    return asked.length === 0 ? null : { ...found.path, steps: asked };
  };
}
