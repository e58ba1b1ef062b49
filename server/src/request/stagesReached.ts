import type { RequestChange } from '@tolvek/core/request';
import { firstStage, type RegisterRow } from '../register/queries.ts';
import type { RequestRow } from './queries.ts';
import { stageAfter } from './stageAfter.ts';

/** Something that happened to a request, as far as it is kept as data. */
interface Happened {
  readonly at: number;
  readonly data: RequestChange | null;
}

/** The stages a request came to, by key, with when (epoch ms), in their order, from the one it arrived in. */
export function stagesReached(
  { stage, createdAt }: Pick<RequestRow, 'stage' | 'createdAt'>,
  register: RegisterRow,
  happened: readonly Happened[],
): readonly { readonly at: number; readonly stage: string }[] {
  const moves = happened.flatMap(({ at, data }) => {
    const to = data ? stageAfter(register, data) : null;
    return data && to !== null ? [{ at, stage: to, from: 'from' in data ? data.from : null }] : [];
  });
  const [first] = moves;
  // What a decision moves says nothing of where it was: that is where it is decided.
  const deciding = (register.stages.find(({ role }) => role === 'deciding') ?? firstStage(register)).key;
  const began = first === undefined ? stage : typeof first.from === 'string' ? first.from : deciding;
  return [{ at: createdAt, stage: began }, ...moves.map((each) => ({ at: each.at, stage: each.stage }))];
}
