import { useState } from 'react';
import { Button } from '../ui/Button.tsx';
import { DialogFrame } from '../ui/DialogFrame.tsx';
import { news } from '../ui/news.ts';
import { Trouble } from '../ui/Trouble.tsx';
import { say } from '../wire/words.ts';

/** Withdraws a request of one’s own, once it is said what that does. */
export function Withdraw({ withdraw }: { withdraw: (reason: string) => Promise<unknown> }) {
  const [isOpen, setOpen] = useState(false);
  const [reason, setReason] = useState('');
  const [error, setError] = useState<unknown>(null);
  const [isSending, setSending] = useState(false);
  const send = async (): Promise<void> => {
    setSending(true);
    setError(null);
    try {
      await withdraw(reason);
      setOpen(false);
      news(say('desk:withdrawDone'));
    } catch (problem) {
      setError(problem);
    }
    setSending(false);
  };
  return (
    <p className="mt-6">
      <DialogFrame
        open={isOpen}
        onOpenChange={setOpen}
        reset={() => setError(null)}
        trigger={
          <button type="button" className="text-brick underline">
            {say('desk:withdraw')}
          </button>
        }
        title={say('desk:withdrawTitle')}
      >
        <p className="mt-3">{say('desk:withdrawSays')}</p>
        <label htmlFor="withdraw-why" className="mt-4 block font-semibold">
          {say('desk:withdrawWhy')}
        </label>
        <textarea
          id="withdraw-why"
          rows={2}
          maxLength={500}
          className="input mt-1.5"
          value={reason}
          onChange={(event) => setReason(event.target.value)}
        />
        {error ? <Trouble error={error} /> : null}
        <p className="mt-5 flex flex-wrap gap-3">
          <Button look="refuse" className="min-h-11 px-5" disabled={isSending} onClick={() => void send()}>
            {say('desk:withdrawNow')}
          </Button>
          <Button className="min-h-11 px-5" onClick={() => setOpen(false)}>
            {say('desk:withdrawNot')}
          </Button>
        </p>
      </DialogFrame>
    </p>
  );
}
