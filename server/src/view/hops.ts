import type { AnswerOf } from '@tolvek/contract';
import type { Stage } from '@tolvek/core/register';
import { rowsSaying } from '@tolvek/core/routing';
import { said, type Words } from '@tolvek/words';
import type { RequestRow } from '../request/queries.ts';
import type { Decision } from './decision.ts';
import type { RoutingTold } from './routing.ts';

export type Hop = AnswerOf<'sheet'>['hops'][number];

interface HopInput {
  readonly request: RequestRow;
  readonly routed: RoutingTold | null;
  readonly stage: Stage;
  /** What requesters read of the stage. */
  readonly publicStage: string;
  readonly approval: Decision | undefined;
  readonly teamName: string;
  readonly decidedBy: string | null;
  /** Whether the reader may know which row of the routing table was taken. */
  readonly isRoutingOpen: boolean;
  /** When it is to be finished, epoch ms; null where that may not be told. */
  readonly finish: number | null;
}

type Reader = 'desk' | 'requester';

/**
 * A request's way as one line of hops. For the requester, without the routing row and with the
 * public words.
 */
export function hopsOf(input: HopInput, reader: Reader): Hop[] {
  const { request, routed, approval } = input;
  const at = said('hops:at', { at: request.createdAt });
  const first = said(reader === 'desk' ? 'hops:arrived' : 'hops:sent');
  return [
    { is: 'sent', label: first, state: 'past', detail: at },
    ...(reader === 'desk' && routed ? [routedHop(routed, input.isRoutingOpen)] : []),
    ...(approval ? [decisionHop(approval, input, reader)] : []),
    ...(approval?.state === 'refused' ? [] : [workHop(input, reader), lastHop(input, reader)]),
  ];
}

const routedHop = (routed: RoutingTold, isOpen: boolean): Hop => ({
  is: 'routed',
  label: said('hops:routed'),
  state: 'past',
  detail: isOpen ? byRow(routed) : said('hops:byTable'),
});

function byRow({ row, by, isOtherwise, note }: RoutingTold): Words {
  const rows = rowsSaying({ row, by });
  if (rows.length > 1) return said('hops:byRows', { rows: rows.map(String) });
  if (isOtherwise) return said('hops:byLastRow');
  return note ? said('hops:byRowNote', { row, note }) : said('hops:byRow', { row });
}

const DECIDED = {
  waiting: 'hops:decision',
  withdrawn: 'hops:decision',
  approved: 'hops:approved',
  refused: 'hops:notApproved',
} as const;

function decisionHop(approval: Decision, { decidedBy }: HopInput, reader: Reader): Hop {
  const { state } = approval;
  const isOpen = state === 'waiting' || state === 'withdrawn';
  return {
    is: 'decision',
    label: reader === 'desk' && isOpen ? approval.label : said(DECIDED[state]),
    state: state === 'waiting' ? 'now' : 'past',
    detail: decisionDetail(approval, reader === 'desk' || approval.decidedBy === null ? decidedBy : null),
  };
}

function decisionDetail({ state, silently, since, until, decidedAt: at }: Decision, by: string | null): Words {
  if (state === 'waiting') {
    if (since === null) return said('hops:waits');
    return until === null ? said('hops:waitsSince', { since }) : said('hops:waitsUntil', { since, until });
  }
  if (state === 'withdrawn') return said('hops:withdrawn');
  if (silently) return said(state === 'approved' ? 'hops:approvedSilently' : 'hops:refusedSilently');
  if (at === null) return said(state === 'approved' ? 'hops:approved' : 'hops:notApproved');
  if (by) return said(state === 'approved' ? 'hops:approvedBy' : 'hops:refusedBy', { by, at });
  return said(state === 'approved' ? 'hops:approvedAt' : 'hops:refusedAt', { at });
}

const isWorking = ({ approval, request }: HopInput): boolean =>
  approval?.state !== 'waiting' && request.phase !== 'finished';

function workHop(input: HopInput, reader: Reader): Hop {
  const { stage, publicStage, teamName: team, request } = input;
  const working = isWorking(input);
  return {
    is: 'work',
    label: reader === 'requester' ? (working ? publicStage : said('hops:inHand')) : deskLabel(stage, team, working),
    state: working ? 'now' : request.phase === 'finished' ? 'past' : 'ahead',
    detail: working ? (reader === 'requester' ? publicStage : stage.label) : '',
  };
}

const deskLabel = (stage: Stage, team: string, working: boolean): Words =>
  working && stage.phase !== 'arrived' ? said('hops:teamAt', { team, stage: stage.label }) : team;

function lastHop({ request, publicStage, finish }: HopInput, reader: Reader): Hop {
  const finished = request.phase === 'finished';
  const { finishedAt } = request;
  return {
    is: 'end',
    label: reader === 'requester' && finished ? publicStage : said('hops:done'),
    state: finished ? 'past' : 'ahead',
    detail: finishedAt ? said('hops:at', { at: finishedAt }) : finish === null ? '' : said('hops:due', { at: finish }),
  };
}
