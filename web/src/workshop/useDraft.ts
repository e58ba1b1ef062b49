import type { AnswerOf } from '@tolvek/contract';
import {
  beginEditing,
  type Editing,
  type EditingEvent,
  editingAfter,
  type SaveState,
  waitsToBeKept,
} from '@tolvek/core/design';
import { type FormDesign, mergeDesigns } from '@tolvek/core/form';
import { useCallback, useEffect, useReducer, useState } from 'react';
import { problemOf } from '../wire/problem.ts';
import { workshopApi } from './endpoints.ts';

const SETTLE = 500;

export interface DraftEditing {
  readonly draft: FormDesign;
  readonly version: number;
  readonly change: (edit: (draft: FormDesign) => FormDesign) => void;
  readonly undo: (() => void) | null;
  readonly redo: (() => void) | null;
  readonly state: SaveState;
  readonly trouble: string;
  /**
   * Where both changed the same: keeps this page’s words, or theirs. All else of either side is
   * kept.
   */
  readonly keepMine: () => Promise<void>;
  readonly keepTheirs: () => Promise<void>;
  readonly findings: AnswerOf<'form'>['findings'];
  readonly changes: AnswerOf<'form'>['changes'];
  readonly released: (version: number) => void;
}

const afterwards = (before: Editing<FormDesign>, event: EditingEvent<FormDesign>): Editing<FormDesign> =>
  editingAfter({ merge: mergeDesigns }, before, event);

/**
 * The draft as it is edited here: kept on the server a moment after each change, with undo for as
 * long as the page is open.
 */
export function useDraft(form: AnswerOf<'form'>): DraftEditing {
  const [editing, happened] = useReducer(afterwards, beginEditing(form.draft, form.version));
  const { content, version, past, future, kept, state, trouble } = editing;
  const [told, setTold] = useState({ findings: form.findings, changes: form.changes });
  // What changed around the draft, such as its access plan, is found anew with the form.
  const [around, setAround] = useState(form.findings);
  if (around !== form.findings) {
    setAround(form.findings);
    if (form.version === version) setTold({ findings: form.findings, changes: form.changes });
  }
  const [save] = workshopApi.useSaveDraftMutation();
  const [readAnew] = workshopApi.useLazyFormQuery();

  const store = useCallback(
    async (sent: FormDesign, onVersion: number): Promise<void> => {
      happened({ did: 'sent' });
      const result = await save({ key: form.key, version: onVersion, body: { draft: sent } });
      if (!('error' in result) && result.data) {
        setTold({ findings: result.data.findings, changes: result.data.changes });
        return happened({ did: 'stored', content: sent, version: result.data.version });
      }
      const problem = problemOf(result.error);
      // Somebody else kept a change meanwhile: both are put together.
      const { data } = problem.status === 412 ? await readAnew({ key: form.key }) : { data: undefined };
      if (data) return happened({ did: 'met', sent, theirs: data.draft, version: data.version });
      const words = problem.problems?.map((each) => `${each.field}: ${each.message}`).join(' ');
      happened({ did: 'refused', trouble: words ?? problem.detail });
    },
    [form.key, save, readAnew],
  );

  const waits = waitsToBeKept(editing);
  useEffect(() => {
    if (!waits) return;
    const waiting = setTimeout(() => void store(content, version), SETTLE);
    return () => clearTimeout(waiting);
  }, [waits, content, version, store]);

  const change = useCallback((edit: (draft: FormDesign) => FormDesign): void => happened({ did: 'changed', edit }), []);
  const settle = (pick: 'mine' | 'theirs') => async (): Promise<void> => {
    const { data } = await readAnew({ key: form.key });
    if (data) happened({ did: 'settled', pick, theirs: data.draft, version: data.version });
  };

  return {
    draft: content,
    version,
    change,
    undo: past.length > 0 ? () => happened({ did: 'undone' }) : null,
    redo: future.length > 0 ? () => happened({ did: 'redone' }) : null,
    state: content !== kept && state === 'kept' ? 'keeping' : state,
    trouble,
    keepMine: settle('mine'),
    keepTheirs: settle('theirs'),
    ...told,
    released: (next) => {
      happened({ did: 'raised', version: next });
      setTold((before) => ({ ...before, changes: [] }));
    },
  };
}
