import type { AnswerOf } from '@tolvek/contract';
import { createContext, useContext } from 'react';
import type { Editing } from './editing.ts';
import type { DraftEditing } from './useDraft.ts';

/** What every page of a binder can reach: the form as the server has it, its draft as it is kept, and what is shared. */
export interface OpenedBinder {
  readonly form: AnswerOf<'form'>;
  /** The draft: keeping, undoing, what others changed, its findings. */
  readonly keeping: DraftEditing;
  /** The draft and the way to change it, with the proof it is seen in. */
  readonly editing: Editing;
}

const Context = createContext<OpenedBinder | null>(null);
export const BinderProvider = Context.Provider;

/**
 * The binder that is open.
 *
 * @throws Error outside of one.
 */
export function useBinder(): OpenedBinder {
  const binder = useContext(Context);
  if (!binder) throw new Error('No binder is open.');
  return binder;
}
