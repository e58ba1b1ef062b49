import type { AnswerOf } from '@tolvek/contract';
import { providerKey } from '@tolvek/core/settings';
import { useState } from 'react';
import { toast } from 'sonner';
import { Button } from '../../ui/Button.tsx';
import { DialogFrame } from '../../ui/DialogFrame.tsx';
import { TextLine } from '../../ui/TextLine.tsx';
import { Trouble, WholeTrouble } from '../../ui/Trouble.tsx';
import { useTitle } from '../../ui/useTitle.ts';
import { problemOf, refusalInWords } from '../../wire/problem.ts';
import { say } from '../../wire/words.ts';
import { CopyLine } from './CopyLine.tsx';
import { groundApi } from './endpoints.ts';
import { GroundHistory } from './GroundHistory.tsx';

type Opened = AnswerOf<'signInSettings'>;
type Provider = Opened['providers'][number];

/** How staff prove who they are: passwords, and providers of OpenID Connect. */
export function SignInPage() {
  useTitle(say('signIn:signIn'));
  const { data, error, refetch } = groundApi.useSignInSettingsQuery();
  return (
    <main className="min-h-0 overflow-auto px-[26px] pt-5 pb-10">
      <div className="max-w-[46rem]">
        <h1>{say('signIn:signIn')}</h1>
        <p className="text-soft">{say('signIn:hint')}</p>
        {error ? <Trouble error={error} again={refetch} /> : null}
        {data ? (
          <>
            <Passwords opened={data} />
            <h2 className="section-head mt-8">{say('signIn:providers')}</h2>
            <p className="mt-1.5 text-soft">{say('signIn:providersHint')}</p>
            <ul>
              {data.providers.map((provider) => (
                <ProviderLine
                  key={`${provider.id} ${provider.version}`}
                  provider={provider}
                  mayChange={data.mayChange}
                />
              ))}
              {data.providers.length === 0 ? <li className="py-1.5 text-soft">{say('signIn:noProviders')}</li> : null}
            </ul>
            <div className="mt-3">
              {data.mayChange ? (
                <AddProvider taken={data.providers.map(({ id }) => id)} />
              ) : (
                <p className="text-[13px] text-soft">{say('signIn:onlyRights')}</p>
              )}
            </div>
            {data.history.length > 0 ? <GroundHistory lines={data.history} /> : null}
          </>
        ) : null}
      </div>
    </main>
  );
}

function Passwords({ opened: { passwords, mayChange, mayDoWithout, linked, staff } }: { opened: Opened }) {
  const [open, setOpen] = useState(false);
  const [put, { isLoading, error }] = groundApi.useSetPasswordsMutation();
  const set = async (on: boolean): Promise<void> => {
    const done = await put({ body: { on } });
    if ('error' in done) return;
    setOpen(false);
    toast(say(on ? 'signIn:turnedOn' : 'signIn:turnedOff'));
  };
  return (
    <>
      <h2 className="section-head mt-6">{say('signIn:passwords')}</h2>
      <p className="mt-1.5">{say(passwords ? 'signIn:passwordsOn' : 'signIn:passwordsOff')}</p>
      {passwords && mayChange && !mayDoWithout ? <p className="mt-1 text-soft">{say('signIn:turnOffFirst')}</p> : null}
      {passwords && mayChange && mayDoWithout ? (
        <p className="mt-2.5">
          <DialogFrame
            open={open}
            onOpenChange={setOpen}
            title={say('signIn:turnOffTitle')}
            trigger={<Button>{say('signIn:turnOff')}</Button>}
          >
            <p className="mt-2">{say('signIn:turnOffHint', { linked, staff })}</p>
            <p className="mt-2">{say('signIn:passkeysStay')}</p>
            <p className="mt-2 text-soft">{say('signIn:wayBack')}</p>
            <WholeTrouble error={error} />
            <p className="mt-4">
              <Button look="refuse" disabled={isLoading} onClick={() => void set(false)}>
                {say('signIn:turnOffNow')}
              </Button>
            </p>
          </DialogFrame>
        </p>
      ) : null}
      {passwords || !mayChange ? null : (
        <p className="mt-2.5">
          <Button disabled={isLoading} onClick={() => void set(true)}>
            {say('signIn:turnOn')}
          </Button>
        </p>
      )}
    </>
  );
}

function ProviderLine({ provider, mayChange }: { provider: Provider; mayChange: boolean }) {
  const { id, name, issuer, callback, active, version, people, secret } = provider;
  const [change, { isLoading }] = groundApi.useChangeProviderMutation();
  const turn = async (): Promise<void> => {
    const done = await change({ id, version, body: { active: !active } });
    if ('error' in done) toast.error(refusalInWords(problemOf(done.error)));
    else toast(say('signIn:saved'));
  };
  return (
    <li className="border-b border-rule py-3">
      <div className="flex flex-wrap items-baseline justify-between gap-3">
        <span className={active ? '' : 'text-soft'}>
          {name}
          {active ? '' : ` · ${say('signIn:inactive')}`}
          <span className="block text-[12.5px] text-soft">
            {issuer} · {say('signIn:people', { count: people })}
          </span>
        </span>
        {mayChange ? (
          <span className="flex gap-2">
            <ChangeProvider provider={provider} />
            <Button disabled={isLoading} onClick={() => void turn()}>
              {say(active ? 'signIn:switchOff' : 'signIn:switchOn')}
            </Button>
          </span>
        ) : null}
      </div>
      {secret === 'lost' ? (
        <p role="alert" className="mt-1 text-brick">
          {say('signIn:secretLost')}
        </p>
      ) : null}
      <p className="mt-2 text-[13px] text-soft">{say('signIn:callback')}</p>
      <CopyLine text={callback} name={say('signIn:callback')} />
    </li>
  );
}

