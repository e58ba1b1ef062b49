import type { AnswerOf } from '@tolvek/contract';
import { type Completion, type FormDesign, fieldsAsked, OWN_REQUESTS, type Part } from '@tolvek/core/form';
import type { Field, RawAnswers, RequestFacts } from '@tolvek/core/register';
import { useMemo, useState } from 'react';
import {
  type Changed,
  changeableIn,
  changesOf,
  completedOverTheirs,
  foundBy,
  type Theirs,
  type Updating,
  updatingWith,
  whichProblems,
} from '../fields/updating.ts';
import { workshopApi } from './endpoints.ts';

interface At {
  /** Who sits there; nothing is theirs of somebody from outside or of a colleague whom nobody names. */
  readonly seat: string;
  readonly fields: readonly Field[];
  /** The parts of the form as they are asked it. */
  readonly parts: readonly Part[];
  readonly complete: (answers: RawAnswers, facts: RequestFacts) => Completion;
  /** The answers that were typed. */
  readonly known: RawAnswers;
  readonly facts: RequestFacts;
}

/** What the proof of a form that changes what is there is about, of whoever sits there. */
export interface Over {
  readonly updating: Updating;
  /** The answers over what stands there; null where they are about nothing that is there. */
  readonly completion: Completion | null;
  /** What the answers would change. */
  readonly changes: readonly Changed[];
  readonly chosen: string | undefined;
  readonly cleared: readonly string[];
  /** Chooses which of theirs is meant; gives the answers by which it is found. */
  readonly choose: (entry: string) => RawAnswers;
  readonly takeAway: (field: string, is: boolean) => void;
  readonly clear: () => void;
}

/**
 * The draft over what is there, as whoever sits there would change it: what the form finds of theirs, as far as who looks
 * may read it as well. Null for a form that adds, and while nobody by name sits there.
 */
export function useOver(
  { updates }: Pick<FormDesign, 'updates'>,
  form: AnswerOf<'form'>,
  { seat, fields, parts, complete, known, facts }: At,
): Over | null {
  const [entry, setEntry] = useState<string>();
  const [cleared, setCleared] = useState<readonly string[]>([]);
  const isNamed = seat !== 'outside' && seat !== 'staff';
  const asks = { key: form.key, person: seat, query: { whose: updates?.whose ?? OWN_REQUESTS } };
  const { data } = workshopApi.useProofTheirsQuery(asks, { skip: updates === undefined || !isNamed });
  const whole = useMemo(() => {
    if (!updates || !data || !isNamed) return null;
    const asked = fieldsAsked(parts);
    const theirs = data.theirs.map((one) => ({
      ...one,
      stood: Object.fromEntries(Object.entries(one.stood).filter(([key]) => asked.has(key))),
    }));
    return {
      ...{ whose: updates.whose === OWN_REQUESTS ? null : updates.whose, by: [...updates.by], sent: false },
      ...{ adds: updates.none === 'add', beside: updates.beside ?? false, waits: updates.waits ?? false, theirs },
    };
  }, [updates, data, isNamed, parts]);
  return useMemo(() => {
    if (!whole) return null;
    const changeable = changeableIn({ updates: whole, facts }, complete);
    const typed = { entry, cleared: cleared.filter((field) => !Object.hasOwn(known, field)) };
    const updating = updatingWith(complete, { updates: whole, fields }, changeable, { answers: known, typed, facts });
    if (!updating) return null;
    const { about, says } = updating;
    const one = about.is === 'one' ? about.one : null;
    const done = one && completedOverTheirs(complete, one, says, facts);
    const plain = done ?? complete(known, facts);
    return {
      ...{ updating, chosen: entry, cleared: typed.cleared },
      completion: { ...plain, problems: [...plain.problems, ...whichProblems(updating)] },
      changes: one
        ? [
            ...changesOf(complete, { fields, by: whole.by }, one, says, facts),
            ...stamped(one, fields, updates?.stamps, facts.today),
          ]
        : [],
      choose: (id: string) => {
        setEntry(id);
        return foundBy(updating, id);
      },
      takeAway: (field: string, is: boolean) =>
        setCleared((before) => [...before.filter((each) => each !== field), ...(is ? [field] : [])]),
      clear: () => {
        setEntry(undefined);
        setCleared([]);
      },
    };
  }, [whole, fields, updates?.stamps, facts, complete, entry, cleared, known]);
}

/** The date that takes the day of the answer, where a form has one. */
function stamped(one: Theirs, fields: readonly Field[], stamps: string | undefined, today: string): readonly Changed[] {
  const field = fields.find(({ key }) => key === stamps);
  if (!field) return [];
  const before = one.values.fields.find(({ key }) => key === stamps)?.value ?? undefined;
  return before === today ? [] : [{ field, before, after: today }];
}
