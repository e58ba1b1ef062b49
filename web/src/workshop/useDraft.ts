import type { AnswerOf } from '@tolvek/contract';
import { type FormDesign, mergeDesigns } from '@tolvek/core/form';
import { useMemo, useState } from 'react';
import { workshopApi } from './endpoints.ts';
import { type Keeper, type Keeping, useEditing } from './useEditing.ts';

export interface DraftEditing extends Omit<Keeping<FormDesign>, 'content' | 'raised'> {
  readonly draft: FormDesign;
  readonly findings: AnswerOf<'form'>['findings'];
  readonly changes: AnswerOf<'form'>['changes'];
  readonly released: (version: number) => void;
}

/** The draft of a form as it is edited here, with what is found in it and what it changes. */
export function useDraft(form: AnswerOf<'form'>): DraftEditing {
  const [told, setTold] = useState({ findings: form.findings, changes: form.changes });
  const [save] = workshopApi.useSaveDraftMutation();
  const [readAnew] = workshopApi.useLazyFormQuery();
  const keeper = useMemo(
    (): Keeper<FormDesign> => ({
      merge: mergeDesigns,
      store: async (draft, version) => {
        const { data, error } = await save({ key: form.key, version, body: { draft } });
        if (!data) return { error };
        setTold({ findings: data.findings, changes: data.changes });
        return { version: data.version };
      },
      read: async () => {
        const { data } = await readAnew({ key: form.key });
        return data && { content: data.draft, version: data.version };
      },
    }),
    [form.key, save, readAnew],
  );
  const { content: draft, raised, ...editing } = useEditing({ content: form.draft, version: form.version }, keeper);
  // What changed around the draft, such as its access plan, is found anew with the form.
  const [around, setAround] = useState(form);
  if (around !== form) {
    setAround(form);
    if (form.version === editing.version) setTold({ findings: form.findings, changes: form.changes });
  }
  return {
    ...editing,
    ...told,
    draft,
    released: (next) => {
      raised(next);
      setTold((before) => ({ ...before, changes: [] }));
    },
  };
}
