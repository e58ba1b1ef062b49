import { useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { Button } from '../ui/Button.tsx';
import { Column } from '../ui/Column.tsx';
import { Rich } from '../ui/Rich.tsx';
import { Trouble } from '../ui/Trouble.tsx';
import { useTitle } from '../ui/useTitle.ts';
import { problemOf } from '../wire/problem.ts';
import { say, told } from '../wire/words.ts';
import { frontDeskApi } from './endpoints.ts';
import { Says } from './Sent.tsx';

/**
 * Where the letter's link leads: one button sends the request. The link alone does nothing, as mail
 * programs open links too.
 */
export function Confirm() {
  const { token = '' } = useParams();
  useTitle(say('desk:confirmTitle'));
  const [confirm, { data: sent, error: failed, isLoading }] = frontDeskApi.useConfirmMutation();
  const [giveBack, goingBack] = frontDeskApi.useBackToAnswersMutation();
  const navigate = useNavigate();
  // What was fine when it was typed is not any more: only whoever typed it can mend it.
  const toMend = failed !== undefined && (problemOf(failed).problems?.length ?? 0) > 0;
  const goBack = async (): Promise<void> => {
    const { data: back } = await giveBack({ token });
    if (back) navigate(`/ask/${back.slug}?kept=${back.kept}`);
  };
  const { data, error } = frontDeskApi.useConfirmationQuery({ token }, { skip: Boolean(sent) });
  const [entry, setEntry] = useState('');
  if (sent && sent.is !== 'arrived')
    return (
      <Column>
        <h1 className="text-[28px]">{say(`desk:updated.${sent.is}`)}</h1>
        <p className="mt-3">
          <Rich
            text={`desk:updatedNext.${sent.is}`}
            filled={{ number: <b className="font-mono whitespace-nowrap">{sent.number}</b> }}
          />
        </p>
        {sent.follow === null ? null : (
          <p className="mt-5">
            <Link to={`/follow/${sent.follow}`}>{say('desk:followRequest')}</Link>
          </p>
        )}
      </Column>
    );
  if (sent) {
    return (
      <Column>
        <h1 className="text-[28px]">{say('desk:thanksArrived')}</h1>
        <p className="mt-3">
          <Rich text="desk:yourNumber" filled={{ number: <b className="font-mono">{sent.number}</b> }} />{' '}
          {sent.due ? `${say('desk:planToFinish', { due: sent.due })} ` : ''}
          {say('desk:linkByEmail')}
        </p>
        <Says says={sent.says} />
        <p className="mt-5">
          <Link to={`/follow/${sent.follow}`}>{say('desk:followRequest')}</Link>
        </p>
      </Column>
    );
  }
  return (
    <Column>
      <h1 className="text-[28px]">{say('desk:confirmTitle')}</h1>
      {error || failed ? (
        <div className="mt-5">
          <Trouble error={failed ?? error} />
          {toMend ? (
            <>
              <ul className="mt-3 list-disc pl-5">
                {problemOf(failed).problems?.map(({ field, message, fix }) => (
                  <li key={`${field} ${told(message)}`}>
                    {told(message)} {told(fix)}
                  </li>
                ))}
              </ul>
              <p className="mt-4">{say('desk:changeThenConfirm')}</p>
              <Button
                look="main"
                disabled={goingBack.isLoading}
                className="mt-5 min-h-12 px-7 text-[16px]"
                onClick={goBack}
              >
                {say('desk:changeAnswers')}
              </Button>
              {goingBack.error ? <Trouble error={goingBack.error} /> : null}
            </>
          ) : (
            <p className="mt-5">
              <Link to="/">{say('common:toFrontDesk')}</Link>
            </p>
          )}
        </div>
      ) : null}
      {data && !failed ? (
        <>
          <p className="mt-3">
            {data.arrived === null ? (
              <Rich
                text="desk:toConfirm"
                filled={{ name: data.name, form: data.form, email: <b className="break-words">{data.email}</b> }}
              />
            ) : (
              <Rich
                text={data.by === null ? 'desk:toClaim' : 'desk:toClaimFor'}
                filled={{
                  ...{
                    name: data.by ?? data.name,
                    form: data.form,
                    number: <b className="font-mono">{data.arrived}</b>,
                  },
                  email: <b className="break-words">{data.email}</b>,
                }}
              />
            )}
          </p>
          {data.which ? (
            <fieldset className="mt-5">
              <legend className="font-semibold">{say('desk:whichOfYours')}</legend>
              {[
                ...data.which.theirs.map(({ id, number, subject }) => ({ id, number, words: told(subject) })),
                ...(data.which.another ? [{ id: 'another', number: '', words: say('desk:anotherOne') }] : []),
              ].map(({ id, number, words }) => (
                <label key={id} className="mt-1.5 flex min-h-11 items-center gap-3">
                  <input
                    type="radio"
                    name="which"
                    className="accent-green"
                    checked={entry === id}
                    onChange={() => setEntry(id)}
                  />
                  <span>
                    {words} <span className="font-mono text-[14px] text-soft">{number}</span>
                  </span>
                </label>
              ))}
            </fieldset>
          ) : null}
          <Button
            look="main"
            disabled={isLoading || (data.which !== null && entry === '')}
            className="mt-6 min-h-12 px-7 text-[16px]"
            onClick={() => confirm({ token, query: entry === '' ? {} : { entry } })}
          >
            {isLoading
              ? say('desk:sending')
              : say(data.arrived === null ? 'desk:confirmAndSend' : 'desk:confirmAddress')}
          </Button>
        </>
      ) : null}
    </Column>
  );
}
