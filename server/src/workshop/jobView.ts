import type { AnswerOf } from '@tolvek/contract';
import { takenRows } from '../intake/takeInRows.ts';
import type { JobRow } from '../platform/longJobs.ts';

/** How many requests long work has changed so far, by what its kind keeps. */
function changedSoFar({ result }: JobRow): number {
  const { changed, back } = (result ?? {}) as { readonly changed?: number; readonly back?: number };
  return changed ?? back ?? 0;
}

/** Long work as whoever began it is told of it. */
export function jobView(job: JobRow): AnswerOf<'job'> {
  const { state, looked, of } = job;
  const taken = job.kind === 'rows' ? takenRows(job) : null;
  return { state, looked, of, changed: taken?.good ?? changedSoFar(job), rows: taken?.rows ?? null };
}
