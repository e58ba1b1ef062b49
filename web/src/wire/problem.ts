import type { FetchBaseQueryError } from '@reduxjs/toolkit/query/react';
import type { ProblemDocument } from '@tolvek/contract';

/** What went wrong, in the server's words; for a lost connection, in our own. */
export function problemOf(error: unknown): ProblemDocument {
  const found = error as FetchBaseQueryError | undefined;
  if (
    found &&
    typeof found.status === 'number' &&
    typeof found.data === 'object' &&
    found.data !== null &&
    'title' in found.data
  )
    return found.data as ProblemDocument;
  if (found && found.status === 'PARSING_ERROR' && typeof found.data === 'string') {
    try {
      return JSON.parse(found.data) as ProblemDocument;
    } catch {
      // Not a problem document: the general words below say what to do.
    }
  }
  return {
    type: 'offline',
    title: 'The desk can’t be reached',
    status: 0,
    detail: 'What you typed is kept. Check the connection and try again.',
  };
}
