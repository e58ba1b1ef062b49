import type { FetchBaseQueryError } from '@reduxjs/toolkit/query/react';
import type { ProblemDocument } from '@tolvek/contract';
import { refused } from '@tolvek/words';
import { told } from './words.ts';

/** What went wrong, as the server says it; for a lost connection, as we do. */
export function problemOf(error: unknown): ProblemDocument {
  const found = error as FetchBaseQueryError | undefined;
  if (found && typeof found.status === 'number' && isProblem(found.data)) return found.data;
  if (found && found.status === 'PARSING_ERROR' && typeof found.data === 'string') {
    try {
      const parsed: unknown = JSON.parse(found.data);
      if (isProblem(parsed)) return parsed;
    } catch {
      // Not a problem document: what stands below says what to do.
    }
  }
  return { type: 'offline', title: '', status: 0, detail: '', said: refused('offline') };
}

const isProblem = (data: unknown): data is ProblemDocument =>
  typeof data === 'object' && data !== null && 'said' in data;

/** A refusal as three sentences in a row, where there is no room for more. */
export const refusalInWords = ({ said: { happened, saved, now } }: Pick<ProblemDocument, 'said'>): string =>
  `${told(happened)} ${told(saved)} ${told(now)}`;
