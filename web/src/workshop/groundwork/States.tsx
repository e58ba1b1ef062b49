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

/** The states something was in, the one in force first, and the way back to each of the others. */
export const States = <S extends { readonly number: number; readonly by: string; readonly at: string }>({
  states,
  about,
  back,
  inForce = null,
}: StatesProps<S>) => (
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
