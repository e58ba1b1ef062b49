import { type Audience, belongs, NO_REQUEST, type Viewer } from '../people/index.ts';
import type { Relation } from './accessTo.ts';

/** What of every request a shared result can tell besides fields. Never who asked. */
export const SHARED_FACTS = ['number', 'stage', 'arrived', 'finished'] as const;
export type SharedFact = (typeof SHARED_FACTS)[number];

/**
 * Requests of a register that somebody lets others read: exactly these fields of those that meet a condition, as far as
 * who shared it may read them, and until a day.
 */
export interface SharedResult {
  readonly name: string;
  readonly facts: readonly SharedFact[];
  /** Keys of fields, and of columns of lines: what joins a form later is not among them. */
  readonly fields: readonly string[];
  /** FEEL over the fields of a request and where it stands; empty: every request. */
  readonly when: string;
  /** The staff it is for; null: whoever holds its link. */
  readonly audience: Audience | null;
  /** The last day of it, `YYYY-MM-DD` at the desk. */
  readonly until: string;
  /** Whether it can be taken out as a file. */
  readonly takesOut: boolean;
}

/** How whoever reads a shared result stands to its requests: as one who works on them and only reads. */
export const SHARED_READER: Relation = { isDesk: true, isRequester: false, onlyReads: true };

/** Whether a shared result is for one of the staff on a day. What is by link is for nobody by name. */
export const isSharedTo = (
  { audience, until }: Pick<SharedResult, 'audience' | 'until'>,
  viewer: Viewer,
  day: string,
): boolean => day <= until && audience !== null && viewer.kind === 'staff' && belongs(audience, viewer, NO_REQUEST);
