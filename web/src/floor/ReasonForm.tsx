import { Dialog } from 'radix-ui';
import { type ReactNode, useState } from 'react';
import { Button } from '../ui/Button.tsx';
import { Trouble } from '../ui/Trouble.tsx';
import { say } from '../wire/words.ts';

interface ReasonFormProps {
  readonly id: string;
  /** What is said or chosen before the reason. */
  readonly children: ReactNode;
  /** Who reads it, in smaller words. */
  readonly hint?: string;
  /** What the button says. */
  readonly act: string;
  readonly look: 'main' | 'refuse';
  readonly busy: boolean;
  readonly error: unknown;
  readonly send: (reason: string) => void;
}

/** Something that needs a reason, in a dialog. */
export function ReasonForm({ id, children, hint, act, look, busy, error, send }: ReasonFormProps) {
  const [reason, setReason] = useState('');
  return (
    <form
      noValidate
      onSubmit={(event) => {
        event.preventDefault();
        send(reason);
      }}
    >
      {children}
      <label htmlFor={id} className="mt-4 block font-semibold">
        {say('floor:reason')} {hint ? <span className="font-normal text-soft">{hint}</span> : null}
      </label>
      <textarea
        id={id}
        rows={2}
        className="input mt-1"
        value={reason}
        onChange={(event) => setReason(event.target.value)}
      />
      {error ? (
        <div className="mt-4">
          <Trouble error={error} />
        </div>
      ) : null}
      <div className="mt-5 flex gap-3">
        <Button look={look} type="submit" disabled={busy || reason.trim() === ''}>
          {act}
        </Button>
        <Dialog.Close asChild>
          <Button>{say('common:cancel')}</Button>
        </Dialog.Close>
      </div>
    </form>
  );
}
