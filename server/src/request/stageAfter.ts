import type { RequestChange } from '@tolvek/core/request';
import { firstStage, type RegisterRow, stageWithRole } from '../register/queries.ts';

/** The stage that a change moves a request to, by its key; null for a change that moves nothing. */
export function stageAfter(register: RegisterRow, change: RequestChange): string | null {
  switch (change.kind) {
    case 'stage':
    case 'freed':
    case 'withdrawn':
    case 'merged':
    case 'unmerged':
    case 'decided-anew':
    case 'sent-to-decide':
    case 'returned':
    case 'answered':
      return change.to;
    case 'decided': {
      // A verdict that others have to join in moves nothing yet.
      if (change.leadsTo === 'same-step' || change.leadsTo === 'next-step') return null;
      if (change.leadsTo === 'refused') return stageWithRole(register, 'refused').key;
      const back = register.stages.find(({ key, retired }) => key === change.to && !retired);
      return (back ?? firstStage(register)).key;
    }
    default:
      return null;
  }
}
