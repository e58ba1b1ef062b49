import type { Stage } from '@tolvek/core/register';
import type { RequestRow } from '../request/queries.ts';
import type { Decision } from './decision.ts';
import type { RoutingTold } from './routing.ts';

export interface Hop {
  label: string;
  state: 'past' | 'now' | 'ahead';
  detail: string;
}

interface HopInput {
  readonly request: RequestRow;
  readonly routed: RoutingTold | null;
  readonly stage: Stage;
  readonly approval: Decision | undefined;
  readonly teamName: string;
  readonly decidedBy: string | null;
  readonly moment: (ms: number) => string;
  /** Whether the reader may know which row of the routing table was taken. */
  readonly isRoutingOpen: boolean;
}

/**
 * A request's way as one line of hops. For the requester, without the routing row and with the
 * public words.
 */
export function hopsOf(input: HopInput, reader: 'desk' | 'requester'): Hop[] {
  const { request, stage, approval, moment } = input;
  const refused = approval?.state === 'refused';
  const hops: Hop[] = [{ label: 'Arrived', state: 'past', detail: moment(request.createdAt) }];
  if (reader === 'desk' && input.routed) {
    const { row, isOtherwise, note } = input.routed;
    hops.push(
      input.isRoutingOpen
        ? {
            label: isOtherwise ? 'Last row' : `Row ${row}`,
            state: 'past',
            detail: note || 'The routing table chose this row',
          }
        : { label: 'Routed', state: 'past', detail: 'By the routing table' },
    );
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
      detail: request.finishedAt
        ? moment(request.finishedAt)
        : request.due === null
          ? ''
          : `due ${moment(request.due)}`,
    });
  }
  return hops;
}
