import type { AnswerOf } from '@tolvek/contract';
import { say } from '../wire/words.ts';

type Step = AnswerOf<'follow'>['deciding'][number];

/** Where a step stands, in words. */
function standsAt({ state, who, needed, of, since, until }: Step): string {
  if (state !== 'asked' || since === null) return say(state === 'over' ? 'desk:deciding.over' : 'desk:deciding.ahead');
  // Fewer names than seats: of a group, several are asked.
  const how =
    who.length === 0
      ? say('desk:deciding.asked', { since })
      : needed === 1
        ? say('desk:deciding.askedWho', { who, since })
        : needed === of && who.length > 1
          ? say('desk:deciding.askedAll', { who, since })
          : say('desk:deciding.askedSome', { needed, of, who, since });
  return until === null ? how : `${how}, ${say('desk:deciding.until', { until })}`;
}

/** The steps by which a request is decided, in turn: who is asked, since when, and until when. */
export const WhoDecides = ({ steps }: { steps: readonly Step[] }) =>
  steps.length === 0 ? null : (
    <>
      <h2 className="section-head mt-8">{say('desk:whoDecides')}</h2>
      <ol>
        {steps.map((step, place) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: steps stand in their turn.
          <li key={place} className="flex border-b border-rule py-2">
            {steps.length > 1 ? <span className="w-[22px] flex-none font-serif text-soft">{place + 1}</span> : null}
            <span className={step.state === 'asked' ? '' : 'text-soft'}>
              <b className="font-semibold">{step.label}</b>: {standsAt(step)}
            </span>
          </li>
        ))}
      </ol>
    </>
  );
