import { createHash } from 'node:crypto';
import { type Revealed, reveal } from '@tolvek/core/access';
import type { Viewer } from '@tolvek/core/people';
import { canonicalJson } from '../platform/canonical.ts';
import type { Reader } from '../platform/database.ts';
import { openFor } from './open.ts';
import type { RequestRow } from './queries.ts';

/**
 * Stands for what somebody sees of a request: another one when a value they may read has changed.
 */
export const seenIn = (visible: Revealed<{ readonly fields: readonly { key: string; value: unknown }[] }>): string =>
  createHash('sha256')
    .update(canonicalJson(visible.fields.map(({ key, value }) => [key, value ?? null])))
    .digest('base64url')
    .slice(0, 22);

/** What stands for the state of a request that somebody decides about. */
export const seenBy = (db: Reader, request: RequestRow, viewer: Viewer): string =>
  seenIn(reveal({ ...openFor(db, request, viewer).access, values: request.values }));
