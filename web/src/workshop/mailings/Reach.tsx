import type { MailingDesign } from '@tolvek/core/mailing';
import { useEffect } from 'react';
import { say, told } from '../../wire/words.ts';
import { workshopApi } from '../endpoints.ts';

/** How long typing rests before it is asked whom a mailing would go to. */
const REST = 400;
/** So many are named at first. */
const FIRST = 6;

/** Whom a mailing would go to now, and whom it could not be sent to and why. */
export function Reach({ form, mailing }: { form: string; mailing: MailingDesign }) {
  const [look, { data }] = workshopApi.useTryMailingMutation();
  const asked = JSON.stringify(mailing);
  useEffect(() => {
    const waiting = setTimeout(
      () => void look({ key: form, body: { mailing: JSON.parse(asked) as MailingDesign } }),
      REST,
    );
    return () => clearTimeout(waiting);
  }, [form, asked, look]);
  if (!data) return <p className="text-soft">{say('mailings:looking')}</p>;
  const named = data.some.filter(({ name }) => name !== null);
  return (
    <div aria-live="polite">
      <p>
        {data.forms === 0
          ? say('mailings:reachesNobody')
          : data.forms === data.people
            ? say('mailings:reaches', { count: data.people })
            : say('mailings:reachesForms', { count: data.people, forms: data.forms })}
      </p>
      {named.length > 0 ? (
        <ul className="mt-1 text-soft">
          {named.slice(0, FIRST).map(({ name, about }) => (
            <li key={`${name} ${told(about ?? '')}`}>{about === null ? name : `${name}: ${told(about)}`}</li>
          ))}
          {data.forms > Math.min(named.length, FIRST) ? (
            <li>{say('mailings:andMore', { count: data.forms - Math.min(named.length, FIRST) })}</li>
          ) : null}
        </ul>
      ) : null}
      {data.notSent > 0 ? (
        <details className="mt-2">
          <summary className="text-brick">{say('mailings:notSentTo', { count: data.notSent })}</summary>
          <ul className="mt-1 text-soft">
            {data.someNot
              .filter(({ name }) => name !== null)
              .map(({ name, about, why }) => (
                <li key={`${name} ${told(about ?? '')} ${why}`}>
                  {[name, about === null ? '' : told(about)].filter(Boolean).join(': ')} – {say(`mailings:why.${why}`)}
                </li>
              ))}
          </ul>
        </details>
      ) : null}
    </div>
  );
}
