import type { AnswerOf } from '@tolvek/contract';
import { type FormDesign, prepareCompletion } from '@tolvek/core/form';
import { type RawAnswer, type RequestFacts, requestScope, requestSlots } from '@tolvek/core/register';
import { useMemo, useState } from 'react';

export const SEATS = [
  { key: 'outside', label: 'an outside requester', at: 'outside door' },
  { key: 'staff', label: 'a colleague', at: 'staff door' },
] as const;

export type Seat = (typeof SEATS)[number]['key'];

/** The draft as the chosen person meets it, with the answers typed into the proof: what rules and routing are tried on. */
export function useProof(draft: FormDesign, { today, calendar, groups, people }: AnswerOf<'form'>) {
  const [seat, setSeat] = useState<Seat>('outside');
  const [answers, setAnswers] = useState<Readonly<Record<string, RawAnswer>>>({});
  const { fields, questions, rules } = draft;
  const complete = useMemo(() => prepareCompletion({ fields, questions, rules }), [fields, questions, rules]);
  const scope = useMemo(() => requestScope(fields, { people, groups: groups.map((group) => ({ key: group.key, label: group.name })) }), [fields, groups, people]);
  const facts: RequestFacts = { requesterIsOutside: seat === 'outside', requesterId: null, requesterGroups: [], door: seat, today, calendar };
  const known = Object.fromEntries(Object.entries(answers).filter(([key]) => questions.some((question) => question.field === key)));
  const completion = complete(known, facts);
  return {
    seat,
    setSeat,
    answers,
    answer: (key: string, value: RawAnswer) => setAnswers((before) => ({ ...before, [key]: value })),
    completion,
    scope,
    slots: requestSlots(fields, completion.values, facts),
  };
}

export type ProofState = ReturnType<typeof useProof>;
