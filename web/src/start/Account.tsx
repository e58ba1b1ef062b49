import type { AnswerOf } from '@tolvek/contract';
import { useState } from 'react';
import { toast } from 'sonner';
import { Button } from '../ui/Button.tsx';
import { Column } from '../ui/Column.tsx';
import { portraitOf } from '../ui/Face.tsx';
import { TextLine } from '../ui/TextLine.tsx';
import { ToSignIn } from '../ui/ToSignIn.tsx';
import { Trouble, WholeTrouble } from '../ui/Trouble.tsx';
import { useTitle } from '../ui/useTitle.ts';
import { meApi } from '../wire/me.ts';
import { problemOf, refusalInWords } from '../wire/problem.ts';
import { say } from '../wire/words.ts';
import { Absences } from './Absences.tsx';
import { startApi } from './endpoints.ts';
import { OwnEmails } from './OwnEmails.tsx';
import { Passkeys } from './Passkeys.tsx';
import { PictureInput } from './PictureInput.tsx';
import { SecondStep } from './SecondStep.tsx';
import { Sessions } from './Sessions.tsx';

/** One’s own account: the password, and where one is signed in. */
export function Account() {
  useTitle(say('start:account'));
  const { data: me } = meApi.useMeQuery();
  const { data, error } = startApi.useAccountQuery();
  const { data: ways } = startApi.useSignInWaysQuery();
  const [end, { isLoading }] = startApi.useEndSessionMutation();
  if (me && !me.person) return <ToSignIn />;
  const close = async (id: string): Promise<void> => {
    const done = await end({ id });
    if ('error' in done) toast.error(refusalInWords(problemOf(done.error)));
  };
  return (
    <Column>
      <h1 className="text-[28px]">{data?.name ?? say('start:account')}</h1>
      {error ? <Trouble error={error} /> : null}
      {data ? (
        <>
          <p className="mt-1 text-soft">{say('start:accountHint', { email: data.email })}</p>
          <OwnPortrait portrait={data.portrait} person={me?.person?.id ?? ''} />
          <OwnAbsences account={data} person={me?.person?.id ?? ''} />
          <OwnEmails />
          {data.providers.length > 0 ? (
            <p className="mt-1 text-soft">{say('start:signsInBy', { names: data.providers })}</p>
          ) : null}
          {data.hasPassword && ways?.passwords !== false ? (
            <>
              <ChangePassword />
              <SecondStep on={data.code} />
            </>
          ) : null}
          {ways?.passkeys === location.hostname ? <Passkeys passkeys={data.passkeys} /> : null}
          <h2 className="section-head mt-10">{say('start:sessions')}</h2>
          <Sessions sessions={data.sessions} busy={isLoading} end={(id) => void close(id)} />
        </>
      ) : null}
    </Column>
  );
}

/** What colleagues know one by. */
function OwnPortrait({ portrait, person }: { portrait: string | null; person: string }) {
  const [put, { isLoading }] = startApi.useSetOwnPortraitMutation();
  const set = async (picture: string | null): Promise<void> => {
    const done = await put({ body: { picture } });
    if ('error' in done) toast.error(refusalInWords(problemOf(done.error)));
  };
  return (
    <PictureInput
      src={portraitOf(person, portrait)}
      name={say('pictures:yourPortrait')}
      box={{ width: 192, height: 192, fills: true }}
      busy={isLoading}
      set={(picture) => void set(picture)}
    />
  );
}

/** When one is away oneself. */
function OwnAbsences({ account, person }: { account: AnswerOf<'account'>; person: string }) {
  const [add, { isLoading: isAdding, error }] = startApi.useAddOwnAbsenceMutation();
  const [end, { isLoading: isEnding }] = startApi.useEndOwnAbsenceMutation();
  return (
    <>
      <h2 className="section-head mt-8">{say('absences:absences')}</h2>
      <Absences
        {...{ ...account, person, error }}
        busy={isAdding || isEnding}
        add={async (body) => !('error' in (await add({ once: crypto.randomUUID(), body })))}
        end={(absence) => void end({ absence }).then(() => toast(say('absences:absenceEnded')))}
      />
    </>
  );
}

function ChangePassword() {
  const [typed, setTyped] = useState({ current: '', next: '' });
  const [change, { isLoading, error }] = startApi.useChangePasswordMutation();
  const send = async (event: React.FormEvent): Promise<void> => {
    event.preventDefault();
    const done = await change({ body: typed });
    if ('error' in done) return;
    setTyped({ current: '', next: '' });
    toast(say('start:passwordChanged'));
  };
  const line = (field: 'current' | 'next', label: string, autoComplete: string, hint?: string) => (
    <TextLine
      id={`password-${field}`}
      label={label}
      {...(hint ? { hint } : {})}
      error={error}
      field={field}
      type="password"
      autoComplete={autoComplete}
      value={typed[field]}
      change={(line) => setTyped({ ...typed, [field]: line })}
    />
  );
  return (
    <form onSubmit={send} noValidate className="max-w-96">
      <h2 className="section-head mt-8">{say('start:changePassword')}</h2>
      {line('current', say('start:currentPassword'), 'current-password')}
      {line('next', say('start:newPassword'), 'new-password', say('start:passwordHint'))}
      <WholeTrouble error={error} />
      <Button type="submit" disabled={isLoading} className="mt-5 min-h-11 px-5">
        {say('start:changePassword')}
      </Button>
    </form>
  );
}
