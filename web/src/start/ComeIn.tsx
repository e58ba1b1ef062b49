import { wayBack } from '@tolvek/core/people';
import { useState } from 'react';
import { Link, Navigate, useNavigate, useParams, useSearchParams } from 'react-router';
import { Button } from '../ui/Button.tsx';
import { Column } from '../ui/Column.tsx';
import { TextLine } from '../ui/TextLine.tsx';
import { Trouble } from '../ui/Trouble.tsx';
import { useTitle } from '../ui/useTitle.ts';
import { meApi } from '../wire/me.ts';
import { problemOf, refusalInWords } from '../wire/problem.ts';
import { say } from '../wire/words.ts';
import { startApi } from './endpoints.ts';

/** For people from outside: a code by email in the place of a password. */
export function ComeIn() {
  useTitle(say('start:comeInTitle'));
  const [search] = useSearchParams();
  const back = wayBack(search.get('back'));
  /** Who is signed in proves it once more. */
  const isAgain = search.has('again');
  const navigate = useNavigate();
  const { data: me } = meApi.useMeQuery();
  const [email, setEmail] = useState('');
  const [ask, asked] = startApi.useAskForCodeMutation();
  if (me?.person && !isAgain) return <Navigate to={back} replace />;
  if (asked.isSuccess)
    return (
      <EnterCode
        email={email}
        again={() => void ask({ body: { email } })}
        other={() => asked.reset()}
        isAsking={asked.isLoading}
        done={() => isAgain && navigate(back, { replace: true })}
      />
    );
  return (
    <Column>
      <h1 className="text-[28px]">{say('start:comeInTitle')}</h1>
      <p className="mt-2">{say('start:comeInHint')}</p>
      <form
        className="max-w-96"
        onSubmit={(event) => {
          event.preventDefault();
          void ask({ body: { email } });
        }}
      >
        <TextLine
          id="come-in-email"
          label={say('common:emailAddress')}
          error={asked.error}
          field="email"
          type="email"
          required
          autoComplete="email"
          value={email}
          change={setEmail}
        />
        <Button look="main" type="submit" disabled={asked.isLoading} className="mt-5 min-h-12 px-6 text-[16px]">
          {say('start:comeInSend')}
        </Button>
      </form>
      {asked.error ? (
        <div className="mt-4">
          <Trouble error={asked.error} />
        </div>
      ) : null}
      <p className="mt-8 text-soft">
        {say('start:worksHere')} <Link to="/sign-in">{say('common:staffSignIn')}</Link>
      </p>
    </Column>
  );
}

interface EnterCodeProps {
  readonly email: string;
  readonly again: () => void;
  readonly other: () => void;
  readonly isAsking: boolean;
  readonly done: () => void;
}

function EnterCode({ email, again, other, isAsking, done }: EnterCodeProps) {
  const [code, setCode] = useState('');
  const [enter, { isLoading, error }] = startApi.useSignInByCodeMutation();
  const { data: me } = meApi.useMeQuery();
  return (
    <Column>
      <h1 className="text-[28px]">{say('start:codeByEmail')}</h1>
      <p className="mt-2">{say('start:codeSent', { email })}</p>
      {me?.demo ? (
        <p className="mt-1">
          <Link to="/mailroom">{say('desk:openMailroom')}</Link>
        </p>
      ) : null}
      <form
        className="max-w-96"
        noValidate
        onSubmit={(event) => {
          event.preventDefault();
          void enter({ body: { email, code } }).then((entered) => 'error' in entered || done());
        }}
      >
        {error ? (
          <p role="alert" className="mt-4 border-l-[3px] border-brick bg-brick-wash px-4 py-3">
            {refusalInWords(problemOf(error))}
          </p>
        ) : null}
        <TextLine
          id="come-in-code"
          label={say('start:code')}
          error={undefined}
          field="code"
          autoComplete="one-time-code"
          inputMode="numeric"
          value={code}
          change={setCode}
        />
        <Button
          look="main"
          type="submit"
          disabled={isLoading || code.trim() === ''}
          className="mt-5 min-h-12 px-6 text-[16px]"
        >
          {say('common:signIn')}
        </Button>
      </form>
      <p className="mt-6 flex flex-wrap gap-x-5 gap-y-2">
        <button type="button" className="text-green underline" disabled={isAsking} onClick={again}>
          {say('start:codeAgain')}
        </button>
        <button type="button" className="text-green underline" onClick={other}>
          {say('start:otherEmail')}
        </button>
      </p>
      <p className="mt-4 text-[14px] text-soft">{say('start:codeLater')}</p>
    </Column>
  );
}

/** The link of the email: pressed, it signs in. Programs that look at links on the way do not press. */
export function ComeInByLink() {
  useTitle(say('start:comeInTitle'));
  const { token = '' } = useParams();
  const navigate = useNavigate();
  const [enter, { isLoading, error }] = startApi.useSignInByLinkMutation();
  return (
    <Column>
      <h1 className="text-[28px]">{say('start:comeInTitle')}</h1>
      {error ? (
        <div className="mt-4">
          <Trouble error={error} />
          <p className="mt-4">
            <Link to="/come-in">{say('start:askOther')}</Link>
          </p>
        </div>
      ) : (
        <>
          <p className="mt-2">{say('start:comeInPress')}</p>
          <Button
            look="main"
            disabled={isLoading}
            className="mt-5 min-h-12 px-6 text-[16px]"
            onClick={() => void enter({ token }).then((done) => ('error' in done ? undefined : navigate('/')))}
          >
            {say('common:signIn')}
          </Button>
        </>
      )}
    </Column>
  );
}
