import type { AnswerOf } from '@tolvek/contract';
import { useState } from 'react';
import { toast } from 'sonner';
import { Button } from '../ui/Button.tsx';
import { TextLine } from '../ui/TextLine.tsx';
import { WholeTrouble } from '../ui/Trouble.tsx';
import { problemOf, refusalInWords } from '../wire/problem.ts';
import { isStopped } from '../wire/stopped.ts';
import { say } from '../wire/words.ts';
import { startApi } from './endpoints.ts';

/** Keys of devices that one signs in with: added on the device, and taken away. */
export function Passkeys({ passkeys }: { passkeys: AnswerOf<'account'>['passkeys'] }) {
  const [name, setName] = useState('');
  const [add, { isLoading, error }] = startApi.useAddPasskeyMutation();
  const [end, { isLoading: isEnding }] = startApi.useEndPasskeyMutation();
  const send = async (): Promise<void> => {
    if ('error' in (await add({ name: name.trim() }))) return;
    setName('');
    toast(say('start:passkeyAdded'));
  };
  const remove = async (id: string): Promise<void> => {
    const done = await end({ id });
    if ('error' in done) toast.error(refusalInWords(problemOf(done.error)));
    else toast(say('start:passkeyEnded'));
  };
  return (
    <>
      <h2 className="section-head mt-10">{say('start:passkeys')}</h2>
      <p className="mt-1.5">{say('start:passkeysHint')}</p>
      <ul className="mt-1.5">
        {passkeys.map((key) => (
          <li key={key.id} className="flex items-baseline justify-between gap-3 border-b border-rule py-2">
            <span>
              {key.name} <span className="text-soft">· {say('start:added', { at: key.made })}</span>
            </span>
            <Button disabled={isEnding} onClick={() => void remove(key.id)}>
              {say('start:removePasskey')}
            </Button>
          </li>
        ))}
      </ul>
      <form
        className="max-w-96"
        noValidate
        onSubmit={(event) => {
          event.preventDefault();
          void send();
        }}
      >
        <TextLine
          id="passkey-name"
          label={say('start:passkeyName')}
          error={undefined}
          field="name"
          value={name}
          change={setName}
        />
        {isStopped(error) ? (
          <p role="alert" className="mt-2 text-brick">
            {say('start:passkeyStopped')}
          </p>
        ) : (
          <WholeTrouble error={error} />
        )}
        <Button type="submit" disabled={isLoading || name.trim() === ''} className="mt-4 min-h-11 px-5">
          {say('start:addPasskey')}
        </Button>
      </form>
    </>
  );
}
