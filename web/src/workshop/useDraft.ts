import type { AnswerOf } from '@tolvek/contract';
import { type FormDesign, mergeDesigns } from '@tolvek/core/form';
import { useCallback, useEffect, useRef, useState } from 'react';
import { api, problemOf } from '../app/api.ts';

const SETTLE = 500;

export type SaveState = 'kept' | 'keeping' | 'not kept' | 'changed elsewhere';

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

/**
 * The draft as it is edited here: kept on the server a moment after each change, with undo for as
 * long as the page is open.
 */
export function useDraft(form: AnswerOf<'form'>): DraftEditing {
  const [draft, setDraft] = useState<FormDesign>(form.draft);
  const [past, setPast] = useState<readonly FormDesign[]>([]);
  const [future, setFuture] = useState<readonly FormDesign[]>([]);
  const [told, setTold] = useState({ findings: form.findings, changes: form.changes });
  const [version, setVersion] = useState(form.version);
  // What changed around the draft, such as its access plan, is found anew with the form.
  const [around, setAround] = useState(form.findings);
  if (around !== form.findings) {
    setAround(form.findings);
    if (form.version === version) setTold({ findings: form.findings, changes: form.changes });
  }
  const [state, setState] = useState<SaveState>('kept');
  const [trouble, setTrouble] = useState('');
  const kept = useRef<FormDesign>(form.draft);
  const [save] = api.useSaveDraftMutation();
  const [readAnew] = api.useLazyFormQuery();

  /**
   * Somebody else kept a change meanwhile: both are put together, and asked about only where they
   * clash.
   */
  const putTogether = useCallback(
    async (mine: FormDesign): Promise<void> => {
      const { data } = await readAnew({ key: form.key });
      if (!data) return setState('not kept');
      const { design, clashes } = mergeDesigns(kept.current, mine, data.draft);
      if (clashes.length > 0) {
        setState('changed elsewhere');
        setTrouble(`You both changed ${clashes.join(', ')}. Everything else of both is kept.`);
        return;
      }
      kept.current = data.draft;
      // What was typed while theirs was fetched is laid over it as well.
      setDraft((now) => (now === mine ? design : mergeDesigns(mine, now, design).design));
      setVersion(data.version);
      setState('kept');
      setTrouble('');
    },
    [form.key, readAnew],
  );

  const store = useCallback(
    async (design: FormDesign, onVersion: number): Promise<void> => {
      setState('keeping');
      const result = await save({ key: form.key, version: onVersion, draft: design });
      if (!('error' in result) && result.data) {
        kept.current = design;
        setVersion(result.data.version);
        setTold({ findings: result.data.findings, changes: result.data.changes });
        setState('kept');
        setTrouble('');
        return;
      }
      const problem = problemOf(result.error);
      if (problem.status === 412) return putTogether(design);
      setState('not kept');
      setTrouble(problem.problems?.map((each) => `${each.field}: ${each.message}`).join(' ') ?? problem.detail);
    },
    [form.key, save, putTogether],
  );

  useEffect(() => {
    if (draft === kept.current || state === 'keeping' || state === 'changed elsewhere') return;
    const waiting = setTimeout(() => void store(draft, version), SETTLE);
    return () => clearTimeout(waiting);
  }, [draft, version, state, store]);

  const change = useCallback((edit: (draft: FormDesign) => FormDesign): void => {
    setDraft((before) => {
      const after = edit(before);
      if (after !== before) {
        setPast((steps) => [...steps, before]);
        setFuture([]);
      }
      return after;
    });
  }, []);

  const step = (from: readonly FormDesign[], setFrom: typeof setPast, setTo: typeof setPast) => () => {
    const next = from.at(-1);
    if (!next) return;
    setFrom(from.slice(0, -1));
    setTo((steps) => [...steps, draft]);
    setDraft(next);
  };

  const settleClash = (pick: 'mine' | 'theirs') => async (): Promise<void> => {
    const { data } = await readAnew({ key: form.key });
    if (!data) return;
    const [first, second] = pick === 'mine' ? [draft, data.draft] : [data.draft, draft];
    const { design } = mergeDesigns(kept.current, first, second);
    kept.current = data.draft;
    setDraft(design);
    setVersion(data.version);
    setState('kept');
    setTrouble('');
  };

  return {
    draft,
    version,
    change,
    undo: past.length > 0 ? step(past, setPast, setFuture) : null,
    redo: future.length > 0 ? step(future, setFuture, setPast) : null,
    state: draft !== kept.current && state === 'kept' ? 'keeping' : state,
    trouble,
    keepMine: settleClash('mine'),
    keepTheirs: settleClash('theirs'),
    ...told,
    released: (next) => {
      setVersion(next);
      setTold((before) => ({ ...before, changes: [] }));
    },
  };
}
