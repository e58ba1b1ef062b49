import { wayBack } from '@tolvek/core/people';
import { type ReactNode, useState } from 'react';
import { useForm } from 'react-hook-form';
import { Link, Navigate, useNavigate, useSearchParams } from 'react-router';
import { Button } from '../ui/Button.tsx';
import { Column } from '../ui/Column.tsx';
import { TextLine } from '../ui/TextLine.tsx';
import { useTitle } from '../ui/useTitle.ts';
import { meApi } from '../wire/me.ts';
import { problemOf, refusalInWords } from '../wire/problem.ts';
import { isStopped } from '../wire/stopped.ts';
import { say } from '../wire/words.ts';
import { startApi } from './endpoints.ts';

/** Why a provider that somebody was led to could not let them in. */
const FAILED = ['unknown', 'unverified', 'no-address', 'cancelled', 'late', 'unreachable', 'other'] as const;

const Alarm = ({ children }: { children: ReactNode }) => (
  <p role="alert" className="mt-4 border-l-[3px] border-brick bg-brick-wash px-4 py-3">
    {children}
  </p>
);

/** Staff sign-in, by providers and by password; in demo mode the demo people are one click away. */
export function SignIn() {
  useTitle(say('common:signIn'));
  const { data: me } = meApi.useMeQuery();
  const { data: ways } = startApi.useSignInWaysQuery();
  const [signIn, { isLoading, error, reset }] = meApi.useSignInMutation();
  const [needsCode, setNeedsCode] = useState(false);
  const navigate = useNavigate();
  const [search] = useSearchParams();
  const asked = search.get('back') ?? '';
  const back = wayBack(asked);
  const enter = async (who: { email: string; password: string }): Promise<void> => {
    const done = await signIn(who);
    if ('error' in done) return;
    if (done.data.needsCode) setNeedsCode(true);
    else navigate(back);
  };
  // Only who is not known is told so; whatever else went wrong says itself.
  const failed = !error
    ? ''
    : 'status' in error && error.status === 401
      ? say('common:wrongSignIn')
      : refusalInWords(problemOf(error));
  const ledBack = FAILED.find((why) => why === search.get('error'));
  // Who was sent here on the way, and is known after all, goes on.
  if (me?.person && asked !== '') return <Navigate to={back} replace />;
  if (needsCode)
    return (
      <EnterCode
        into={() => navigate(back)}
        other={() => {
          setNeedsCode(false);
          reset();
        }}
      />
    );
  return (
    <Column>
      <h1 className="text-[28px]">{say('common:signIn')}</h1>
      {failed ? <Alarm>{failed}</Alarm> : ledBack ? <Alarm>{say(`start:failed.${ledBack}`)}</Alarm> : null}
      <Providers ways={ways?.providers ?? []} back={back} />
      {ways?.passkeys === location.hostname ? <ByPasskey into={() => navigate(back)} /> : null}
      {ways && !ways.passwords ? (
        ways.providers.length === 0 ? (
          <p className="mt-4">{say('start:noWay')}</p>
        ) : null
      ) : (
        <>
          {ways && ways.providers.length > 0 ? <h2 className="section-head mt-8">{say('start:orPassword')}</h2> : null}
          <ByPassword enter={enter} isLoading={isLoading} />
        </>
      )}
      <p className="mt-6">
        {say('start:notStaff')} <Link to="/come-in">{say('desk:signInByEmail')}</Link>
      </p>
      {me?.demo && ways?.passwords !== false ? (
        <>
          <h2 className="section-head mt-10">{say('common:demoPeople')}</h2>
          <ul>
            {me.demo.people.map((person) => (
              <li key={person.email} className="border-b border-rule">
                <button
                  type="button"
                  disabled={isLoading}
                  onClick={() => enter({ email: person.email, password: me.demo?.password ?? '' })}
                  className="w-full py-3 text-left"
                >
                  <span className="subject text-[17px] text-green">{person.name}</span>
                  <span className="block text-soft">{person.does}</span>
                </button>
              </li>
            ))}
          </ul>
        </>
      ) : null}
    </Column>
  );
}

