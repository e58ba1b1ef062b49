import { useState } from 'react';
import { toast } from 'sonner';
import { Button } from '../ui/Button.tsx';
import { DialogFrame } from '../ui/DialogFrame.tsx';
import { TextLine } from '../ui/TextLine.tsx';
import { WholeTrouble } from '../ui/Trouble.tsx';
import { useCodePicture } from '../ui/useCodePicture.ts';
import { say } from '../wire/words.ts';
import { startApi } from './endpoints.ts';

/** A code after one’s own password: set up with an app, and ended. */
export function SecondStep({ on }: { on: boolean }) {
  const [open, setOpen] = useState(false);
  return (
    <>
      <h2 className="section-head mt-10">{say('start:secondStep')}</h2>
      <p className="mt-1.5">{say(on ? 'start:secondStepOn' : 'start:secondStepOff')}</p>
      <p className="mt-2.5">
        <DialogFrame
          open={open}
          onOpenChange={setOpen}
          title={say('start:secondStep')}
          trigger={<Button className="min-h-11 px-5">{say(on ? 'start:endCode' : 'start:setUpCode')}</Button>}
        >
          {open ? on ? <EndCode close={() => setOpen(false)} /> : <SetUp close={() => setOpen(false)} /> : null}
        </DialogFrame>
      </p>
    </>
  );
}

interface OwnPasswordProps {
  readonly error: unknown;
  readonly busy: boolean;
  readonly action: string;
  readonly send: (password: string) => void;
}

/** Only whoever knows the password changes how they prove who they are. */
function OwnPassword({ error, busy, action, send }: OwnPasswordProps) {
  const [password, setPassword] = useState('');
  return (
    <form
      noValidate
      onSubmit={(event) => {
        event.preventDefault();
        send(password);
      }}
    >
      <TextLine
        id="own-password"
        label={say('start:currentPassword')}
        error={undefined}
        field="password"
        type="password"
        autoComplete="current-password"
        value={password}
        change={setPassword}
      />
      <WholeTrouble error={error} />
      <p className="mt-4">
        <Button look="main" type="submit" disabled={busy || password === ''}>
          {action}
        </Button>
      </p>
    </form>
  );
}

function EndCode({ close }: { close: () => void }) {
  const [end, { isLoading, error }] = startApi.useEndCodeMutation();
  const send = async (password: string): Promise<void> => {
    if ('error' in (await end({ password }))) return;
    toast(say('start:codeIsOff'));
    close();
  };
  return (
    <OwnPassword error={error} busy={isLoading} action={say('start:endCodeNow')} send={(typed) => void send(typed)} />
  );
}

function SetUp({ close }: { close: () => void }) {
  const [begin, { data, isLoading, error }] = startApi.useBeginCodeMutation();
  if (!data)
    return (
      <OwnPassword
        error={error}
        busy={isLoading}
        action={say('start:continueSignIn')}
        send={(password) => void begin({ password })}
      />
    );
  return <Confirm uri={data.uri} spare={data.spare} close={close} />;
}

/** What computes codes, as a picture for an app and as a key to type; switched on by a first code. */
function Confirm({ uri, spare, close }: { uri: string; spare: readonly string[]; close: () => void }) {
  const [confirm, { isLoading, error }] = startApi.useConfirmCodeMutation();
  const [code, setCode] = useState('');
  const picture = useCodePicture(uri, { margin: 1, width: 180 });
  const send = async (): Promise<void> => {
    if ('error' in (await confirm({ code }))) return;
    toast(say('start:codeIsOn'));
    close();
  };
  const key = new URL(uri).searchParams.get('secret') ?? '';
  return (
    <form
      noValidate
      onSubmit={(event) => {
        event.preventDefault();
        void send();
      }}
    >
      <p className="mt-2">{say('start:scan')}</p>
      {picture ? <img src={picture} alt="" width={180} height={180} className="mt-2 border border-rule" /> : null}
      <p className="mt-2 text-[13px]">
        {say('start:key')}: <code className="font-mono break-all">{key}</code>
      </p>
      <p className="mt-4">{say('start:spare')}</p>
      <ul className="mt-1 grid grid-cols-2 gap-x-6 font-mono text-[13px]">
        {spare.map((each) => (
          <li key={each}>{each}</li>
        ))}
      </ul>
      <TextLine
        id="first-code"
        label={say('start:firstCode')}
        error={undefined}
        field="code"
        autoComplete="one-time-code"
        value={code}
        change={setCode}
      />
      <WholeTrouble error={error} />
      <p className="mt-4">
        <Button look="main" type="submit" disabled={isLoading || code.trim() === ''}>
          {say('start:confirmCode')}
        </Button>
      </p>
    </form>
  );
}
