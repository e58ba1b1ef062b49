import type { Change, DesignFinding } from '@tolvek/core/design';
import type { ReactNode } from 'react';
import { Button } from '../ui/Button.tsx';
import { WholeTrouble } from '../ui/Trouble.tsx';
import { say, told } from '../wire/words.ts';

interface PutInForceProps {
  readonly changes: readonly Change[];
  /** What it would be set to, in sentences. */
  readonly says: ReactNode;
  readonly found: readonly Pick<DesignFinding, 'at' | 'message'>[];
  /** What the server found. */
  readonly error: unknown;
  readonly note: string;
  readonly setNote: (note: string) => void;
  readonly isLoading: boolean;
  readonly save: () => void;
  readonly undo: () => void;
  readonly close: () => void;
}

/** What is changed of something that is in force at once, and the one step that puts it in force. */
export const PutInForce = ({
  changes,
  says,
  found,
  error,
  note,
  setNote,
  isLoading,
  save,
  undo,
  close,
}: PutInForceProps) => (
  <section
    aria-label={say('ground:notInForce')}
    className={`mt-5 border border-rule-strong bg-sheet px-4 py-3 ${changes.length > 0 ? 'sticky -bottom-10 shadow-lg' : ''}`}
  >
    {changes.length === 0 ? (
      <p className="flex items-center justify-between gap-3 text-soft">
        {say('workshop:doors.nothingChanged')}
        <Button onClick={close}>{say('common:close')}</Button>
      </p>
    ) : (
      <>
        <p className="text-soft">{[...new Set(changes.map(({ words }) => told(words)))].join(' ')}</p>
        <p className="mt-1">{says}</p>
        {found.map(({ at, message }) => (
          <p key={at + told(message)} role="alert" className="mt-1 text-brick">
            {told(message)}
          </p>
        ))}
        <WholeTrouble error={error} className="mt-2" />
        <p className="mt-3 flex flex-wrap items-center gap-2">
          <input
            aria-label={say('ground:why')}
            placeholder={say('ground:why')}
            className="input min-w-48 flex-1"
            value={note}
            onChange={(event) => setNote(event.target.value)}
          />
          <Button look="main" disabled={isLoading || found.length > 0} onClick={save}>
            {say('ground:putInForce')}
          </Button>
          <Button onClick={undo}>{say('ground:undoChanges')}</Button>
        </p>
      </>
    )}
  </section>
);