interface ProvidersProps {
  readonly ways: readonly { readonly id: string; readonly name: string }[];
  readonly back: string;
}

/** Whom one can be led to, who knows who one is. */
export const Providers = ({ ways, back }: ProvidersProps) =>
  ways.length === 0 ? null : (
    <ul className="mt-4 max-w-96">
      {ways.map(({ id, name }) => (
        <li key={id} className="mt-2.5">
          <a
            href={`/api/auth/by/${encodeURIComponent(id)}?back=${encodeURIComponent(back)}`}
            className="flex min-h-11 items-center justify-center rounded-[3px] border border-green bg-green px-5 font-semibold text-paper no-underline hover:bg-green-deep"
          >
            {say('start:signInWith', { name })}
          </a>
        </li>
      ))}
    </ul>
  );

/** A key of the device at hand, where there is one. */
function ByPasskey({ into }: { into: () => void }) {
  const [enter, { isLoading, error }] = meApi.useSignInByPasskeyMutation();
  return (
    <>
      {error ? (
        <Alarm>{isStopped(error) ? say('start:passkeyStopped') : refusalInWords(problemOf(error))}</Alarm>
      ) : null}
      <Button
        disabled={isLoading}
        className="mt-4 min-h-11 w-full max-w-96 px-6"
        onClick={() => void enter().then((done) => ('error' in done ? undefined : into()))}
      >
        {say('start:withPasskey')}
      </Button>
    </>
  );
}

interface ByPasswordProps {
  readonly enter: (who: { email: string; password: string }) => Promise<void>;
  readonly isLoading: boolean;
}

function ByPassword({ enter, isLoading }: ByPasswordProps) {
  const { register, handleSubmit } = useForm({ defaultValues: { email: '', password: '' } });
  return (
    <form className="mt-4 max-w-96" onSubmit={handleSubmit(enter)}>
      <label htmlFor="email" className="block font-semibold">
        {say('common:emailAddress')}
      </label>
      <input id="email" type="email" autoComplete="username" required className="input mt-1.5" {...register('email')} />
      <label htmlFor="password" className="mt-4 block font-semibold">
        {say('common:password')}
      </label>
      <input
        id="password"
        type="password"
        autoComplete="current-password"
        required
        className="input mt-1.5"
        {...register('password')}
      />
      <Button look="main" type="submit" disabled={isLoading} className="mt-5 min-h-11 px-6">
        {say('common:signIn')}
      </Button>
      <p className="mt-4">
        <Link to="/forgot">{say('common:forgotPassword')}</Link>
      </p>
    </form>
  );
}

/** The code after a right password, of an app or a spare one. */
function EnterCode({ into, other }: { into: () => void; other: () => void }) {
  const [send, { isLoading, error }] = meApi.useSendCodeMutation();
  const [code, setCode] = useState('');
  const [trust, setTrust] = useState(false);
  return (
    <Column>
      <form
        className="max-w-96"
        noValidate
        onSubmit={(event) => {
          event.preventDefault();
          void send({ code, trust }).then((sent) => ('error' in sent ? undefined : into()));
        }}
      >
        <h1 className="text-[28px]">{say('start:codeTitle')}</h1>
        <p className="mt-2">{say('start:codeHint')}</p>
        {error ? <Alarm>{refusalInWords(problemOf(error))}</Alarm> : null}
        <TextLine
          id="code"
          label={say('start:code')}
          error={undefined}
          field="code"
          autoComplete="one-time-code"
          value={code}
          change={setCode}
        />
        <label className="mt-4 flex items-baseline gap-2">
          <input
            type="checkbox"
            className="accent-green"
            checked={trust}
            onChange={({ target }) => setTrust(target.checked)}
          />
          {say('start:trustDevice')}
        </label>
        <p className="mt-5 flex flex-wrap gap-2.5">
          <Button look="main" type="submit" disabled={isLoading || code.trim() === ''} className="min-h-11 px-6">
            {say('start:continueSignIn')}
          </Button>
          <Button onClick={other} className="min-h-11 px-5">
            {say('start:otherPerson')}
          </Button>
        </p>
      </form>
    </Column>
  );
}
