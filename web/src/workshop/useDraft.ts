import type { AnswerOf } from '@tolvek/contract';
import type { FormDesign } from '@tolvek/core/form';
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
  /** Stores this page's draft over what somebody else kept meanwhile. */
  readonly keepMine: () => Promise<void>;
  readonly findings: AnswerOf<'form'>['findings'];
  readonly changes: AnswerOf<'form'>['changes'];
  readonly released: (version: number) => void;
}

/** The draft as it is edited here: kept on the server a moment after each change, with undo for as long as the page is open. */
export function useDraft(form: AnswerOf<'form'>): DraftEditing {
  const [draft, setDraft] = useState<FormDesign>(form.draft);
  const [past, setPast] = useState<readonly FormDesign[]>([]);
  const [future, setFuture] = useState<readonly FormDesign[]>([]);
  const [told, setTold] = useState({ findings: form.findings, changes: form.changes });
  const [state, setState] = useState<SaveState>('kept');
  const [trouble, setTrouble] = useState('');
  const [version, setVersion] = useState(form.version);
  const kept = useRef<FormDesign>(form.draft);
  const [save] = api.useSaveDraftMutation();
  const [readAnew] = api.useLazyFormQuery();

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
      setState(problem.status === 412 ? 'changed elsewhere' : 'not kept');
      setTrouble(problem.problems?.map((each) => `${each.field}: ${each.message}`).join(' ') ?? problem.detail);
    },
    [form.key, save],
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

  const keepMine = async (): Promise<void> => {
    const { data } = await readAnew({ key: form.key });
    if (data) await store(draft, data.version);
  };

  return {
    draft,
    version,
    change,
    undo: past.length > 0 ? step(past, setPast, setFuture) : null,
    redo: future.length > 0 ? step(future, setFuture, setPast) : null,
    state: draft !== kept.current && state === 'kept' ? 'keeping' : state,
    trouble,
    keepMine,
    ...told,
    released: (next) => {
      setVersion(next);
      setTold((before) => ({ ...before, changes: [] }));
    },
  };
}