function ChangeProvider({ provider: { id, version, ...before } }: { provider: Provider }) {
  const [open, setOpen] = useState(false);
  const [typed, setTyped] = useState({ name: before.name, clientId: before.clientId, secret: '' });
  const [change, { isLoading, error }] = groundApi.useChangeProviderMutation();
  const send = async (): Promise<void> => {
    const { secret, ...settings } = typed;
    const done = await change({ id, version, body: { ...settings, ...(secret === '' ? {} : { secret }) } });
    if ('error' in done) return;
    setOpen(false);
    toast(say('signIn:saved'));
  };
  return (
    <DialogFrame
      open={open}
      onOpenChange={setOpen}
      title={say('signIn:changeTitle', { name: before.name })}
      trigger={<Button>{say('signIn:change')}</Button>}
    >
      <form
        noValidate
        onSubmit={(event) => {
          event.preventDefault();
          void send();
        }}
      >
        <Common typed={typed} set={(next) => setTyped({ ...typed, ...next })} error={error} />
        <Secret
          hint={say('signIn:secretStays')}
          value={typed.secret}
          set={(secret) => setTyped({ ...typed, secret })}
        />
        <WholeTrouble error={error} />
        <p className="mt-4">
          <Button look="main" type="submit" disabled={isLoading || typed.name.trim() === ''}>
            {say('workshop:saveChanges')}
          </Button>
        </p>
      </form>
    </DialogFrame>
  );
}

const NOTHING = { name: '', issuer: '', clientId: '', secret: '' };

function AddProvider({ taken }: { taken: readonly string[] }) {
  const [open, setOpen] = useState(false);
  const [typed, setTyped] = useState(NOTHING);
  const [add, { isLoading, error, reset }] = groundApi.useAddProviderMutation();
  const turn = (now: boolean): void => {
    setOpen(now);
    reset();
  };
  const send = async (): Promise<void> => {
    const body = { ...typed, issuer: typed.issuer.trim(), secret: typed.secret === '' ? null : typed.secret };
    if ('error' in (await add({ once: crypto.randomUUID(), body }))) return;
    setTyped(NOTHING);
    turn(false);
    toast(say('signIn:added'));
  };
  // The provider wants to know it before it tells the client ID.
  const key = providerKey(typed.name, taken);
  const isFull = [typed.name, typed.issuer, typed.clientId].every((each) => each.trim() !== '');
  return (
    <DialogFrame
      open={open}
      onOpenChange={turn}
      title={say('signIn:addTitle')}
      trigger={<Button look="main">{say('signIn:add')}</Button>}
    >
      <form
        noValidate
        onSubmit={(event) => {
          event.preventDefault();
          void send();
        }}
      >
        <TextLine
          id="provider-issuer"
          label={say('signIn:issuer')}
          hint={say('signIn:issuerHint')}
          error={error}
          field="issuer"
          type="url"
          value={typed.issuer}
          change={(issuer) => setTyped({ ...typed, issuer })}
        />
        <Common typed={typed} set={(next) => setTyped({ ...typed, ...next })} error={error} />
        {typed.name.trim() === '' ? null : (
          <>
            <p className="mt-4 text-[13px] text-soft">{say('signIn:callback')}</p>
            <CopyLine text={`${location.origin}/api/auth/callback/${key}`} name={say('signIn:callback')} />
          </>
        )}
        <Secret hint={say('signIn:secretHint')} value={typed.secret} set={(secret) => setTyped({ ...typed, secret })} />
        <WholeTrouble error={error} />
        <p className="mt-4">
          <Button look="main" type="submit" disabled={isLoading || !isFull}>
            {say('signIn:addNow')}
          </Button>
        </p>
      </form>
    </DialogFrame>
  );
}

interface CommonProps {
  readonly typed: { readonly name: string; readonly clientId: string };
  readonly set: (typed: { readonly name?: string; readonly clientId?: string }) => void;
  readonly error: unknown;
}

const Common = ({ typed, set, error }: CommonProps) => (
  <>
    <TextLine
      id="provider-name"
      label={say('signIn:name')}
      hint={say('signIn:nameHint')}
      error={error}
      field="name"
      value={typed.name}
      change={(name) => set({ name })}
    />
    <TextLine
      id="provider-client"
      label={say('signIn:clientId')}
      error={error}
      field="clientId"
      autoComplete="off"
      value={typed.clientId}
      change={(clientId) => set({ clientId })}
    />
  </>
);

const Secret = ({ hint, value, set }: { hint: string; value: string; set: (secret: string) => void }) => (
  <TextLine
    id="provider-secret"
    label={say('signIn:secret')}
    hint={hint}
    error={undefined}
    field="secret"
    type="password"
    autoComplete="off"
    value={value}
    change={set}
  />
);
