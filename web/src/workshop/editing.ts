import type { AnswerOf } from '@tolvek/contract';
import type { FormDesign } from '@tolvek/core/form';
import type { Field } from '@tolvek/core/register';
import type { ProofState } from './useProof.ts';

export type Change = (edit: (draft: FormDesign) => FormDesign) => void;

/**
 * What the pages of the binder share: the draft, the way to change it, and the proof it is seen in.
 */
export interface Editing {
  readonly draft: FormDesign;
  readonly change: Change;
  readonly proof: ProofState;
  readonly groups: AnswerOf<'form'>['groups'];
  readonly vocabularies: AnswerOf<'form'>['vocabularies'];
  /** What references can point to. */
  readonly registers: AnswerOf<'form'>['registers'];
  /** The fields of the release in force: they hold answers. */
  readonly released: ReadonlySet<string>;
  /** The other forms that ask into the same register. */
  readonly others: AnswerOf<'form'>['others'];
}

/** What a kind can name, where it is set. */
export interface KindAround extends Pick<Editing, 'vocabularies'> {
  /** The other fields beside it. */
  readonly fields: readonly Pick<Field, 'key' | 'label' | 'type'>[];
  readonly groups: readonly { readonly key: string; readonly name: string }[];
  /** Null where it is no field of a form. */
  readonly editing: Editing | null;
}

/** What the kinds of the fields of a form can name. */
export const aroundKinds = (editing: Editing): KindAround => ({
  ...{ fields: editing.draft.fields, groups: editing.groups, vocabularies: editing.vocabularies, editing },
});
