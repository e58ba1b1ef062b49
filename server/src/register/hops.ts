import type { FormDesign } from '@tolvek/core/form';
import type { Stage } from '@tolvek/core/register';
import type { ApprovalRow } from '../approval/commands.ts';
import type { RequestRow } from './queries.ts';

export interface Hop {
  label: string;
  state: 'past' | 'now' | 'ahead';
  detail: string;
}

interface HopInput {
  readonly request: RequestRow;
  readonly stage: Stage;
  readonly design: FormDesign;
  readonly approval: ApprovalRow | undefined;
  readonly teamName: string;
  readonly decidedBy: string | null;
  readonly moment: (ms: number) => string;
}

/**
 * A request's way as one line of hops. For the requester, without the routing row and with the
 * public words.
 */
export function hopsOf(input: HopInput, reader: 'desk' | 'requester'): Hop[] {
  const { request, stage, approval, moment } = input;
  const refused = approval?.state === 'refused';
  const hops: Hop[] = [{ label: 'Arrived', state: 'past', detail: moment(request.createdAt) }];
  if (reader === 'desk') {
    hops.push({
      label: request.routed.isOtherwise ? 'Last row' : `Row ${request.routed.row}`,
      state: 'past',
      detail: request.routed.reasons.find((row) => row.won)?.note || 'The routing table chose this row',
    });
  }
  if (approval) {
    const detail =
      approval.state === 'waiting'
        ? 'Waits for a decision'
        : reader === 'desk' || approval.decidedBy === null
          ? `${approval.state}${input.decidedBy ? ` by ${input.decidedBy}` : ''}${approval.decidedAt ? `, ${moment(approval.decidedAt)}` : ''}`
          : approval.state;
    const label = reader === 'desk' ? approval.label : 'Decision';
    hops.push({
      label: refused ? 'Not approved' : approval.state === 'approved' ? 'Approved' : label,
      state: approval.state === 'waiting' ? 'now' : 'past',
      detail,
    });
  }
  if (!refused) {
    const finished = request.phase === 'finished';
    const working = approval?.state !== 'waiting' && !finished;
    const label =
      reader === 'requester'
        ? working
          ? stage.publicLabel
          : 'In hand'
        : working && stage.phase !== 'arrived'
          ? `${input.teamName}, ${stage.label.toLowerCase()}`
          : input.teamName;
    hops.push({ label, state: working ? 'now' : finished ? 'past' : 'ahead', detail: working ? stage.label : '' });
    hops.push({
      label: reader === 'requester' && finished ? stage.publicLabel : 'Done',
      state: finished ? 'past' : 'ahead',
      detail: request.finishedAt ? moment(request.finishedAt) : `due ${moment(request.due)}`,
    });
  }
  return hops;
}
