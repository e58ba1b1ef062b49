import { and, isNull, lt, type SQL } from 'drizzle-orm';
import { uploads } from './tables.ts';

const DAY = 24 * 3_600_000;

/** How long a file is kept that no request names: longer than what was begun is kept. */
export const UNCLAIMED_FILES = { what: 'Files that no request claimed', until: '15 days', ms: 15 * DAY } as const;

/** Files past keeping, some of them at once. */
export const unclaimedFiles = (now: number): SQL | undefined =>
  and(isNull(uploads.requestId), lt(uploads.createdAt, now - UNCLAIMED_FILES.ms));
