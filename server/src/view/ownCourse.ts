import type { AnswerOf } from '@tolvek/contract';
import { publicLabelIn } from '@tolvek/core/register';
import { said } from '@tolvek/words';
import { iso } from '../platform/clock.ts';
import { stageOf } from '../register/queries.ts';
import type { historyOfRequest } from '../request/history.ts';
import type { OpenRequest } from '../request/open.ts';
import type { RequestRow } from '../request/queries.ts';
import { stagesReached } from '../request/stagesReached.ts';
import type { Decision } from './decision.ts';

type Course = AnswerOf<'follow'>['course'];

/**
 * How a request went and what comes next, as its requester reads it: each stage in the public words, one line for as long as
 * these stay the same, then the decision that is waited for and when it is planned to be finished. `finish`: epoch ms; null
 * where that may not be told.
 */
export function ownCourse(
  { request, register, spoken }: Pick<OpenRequest<RequestRow>, 'request' | 'register' | 'spoken'>,
  happened: ReturnType<typeof historyOfRequest>,
  { approval, finish }: { readonly approval: Decision | undefined; readonly finish: number | null },
): Course {
  const words = (stage: string): string => publicLabelIn(stageOf(register, stage), spoken);
  const past = stagesReached(request, register, happened)
    .map(({ at, stage }) => ({ at, what: words(stage) }))
    .filter(({ what }, place, all) => place === 0 || all[place - 1]?.what !== what);
  const isOver = request.phase === 'finished';
  const decided = approval?.state === 'waiting' ? approval.until : null;
  const ahead = isOver
    ? []
    : [
        ...(decided === null ? [] : [{ at: iso(decided), what: said('hops:decision'), state: 'ahead' as const }]),
        // While it stands still, the moment moves.
        ...(finish === null || request.phase === 'paused'
          ? []
          : [{ at: iso(finish), what: said('hops:done'), state: 'ahead' as const }]),
      ];
  return [
    ...past.map(({ at, what }, place): Course[number] => ({
      ...{ at: iso(at), what },
      state: !isOver && place === past.length - 1 ? 'now' : 'past',
    })),
    ...ahead.sort((a, b) => (a.at < b.at ? -1 : 1)),
  ];
}
