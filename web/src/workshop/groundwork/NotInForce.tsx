import { type ReactNode, useState } from 'react';
import { Button } from '../../ui/Button.tsx';
import { say } from '../../wire/words.ts';

interface NotInForceProps {
  /** What a change alters, or what is wrong with it. */
  readonly children?: ReactNode;
  readonly disabled: boolean;
  /** Puts it in force, with why. */
  readonly save: (note: string) => void;
  readonly undo: () => void;
}

/** That something was changed and is not in force yet, with the presses that put it in force or take it back. */
export function NotInForce({ children, disabled, save, undo }: NotInForceProps) {
  const [note, setNote] = useState('');
  return (
    <section
      aria-label={say('ground:notInForce')}
      className="sticky bottom-0 mt-6 border border-rule-strong bg-sheet px-4 py-3 shadow-lg"
    >
      <p className="font-semibold">{say('ground:notInForce')}</p>
      {children}
      <div className="mt-3 flex flex-wrap items-center gap-2">
        <input
          aria-label={say('ground:why')}
          placeholder={say('ground:why')}
          className="input min-w-56 flex-1"
          value={note}
          onChange={({ target }) => setNote(target.value)}
        />
        <Button look="main" disabled={disabled} onClick={() => save(note)}>
          {say('ground:putInForce')}
        </Button>
        <Button onClick={undo}>{say('ground:undoChanges')}</Button>
      </div>
    </section>
  );
}
