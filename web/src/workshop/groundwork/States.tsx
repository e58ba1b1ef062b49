import type { Words } from '@tolvek/words';
import type { ReactNode } from 'react';
import { Button } from '../../ui/Button.tsx';
import { say, told } from '../../wire/words.ts';

/** Who set something, and when. */
export const Byline = ({ by, at }: { by: Words; at: string }) => (
  <span className="block text-[12.5px] text-soft">
    {by === '' ? say('ground:byStart', { at }) : say('ground:byAt', { by: told(by), at })}
  </span>
);

interface StatesProps<S> {
  readonly states: readonly S[];
  /** What is told of a state. */
  readonly about: (state: S) => ReactNode;
  readonly back: (state: S) => void;
  /** What stands at the one that is in force. */
  readonly inForce?: ReactNode;
}

interface Dated {
  readonly number: number;
  readonly by: string;
  readonly at: string;
}

/** The states something was in, the one in force first, and the way back to each of the others. */
export const States = <S extends Dated>({ states, about, back, inForce = null }: StatesProps<S>) => (
  <ul>
    {states.map((state, place) => (
      <li key={state.number} className="flex flex-wrap items-baseline justify-between gap-3 border-b border-rule py-2">
        <span>
          {about(state)}
          <Byline {...state} />
        </span>
        {place > 0 ? (
          <Button onClick={() => back(state)}>{say('ground:backTo', { number: state.number })}</Button>
        ) : (
          inForce
        )}
      </li>
    ))}
  </ul>
);

/** The same, folded away: what was in force of something before, each with why. */
export const WhatWasSet = <S extends Dated & { readonly note: string }>({
  states,
  back,
}: Pick<StatesProps<S>, 'states' | 'back'>) => (
  <details className="mt-4">
    <summary className="text-soft">{say('ground:whatWasSet')}</summary>
    <States
      states={states}
      back={back}
      about={({ number, note }) => `${say('ground:stateNumber', { number })} ${note}`}
      inForce={<span className="text-soft">{say('ground:inForce')}</span>}
    />
  </details>
);
