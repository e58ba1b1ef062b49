import { useState } from 'react';
import { Button } from '../ui/Button.tsx';
import { DialogFrame } from '../ui/DialogFrame.tsx';
import { news } from '../ui/news.ts';
import { Trouble } from '../ui/Trouble.tsx';
import { say } from '../wire/words.ts';
import { floorApi } from './endpoints.ts';

/** Makes somebody from outside the handler of one request, by name and address. */
export function GivingOutside({ number, version }: { readonly number: string; readonly version: number }) {
  const [isOpen, setOpen] = useState(false);
  const [name, setName] = useState('');
  const [email, setEmail] = useState('');
  const [give, { isLoading, error, reset }] = floorApi.useGiveOutsideMutation();
  const send = async (event: React.FormEvent): Promise<void> => {
    event.preventDefault();
    const done = await give({ number, version, body: { name, email } });
    if ('error' in done) return;
    setOpen(false);
    news(say('floor:gaveOutside', { name: name.trim() || email.trim() }));
    setName('');
    setEmail('');
  };
  return (
    <DialogFrame
      open={isOpen}
      onOpenChange={setOpen}
      reset={reset}
      trigger={
        <button type="button" className="min-h-6 text-green underline">
          {say('floor:giveOutside')}
        </button>
      }
      title={say('floor:giveOutsideTitle')}
    >
      <form onSubmit={(event) => void send(event)}>
        <p className="mt-3">{say('floor:giveOutsideSays')}</p>
        <label htmlFor="outside-name" className="mt-4 block font-semibold">
          {say('floor:outsideName')}
        </label>
        <input
          id="outside-name"
          className="input mt-1.5"
          maxLength={200}
          value={name}
          onChange={(event) => setName(event.target.value)}
        />
        <label htmlFor="outside-email" className="mt-4 block font-semibold">
          {say('floor:outsideEmail')}
        </label>
        <input
          id="outside-email"
          type="email"
          className="input mt-1.5"
          maxLength={320}
          value={email}
          onChange={(event) => setEmail(event.target.value)}
        />
        {error ? (
          <div className="mt-4">
            <Trouble error={error} />
          </div>
        ) : null}
        <p className="mt-5">
          <Button type="submit" look="main" disabled={isLoading}>
            {say('floor:giveOutsideNow')}
          </Button>
        </p>
      </form>
    </DialogFrame>
  );
}
