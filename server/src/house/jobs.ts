import type { JobWork } from '../platform/longJobs.ts';
import { recomputeAll } from '../workshop/recompute.ts';

/** Long work, by its kind, and who does it. */
export const JOBS: Readonly<Record<string, JobWork>> = { recompute: recomputeAll };
