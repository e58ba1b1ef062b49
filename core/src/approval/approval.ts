import type { Viewer } from '../people/index.ts';

/** One step: any member of the group may decide. */
export interface ApprovalStep {
  readonly id: string;
  readonly label: string;
  /** Key of the group whose members decide. */
  readonly group: string;
}

/** What must be decided, by whom. One step so far. */
export interface ApprovalPath {
  readonly step: ApprovalStep;
}

export type Verdict = 'approve' | 'refuse';
export type ApprovalState = 'waiting' | 'approved' | 'refused' | 'withdrawn';

/** Why somebody may not decide: a reason and a way out; null when they may. */
export function mayNotDecide(
  approval: { readonly state: ApprovalState; readonly group: string },
  viewer: Viewer,
  requesterId: string,
): { reason: string; fix: string } | null {
  if (approval.state !== 'waiting')
    return { reason: `This was already ${approval.state}.`, fix: 'Open the request to see who decided, and why.' };
  if (viewer.personId === requesterId)
    return { reason: 'Nobody decides their own request.', fix: 'Another member of the group has to decide.' };
  if (!viewer.groups.includes(approval.group))
    return {
      reason: 'Only members of the deciding group can decide this.',
      fix: 'Ask one of them, or ask the coordinator to add you.',
    };
  return null;
}

/** A refusal needs a reason the requester can act on. */
export function verdictProblem(
  verdict: Verdict,
  comment: string,
): { field: 'comment'; message: string; fix: string } | null {
  return verdict === 'refuse' && comment.trim() === ''
    ? {
        field: 'comment',
        message: 'A refusal needs a reason.',
        fix: 'Say in a sentence why, and what the requester could do instead.',
      }
    : null;
}
