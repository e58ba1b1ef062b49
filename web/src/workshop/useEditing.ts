import { beginEditing, type DesignKind, editingAfter, type SaveState, waitsToBeKept } from '@tolvek/core/design';
import type { Words } from '@tolvek/words';
import { useCallback, useEffect, useReducer, useRef } from 'react';
import { problemOf, refusalInWords } from '../wire/problem.ts';
import { say, told } from '../wire/words.ts';
import { placeIn } from './placeIn.ts';

const SETTLE = 500;

/** A draft as it is edited on a page, and what can be done with it. */
export interface Keeping<Content extends object> {
  readonly content: Content;
  readonly version: number;
  readonly change: (edit: (content: Content) => Content) => void;
  readonly undo: (() => void) | null;
  readonly redo: (() => void) | null;
  readonly state: SaveState;
  readonly trouble: Words;
  /**
   * Where both changed the same: keeps this page’s words, or theirs. All else of either side is
   * kept.
   */
  readonly keepMine: () => Promise<void>;
  readonly keepTheirs: () => Promise<void>;
  /** The version rose by something that changed no content, as a release does. */
  readonly raised: (version: number) => void;
}

/** How a draft is kept on the server, and read again when somebody else kept a change meanwhile. */
export interface Keeper<Content extends object> {
  readonly merge: DesignKind<Content>['merge'];
  readonly store: (sent: Content, onVersion: number) => Promise<{ version: number } | { error: unknown }>;
  readonly read: () => Promise<{ content: Content; version: number } | undefined>;
}

/**
 * A draft as it is edited here: kept on the server a moment after each change and when the page is left, with undo for as
 * long as the page is open. `keeper`: the same one for as long as the page is open.
 */
export function useEditing<Content extends object>(
  start: { readonly content: Content; readonly version: number },
  keeper: Keeper<Content>,
): Keeping<Content> {
  const { merge, store, read } = keeper;
  const [editing, happened] = useReducer(
    (before: ReturnType<typeof beginEditing<Content>>, event: Parameters<typeof editingAfter<Content>>[2]) =>
      editingAfter({ merge }, before, event),
    beginEditing(start.content, start.version),
  );
  const { content, version, past, future, kept, state, trouble } = editing;

  const keep = useCallback(
    async (sent: Content, onVersion: number): Promise<void> => {
      happened({ did: 'sent' });
      const result = await store(sent, onVersion);
      if (!('error' in result)) return happened({ did: 'stored', content: sent, version: result.version });
      const problem = problemOf(result.error);
      // Somebody else kept a change meanwhile: both are put together.
      const met = problem.status === 412 ? await read() : undefined;
      if (met) return happened({ did: 'met', sent, theirs: met.content, version: met.version });
      const sentences = problem.problems?.map(({ field, message, fix }) => {
        const place = placeIn(sent, field);
        const what = `${told(message)} ${told(fix)}`;
        return place === null ? what : say('workshop:placeSays', { place, what });
      });
      happened({ did: 'refused', trouble: sentences?.join(' ') ?? refusalInWords(problem) });
    },
    [store, read],
  );

  const waits = waitsToBeKept(editing);
  useEffect(() => {
    if (!waits) return;
    const waiting = setTimeout(() => void keep(content, version), SETTLE);
    return () => clearTimeout(waiting);
  }, [waits, content, version, keep]);

  // Whoever leaves before that moment loses nothing: what waits goes out at once, and a page that is closed asks first.
  const leaving = useRef<{ readonly unkept: boolean; readonly keepNow: () => void } | null>(null);
  useEffect(() => {
    leaving.current = { unkept: content !== kept, keepNow: () => waits && void keep(content, version) };
  });
  useEffect(() => {
    const closes = (event: BeforeUnloadEvent): void => {
      leaving.current?.keepNow();
      if (leaving.current?.unkept) event.preventDefault();
    };
    window.addEventListener('beforeunload', closes);
    return () => {
      window.removeEventListener('beforeunload', closes);
      leaving.current?.keepNow();
    };
  }, []);

  const change = useCallback((edit: (content: Content) => Content): void => happened({ did: 'changed', edit }), []);
  const settle = (pick: 'mine' | 'theirs') => async (): Promise<void> => {
    const met = await read();
    if (met) happened({ did: 'settled', pick, theirs: met.content, version: met.version });
  };
  return {
    ...{ content, version, change, trouble },
    undo: past.length > 0 ? () => happened({ did: 'undone' }) : null,
    redo: future.length > 0 ? () => happened({ did: 'redone' }) : null,
    state: content !== kept && state === 'kept' ? 'keeping' : state,
    keepMine: settle('mine'),
    keepTheirs: settle('theirs'),
    raised: (next) => happened({ did: 'raised', version: next }),
  };
}
