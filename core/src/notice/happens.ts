import { FINISH } from '../deadline/index.ts';
import type { Happening } from '../request/index.ts';
import type { Occasion } from '../telling/index.ts';
import type { GroupCount } from './groups.ts';

/** What happens to a stage with what happens to a request; what moves one for itself happens besides. */
const MOVES: ReadonlySet<string> = new Set<Happening['kind']>([
  ...(['stage', 'freed', 'withdrawn', 'decided-anew', 'sent-to-decide', 'returned', 'answered', 'decided'] as const),
]);
/** Answers that nobody gave one by one: written otherwise by the house, or by a rule over many requests at once. */
const QUIETLY: ReadonlySet<string> = new Set(['numbered', 'recomputed', 'pointed', 'merged', 'rule', 'taken back']);

/** Where a request is when something has happened, and where it was before; null when it has just arrived. */
export interface Moved {
  readonly stage: string;
  readonly before: string | null;
}

/** Whether something that happened is what a notice is about. Whether its condition became true is asked besides. */
export function isAbout(on: Occasion, change: Happening, { stage, before }: Moved): boolean {
  switch (on.is) {
    case 'arrived':
      return change.kind === 'arrived' && change.through.by === 'door';
    case 'changed': {
      if (change.kind !== 'values' || QUIETLY.has(change.why)) return false;
      const fields = change.changes.map(({ field }) => field);
      return on.fields.length === 0 || fields.some((field) => on.fields.includes(field));
    }
    case 'stage': {
      const arrives = change.kind === 'arrived' && change.through.by === 'door';
      const isThere = on.stages.length === 0 ? before !== null : on.stages.includes(stage);
      return isThere && (arrives || (MOVES.has(change.kind) && before !== stage));
    }
    case 'team':
    case 'priority':
      return change.kind === on.is && change.from !== change.to;
    case 'handler':
      return change.kind === 'handler' && change.to !== null && change.from !== change.to;
    case 'decided':
      return (
        change.kind === 'decided' &&
        (change.leadsTo === 'approved' || change.leadsTo === 'refused') &&
        (on.as === 'either' || on.as === change.leadsTo)
      );
    case 'message': {
      if (change.kind !== 'said') return false;
      const from = change.byRequester ? 'requester' : change.to === 'requester' ? 'desk' : null;
      return from !== null && (on.from === 'either' || on.from === from);
    }
    case 'ring':
      return change.kind === 'rang' && (change.deadline ?? FINISH) === on.deadline && change.timer === on.ring;
    case 'becomes':
      return mayTurn(change);
    case 'group':
      return mayTurn(change) || MOVES.has(change.kind);
    case 'hand':
      return false;
  }
}

/** Whether what conditions read can be otherwise by it. */
const mayTurn = (change: Happening): boolean =>
  (change.kind === 'arrived' && change.through.by === 'door') ||
  (change.kind === 'values' && !QUIETLY.has(change.why)) ||
  change.kind === 'claimed' ||
  change.kind === 'same-person';

/** What was written with something that happened, empty where nothing was; `inside`: for the desk alone. */
export interface Written {
  readonly text: string;
  readonly inside?: true;
  readonly group?: GroupCount;
}

export function writtenWith(change: Happening): Written {
  switch (change.kind) {
    case 'said':
    case 'returned':
      return { text: change.text };
    case 'decided':
      return { text: change.comment };
    case 'withdrawn':
      return { text: change.reason };
    case 'freed':
    case 'team':
    case 'priority':
    case 'handler':
      return { text: change.reason ?? '', inside: true };
    default:
      return { text: '' };
  }
}
