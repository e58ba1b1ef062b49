import { takeInRows } from '../intake/takeInRows.ts';
import { tellOfTurned } from '../notice/turned.ts';
import type { JobWork } from '../platform/longJobs.ts';
import { numberAll } from '../workshop/numbering.ts';
import { recomputeAll } from '../workshop/recompute.ts';
import { replanAll } from '../workshop/replan.ts';
import { putBack, runRule } from '../workshop/ruleRun.ts';

/** Long work, by its kind, and who does it. */
export const JOBS: Readonly<Record<string, JobWork>> = {
  recompute: recomputeAll,
  replan: replanAll,
  number: numberAll,
  rows: takeInRows,
  rule: runRule,
  'rule back': putBack,
  groups: tellOfTurned,
};
