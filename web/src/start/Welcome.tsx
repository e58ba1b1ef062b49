import type { AnswerOf } from '@tolvek/contract';
import { useState } from 'react';
import { useNavigate, useParams } from 'react-router';
import { Button } from '../ui/Button.tsx';
import { Column } from '../ui/Column.tsx';
import { TextLine } from '../ui/TextLine.tsx';
import { Trouble, WholeTrouble } from '../ui/Trouble.tsx';
import { useTitle } from '../ui/useTitle.ts';
import { meApi } from '../wire/me.ts';
import { say } from '../wire/words.ts';
import { startApi } from './endpoints.ts';
import { Providers } from './SignIn.tsx';

/** Where the link of an invitation leads: to a password of one’s own. */
export function Welcome() {
  useTitle(say('start:welcome'));
  const { token = '' } = useParams();
  const { data, error } = startApi.useInvitationQuery({ token });
  return (
    <Column>
      {error ? (
        <Trouble error={error} />
      ) : data ? (
        data.passwords ? (
          <ChoosePassword token={token} invited={data} />
        ) : (
          <OtherWays invited={data} />
        )
      ) : (
        <p className="text-soft">{say('desk:oneMoment')}</p>
      )}
    </Column>
  );
}

/** Where nobody signs in with a password: the other ways. */
function OtherWays({ invited: { name, email, desk } }: { invited: AnswerOf<'invitation'> }) {
  const { data: ways } = startApi.useSignInWaysQuery();
  return (
    <>
      <h1 className="text-[28px]">{say('start:welcomeTo', { house: desk })}</h1>
      <p className="mt-2">
        {say('start:signInAs', { name, email })} {say('start:welcomeHint')}
      </p>
      <Providers ways={ways?.providers ?? []} back="/" />
    </>
  );
}

function ChoosePassword({ token, invited }: { token: string; invited: AnswerOf<'invitation'> }) {
  const navigate = useNavigate();
  const [accept, { isLoading, error }] = startApi.useAcceptInvitationMutation();
  const [signIn] = meApi.useSignInMutation();
  const [password, setPassword] = useState('');
  const send = async (event: React.FormEvent): Promise<void> => {
    event.preventDefault();
    const accepted = await accept({ token, body: { password } });
    if (!('data' in accepted) || !accepted.data) return;
    await signIn({ email: accepted.data.email, password });
    navigate('/');
  };
  const { name, email, desk, purpose } = invited;
  return (
    <form onSubmit={send} noValidate className="max-w-[30rem]">
      <h1 className="text-[28px]">
        {purpose === 'invite' ? say('start:welcomeTo', { house: desk }) : say('start:again')}
      </h1>
      <p className="mt-2">{say('start:signInAs', { name, email })}</p>
      <input type="hidden" autoComplete="username" value={email} readOnly />
      <TextLine
        id="new-password"
        label={say('start:newPassword')}
        hint={say('start:passwordHint')}
        error={error}
        field="password"
        type="password"
        autoComplete="new-password"
        value={password}
        change={setPassword}
      />
      <WholeTrouble error={error} className="mt-5" />
      <Button look="main" type="submit" disabled={isLoading} className="mt-6 min-h-11 px-6">
        {say('start:savePassword')}
      </Button>
    </form>
  );
}
