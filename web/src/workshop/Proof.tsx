import type { AnswerOf } from '@tolvek/contract';
import type { FormDesign } from '@tolvek/core/form';
import { prepareRouting } from '@tolvek/core/routing';
import { useMemo, useState } from 'react';
import { AskedQuestion } from '../fields/AskedQuestion.tsx';
import { RowReasons } from '../ui/RowReasons.tsx';
import { Why } from '../ui/Why.tsx';
import { type ProofState, SEATS, type Seat } from './useProof.ts';

/** The proof: the draft as the chosen person meets it, alive while it is edited, with what routing would do. */
export function Proof({ draft, form, proof }: { draft: FormDesign; form: AnswerOf<'form'>; proof: ProofState }) {
  const { scope, slots, completion } = proof;
  const [tried, setTried] = useState(false);
  const route = useMemo(() => prepareRouting(draft.routing, scope), [draft.routing, scope]);
  const { asked, problems } = completion;
  const routed = route(slots);
  const team = form.groups.find((group) => group.key === routed.outcome.team)?.name ?? routed.outcome.team;
  return (
    <aside aria-label="Proof" className="min-h-0 overflow-auto border-l border-rule-strong bg-well px-5 py-4">
      <p className="flex flex-wrap items-center gap-2 text-[13px]">
        Seen by
        <select
          aria-label="Seen by"
          className="border-b-[1.5px] border-green bg-transparent font-semibold text-green"
          value={proof.seat}
          onChange={(event) => proof.setSeat(event.target.value as Seat)}
        >
          {SEATS.map((each) => (
            <option key={each.key} value={each.key}>
              {each.label}
            </option>
          ))}
        </select>
        at the {SEATS.find((each) => each.key === proof.seat)?.at}
      </p>
      <div className="mt-3 border border-rule bg-sheet p-5">
        <h2>{draft.title || 'No title yet'}</h2>
        <p className="mt-1 text-soft">{draft.intro}</p>
        {asked.map((question) => {
          const field = draft.fields.find((each) => each.key === question.field);
          return field ? (
            <AskedQuestion
              key={field.key}
              prefix="proof"
              question={question}
              field={field}
              value={proof.answers[field.key] ?? null}
              problem={problems.find((problem) => problem.field === field.key && (tried || !problem.message.endsWith('has no answer yet.')))}
              onChange={(value) => proof.answer(field.key, value)}
            />
          ) : null;
        })}
        <p className="mt-5 border-t border-rule pt-3 text-soft">
          {problems.length === 0 ? 'This could be sent.' : `${problems.length} ${problems.length === 1 ? 'answer is' : 'answers are'} missing or wrong. `}
          {problems.length > 0 && !tried ? (
            <button type="button" className="text-green underline" onClick={() => setTried(true)}>
              Show them
            </button>
          ) : null}
        </p>
      </div>
      <p className="mt-3 text-[13px]">
        With these answers: {routed.isOtherwise ? 'the last row' : `row ${routed.row}`}, {team}, {routed.outcome.workingDays} working days
        {routed.outcome.needsApproval ? ', to be decided' : ''}.{' '}
        <Why about="Why this row">
          <RowReasons rows={routed.reasons} />
        </Why>
      </p>
    </aside>
  );
}
