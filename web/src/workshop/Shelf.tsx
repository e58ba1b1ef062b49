import { useEffect, useState } from 'react';
import { Link } from 'react-router';
import { ToSignIn } from '../ui/ToSignIn.tsx';
import { Trouble } from '../ui/Trouble.tsx';
import { useTitle } from '../ui/useTitle.ts';
import { meApi } from '../wire/me.ts';
import { say } from '../wire/words.ts';
import { workshopApi } from './endpoints.ts';

/** The Workshop's shelf: every form as a binder, with its state. */
export function Shelf() {
  useTitle(say('common:workshop'));
  const { data: me } = meApi.useMeQuery();
  const [isWaiting, setIsWaiting] = useState(false);
  // Drafts that are being looked through are asked about again, until all of them are known.
  const { data, error, refetch } = workshopApi.useFormsQuery(undefined, { pollingInterval: isWaiting ? 2_000 : 0 });
  const isChecking = data?.forms.some((form) => form.findings === null) ?? false;
  useEffect(() => setIsWaiting(isChecking), [isChecking]);
  if (me && !me.person) return <ToSignIn />;
  return (
    <main className="mx-auto max-w-[60rem] px-6 pt-6">
      <div className="flex items-baseline justify-between">
        <h1>{say('common:workshop')}</h1>
        <span className="flex items-baseline gap-5">
          <Link to="/workshop/groundwork">{say('ground:groundwork')}</Link>
          <Link to="/workshop/groundwork/vocabularies">{say('workshop:vocabularies')}</Link>
          <Link
            to="/workshop/new"
            className="rounded-md border border-green bg-green px-[13px] py-1.5 text-[13.5px] font-semibold text-on-green no-underline"
          >
            {say('workshop:newFormMore')}
          </Link>
        </span>
      </div>
      <p className="text-soft">{say('workshop:shelfIntro')}</p>
      {error ? (
        <div className="mt-5">
          <Trouble error={error} again={refetch} />
        </div>
      ) : null}
      <table className="mt-6 w-full border-collapse">
        <thead>
          <tr className="border-b border-rule-strong text-left text-[11.5px] text-soft">
            {[
              say('workshop:col.form'),
              say('workshop:col.register'),
              say('workshop:col.state'),
              say('workshop:col.requests'),
            ].map((head) => (
              <th key={head} scope="col" className="py-1.5 pr-4 font-semibold last:text-right">
                {head}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {data?.forms.map((form) => (
            <tr key={form.key} className="border-b border-rule">
              <td className="py-3 pr-4">
                {form.mayChange ? (
                  <Link to={`/workshop/${form.key}`} className="subject text-[17px] no-underline hover:underline">
                    {form.title}
                  </Link>
                ) : (
                  <>
                    <span className="subject text-[17px]">{form.title}</span>
                    <span className="block text-[12.5px] text-soft">{say('workshop:notYours')}</span>
                  </>
                )}
              </td>
              <td className="py-3 pr-4">
                {form.mayChange ? (
                  <Link to={`/workshop/registers/${form.registerKey}`} className="no-underline hover:underline">
                    {form.register}
                  </Link>
                ) : (
                  form.register
                )}
              </td>
              <td className="py-3 pr-4 text-soft">
                {form.stopped
                  ? say('workshop:isStopped')
                  : form.release === 0
                    ? say('workshop:notReleasedYet')
                    : say('workshop:formRelease', { number: form.release })}
                {form.changed ? say('workshop:draftDiffersShort') : ''}
                {form.findings === null
                  ? say('workshop:beingChecked')
                  : form.findings > 0
                    ? say('workshop:findingsAfter', { count: form.findings })
                    : ''}
              </td>
              <td className="py-3 text-right">
                {form.holds === 'things' ? say('workshop:thingsCount', { count: form.requests }) : form.requests}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </main>
  );
}
