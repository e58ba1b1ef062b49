import type { AnswerOf } from '@tolvek/contract';
import { useState } from 'react';
import { say, told } from '../wire/words.ts';

type Step = NonNullable<AnswerOf<'sheet'>['approval']>['steps'][number];

/** Whether there is more to a decision than one who says yes or no. */
export const isInSteps = (steps: readonly Step[]): boolean =>
  steps.length > 1 ||
  steps.some((step) => hasSeveral(step) || step.until !== null || step.seats.some((seat) => seat.as));
const hasSeveral = ({ seats }: Step): boolean => seats.length > 1;

/** The steps of a decision, in turn: who was asked, what they said, and who is still to say something. */
export const DecisionSteps = ({ steps }: { steps: readonly Step[] }) => (
  <ol className="mt-1">
    {steps.map((step, place) => (
      // biome-ignore lint/suspicious/noArrayIndexKey: steps stand in their turn.
      <li key={place} className="grid grid-cols-[22px_1fr] py-1">
        <span className="font-serif text-soft">{place + 1}</span>
        <div>
          <b>{step.label}</b>{' '}
          <span className="text-soft">
            {hasSeveral(step) ? say('floor:agreeOf', { needed: step.needed, of: step.seats.length }) : null}{' '}
            {step.until !== null && step.silence && isAsked(step)
              ? say(`floor:until.${step.silence}`, { until: step.until })
              : null}
            {step.silently ? say(`floor:${step.silently}Silently`) : null}
          </span>
          <ul>
            {step.seats.map((seat, at) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: the same group can be asked twice.
              <li key={at}>
                {seat.who || say('floor:nobodyWho')}
                {seat.as ? <span className="text-soft"> ({told(seat.as)})</span> : null}: {saidBy(seat, step)}
                {seat.comment ? (
                  <span className="block text-soft">{say('floor:quoted', { text: seat.comment })}</span>
                ) : null}
                <ReadThen read={seat.read} />
              </li>
            ))}
          </ul>
        </div>
      </li>
    ))}
  </ol>
);

/** What was in view of whoever decided, folded; what of it has changed since is said at once. */
export function ReadThen({ read }: { read: Step['seats'][number]['read'] }) {
  const [isOpen, setOpen] = useState(false);
  if (read === null) return null;
  const { fields, changed } = read;
  return (
    <>
      {changed.length > 0 ? (
        <span className="block text-brass">{say('floor:readChanged', { fields: changed })}</span>
      ) : null}
      <button
        type="button"
        aria-expanded={isOpen}
        className="block text-[12.5px] text-green underline"
        onClick={() => setOpen(!isOpen)}
      >
        {say('floor:readThen')}
      </button>
      {isOpen ? (
        <span className="block text-soft">
          {fields.length > 0 ? say('floor:readFields', { fields }) : say('floor:readNothing')}
        </span>
      ) : null}
    </>
  );
}

/** Whether somebody is still to say something at a step. */
const isAsked = ({ seats }: Step): boolean => seats.some(({ state }) => state === 'open');

/** What one who is asked said, or since when they are to. */
function saidBy({ who, state, by, at }: Step['seats'][number], { since }: Step): string {
  if (at !== null && (state === 'approved' || state === 'refused')) {
    const isYes = state === 'approved';
    return by === null || by === who
      ? say(isYes ? 'floor:approvedAt' : 'floor:refusedAt', { at })
      : say(isYes ? 'floor:seatApproved' : 'floor:seatRefused', { by, at });
  }
  if (state === 'open' && since !== null) return say('floor:seatWaits', { since });
  return say(state === 'ahead' ? 'floor:seatAhead' : 'floor:seatClosed');
}
