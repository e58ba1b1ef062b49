import { useForm } from 'react-hook-form';
import { Link, Navigate, useNavigate, useSearchParams } from 'react-router';
import { Button } from '../ui/Button.tsx';
import { Column } from '../ui/Column.tsx';
import { useTitle } from '../ui/useTitle.ts';
import { meApi } from '../wire/me.ts';
import { problemOf, refusalInWords } from '../wire/problem.ts';
import { say } from '../wire/words.ts';

/** Staff sign-in; in demo mode the demo people are one click away. */
export function SignIn() {
  useTitle(say('common:signIn'));
  const { data: me } = meApi.useMeQuery();
  const [signIn, { isLoading, error }] = meApi.useSignInMutation();
  const navigate = useNavigate();
  const [search] = useSearchParams();
  const { register, handleSubmit } = useForm({ defaultValues: { email: '', password: '' } });
  const asked = search.get('back') ?? '';
  const back = /^\/(?!\/)/.test(asked) ? asked : '/';
  const enter = async (who: { email: string; password: string }): Promise<void> => {
    const done = await signIn(who);
    if (!('error' in done)) navigate(back);
  };
  // Only who is not known is told so; whatever else went wrong says itself.
  const failed = !error
    ? ''
    : 'status' in error && error.status === 401
      ? say('common:wrongSignIn')
      : refusalInWords(problemOf(error));
  // Who was sent here on the way, and is known after all, goes on.
  if (me?.person && asked !== '') return <Navigate to={back} replace />;
  return (
    <Column>
      <h1 className="text-[28px]">{say('common:signIn')}</h1>
      {failed ? (
        <p role="alert" className="mt-4 border-l-[3px] border-brick bg-brick-wash px-4 py-3">
          {failed}
        </p>
      ) : null}
      <form className="mt-4 max-w-96" onSubmit={handleSubmit(enter)}>
        <label htmlFor="email" className="block font-semibold">
          {say('common:emailAddress')}
        </label>
        <input
          id="email"
          type="email"
          autoComplete="username"
          required
          className="input mt-1.5"
          {...register('email')}
        />
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
      {me?.demo ? (
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
