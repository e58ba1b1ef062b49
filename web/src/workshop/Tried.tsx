import type { AnswerOf } from '@tolvek/contract';
import { explain, parseExpression } from '@tolvek/core/expression';
import { useEffect, useId, useState } from 'react';
import { say, told } from '../wire/words.ts';
import { workshopApi } from './endpoints.ts';
import { Reasons } from './Reasons.tsx';
import type { ProofState } from './useProof.ts';
import { verdictInWords } from './verdictInWords.ts';

const SETTLE = 400;

/**
 * A condition tried while it is written: on the answers in the proof at once, and on the last
 * requests a moment later.
 */
export function Tried({ formKey, condition, proof }: { formKey: string; condition: string; proof: ProofState }) {
  const settled = useSettled(condition);
  const chooser = useId();
  const [number, setNumber] = useState<string | null>(null);
  const { data, isFetching } = workshopApi.useTryConditionQuery({ key: formKey, body: { condition: settled, number } });
  const parsed = parseExpression(condition);
  const here = parsed.ok ? explain(parsed.value, proof.scope, proof.slots) : null;
  return (
    <div className="mt-3 border-t border-rule pt-2.5 text-[13px]">
      <p>
        <span className="text-soft">{say('workshop:tried.withProof')}</span>{' '}
        {here ? <b>{verdictInWords(here.result)}</b> : say('workshop:tried.unreadable')}
      </p>
      {here ? <Reasons of={here} /> : null}
      <div className="mt-2" aria-live="polite">
        {data?.refused ? (
          <p className="text-soft">{say('workshop:tried.refused', { why: data.refused })}</p>
        ) : data ? (
          <Counts tried={data} />
        ) : (
          <p className="text-soft">{say('workshop:tried.trying')}</p>
        )}
      </div>
      {data?.explained ? (
        <div aria-busy={isFetching}>
          <p className="mt-1.5 flex flex-wrap items-center gap-2">
            <label htmlFor={chooser} className="text-soft">
              {say('workshop:tried.forRequest')}
            </label>
            <select
              id={chooser}
              className="input w-auto max-w-[26rem] flex-1 py-0.5"
              value={data.explained.number}
              onChange={(event) => setNumber(event.target.value)}
            >
              {data.tried.map((each) => (
                <option key={each.number} value={each.number}>
                  {each.number} {told(each.subject)}: {verdictInWords(each.result)}
                </option>
              ))}
              {data.tried.some((each) => each.number === data.explained?.number) ? null : (
                <option>{data.explained.number}</option>
              )}
            </select>
            <b>{verdictInWords(data.explained.reason.result)}</b>
          </p>
          <Reasons of={data.explained.reason} />
        </div>
      ) : null}
    </div>
  );
}

function Counts({ tried }: { tried: AnswerOf<'tryCondition'> }) {
  const all = tried.holds + tried.fails + tried.unsaid;
  if (all === 0) return <p className="text-soft">{say('workshop:tried.noRequests')}</p>;
  return (
    <p>
      {say('workshop:tried.trueFor', { holds: tried.holds, count: all })}
      {tried.unsaid > 0 ? (
        <span className="text-soft"> {say('workshop:tried.unknownFor', { count: tried.unsaid })}</span>
      ) : null}
      {tried.ever && tried.ever.of > all ? (
        <span className="text-soft">
          {' '}
          {say('workshop:tried.trueForAll', { holds: tried.ever.holds, count: tried.ever.of })}
        </span>
      ) : null}
    </p>
  );
}

/** A value once it has stopped changing for a moment. */
function useSettled(value: string): string {
  const [settled, setSettled] = useState(value);
  useEffect(() => {
    const waiting = setTimeout(() => setSettled(value), SETTLE);
    return () => clearTimeout(waiting);
  }, [value]);
  return settled;
}
