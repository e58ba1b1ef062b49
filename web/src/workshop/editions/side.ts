import { type AccessRule, levelsAsking, momentArriving } from '@tolvek/core/access';
import {
  ASKING,
  ASKS,
  askedBy,
  chooseEdition,
  type Edition,
  editionOf,
  type FormDesign,
  fieldsAsked,
  type Part,
  partKey,
  prepareCompletion,
} from '@tolvek/core/form';
import type { Viewer } from '@tolvek/core/people';
import type { RequestFacts } from '@tolvek/core/register';

/** One side of two that are held against each other. */
export interface Side {
  /** The id of an edition; empty: the form as it is; `*`: the one that whoever looks is given. */
  readonly edition: string;
  /** Who looks; null: nobody in particular. */
  readonly who: { readonly facts: RequestFacts; readonly viewer: Viewer } | null;
  /** While they ask, or at a stage of a request; there, how they stand to it: `requester`, a relation, or nothing. */
  readonly stage: string;
  readonly as: string;
}

export type SideForm = Pick<FormDesign, 'fields' | 'parts' | 'rules'>;

/** The edition of a draft that a side is in; null: the form as it is. */
export function editionAt(draft: FormDesign, form: string, { edition, who, stage, as }: Side): Edition | null {
  const editions = draft.editions ?? [];
  if (edition !== '*') return editions.find(({ id }) => id === edition) ?? null;
  if (!who) return null;
  const { facts, viewer } = who;
  const { holds } = momentArriving(draft.fields, { form, stage, day: facts.today }, () => facts);
  const stands =
    stage === ASKING
      ? ASKS
      : { isRequester: as === 'requester', as: as === '' || as === 'requester' ? [] : [as as 'handler'] };
  return chooseEdition(editions, { who: viewer, stands, stage, holds, asked: fieldsAsked(draft.parts) }).edition;
}

/**
 * A draft as a side has it. Where somebody asks, it is what they meet before they answer anything: as rules and the access
 * plan ask it of them.
 */
export function sideOf(
  draft: FormDesign,
  { key, asking }: { readonly key: string; readonly asking: readonly AccessRule[] },
  side: Side,
): SideForm {
  const edition = editionAt(draft, key, side);
  const laid = edition ? editionOf(draft, edition) : draft;
  const { who, stage } = side;
  if (!who || stage !== ASKING) return laid;
  const { facts, viewer } = who;
  const at = momentArriving(draft.fields, { form: key, stage, day: facts.today }, () => facts);
  const asked = askedBy(laid, levelsAsking(draft.fields, { rules: asking }, viewer, at));
  const completion = prepareCompletion(asked)({}, facts);
  const shown = new Set(completion.parts.map(partKey));
  const required = new Map(completion.asked.map((question) => [question.field, question.required]));
  return {
    ...asked,
    parts: asked.parts.flatMap((part): readonly Part[] => {
      if (!shown.has(partKey(part))) return [];
      return part.part === 'question' ? [{ ...part, required: required.get(part.field) ?? part.required }] : [part];
    }),
  };
}
