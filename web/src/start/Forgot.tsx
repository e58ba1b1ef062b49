import { useState } from 'react';
import { Button } from '../ui/Button.tsx';
import { Column } from '../ui/Column.tsx';
import { TextLine } from '../ui/TextLine.tsx';
import { Trouble } from '../ui/Trouble.tsx';
import { useTitle } from '../ui/useTitle.ts';
import { say } from '../wire/words.ts';
import { startApi } from './endpoints.ts';

/** For who forgot their password: an email with a link, whoever they are. */
export function Forgot() {
  useTitle(say('start:forgotTitle'));
  const [email, setEmail] = useState('');
  const [ask, { isLoading, isSuccess, error }] = startApi.useForgotPasswordMutation();
  const send = (event: React.FormEvent): void => {
    event.preventDefault();
    void ask({ body: { email } });
  };
  return (
    <Column>
      <h1 className="text-[28px]">{say('start:forgotTitle')}</h1>
      <p className="mt-2">{say('start:forgotHint')}</p>
      <form onSubmit={send} className="max-w-96">
        <TextLine
          id="forgot-email"
          label={say('common:emailAddress')}
          error={error}
          field="email"
          type="email"
          required
          autoComplete="username"
          value={email}
          change={setEmail}
        />
        <Button look="main" type="submit" disabled={isLoading} className="mt-5 min-h-11 px-6">
          {say('start:forgotSend')}
        </Button>
      </form>
      {error ? (
        <div className="mt-4">
          <Trouble error={error} />
        </div>
      ) : null}
      <p role="status" className="mt-4">
        {isSuccess ? say('start:forgotSent') : ''}
      </p>
    </Column>
  );
}
