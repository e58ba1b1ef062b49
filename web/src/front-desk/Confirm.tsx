import { Link, useNavigate, useParams } from 'react-router';
import { Button } from '../ui/Button.tsx';
import { Trouble } from '../ui/Trouble.tsx';
import { useTitle } from '../ui/useTitle.ts';
import { problemOf } from '../wire/problem.ts';
import { Column } from './Column.tsx';
import { frontDeskApi } from './endpoints.ts';

/**
 * Where the letter's link leads: one button sends the request. The link alone does nothing, as mail
 * programs open links too.
 */
export function Confirm() {
  const { token = '' } = useParams();
  useTitle('Confirm your address');
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
  if (sent) {
    return (
      <Column>
        <h1 className="text-[28px]">Thank you. Your request is with us.</h1>
        <p className="mt-3">
          Its number is <b className="font-mono">{sent.number}</b>.{' '}
          {sent.dueWords ? `You hear from us by ${sent.dueWords}. ` : ''}A letter with a link to it is on its way to
          you.
        </p>
        <p className="mt-5">
          <Link to={`/follow/${sent.follow}`}>See how it stands</Link>
        </p>
      </Column>
    );
  }
  return (
    <Column>
      <h1 className="text-[28px]">Confirm your address</h1>
      {error || failed ? (
        <div className="mt-5">
          <Trouble error={failed ?? error} />
          {toMend ? (
            <>
              <ul className="mt-3 list-disc pl-5">
                {problemOf(failed).problems?.map(({ field, message, fix }) => (
                  <li key={`${field} ${message}`}>
                    {message} {fix}
                  </li>
                ))}
              </ul>
              <p className="mt-4">
                Nothing was sent. What you typed is kept: change it, and send it again. A new letter asks you to confirm
                it then.
              </p>
              <Button
                look="main"
                disabled={goingBack.isLoading}
                className="mt-5 min-h-12 px-7 text-[16px]"
                onClick={goBack}
              >
                Change your answers
              </Button>
              {goingBack.error ? <Trouble error={goingBack.error} /> : null}
            </>
          ) : (
            <p className="mt-5">
              <Link to="/">To the Front desk</Link>
            </p>
          )}
        </div>
      ) : null}
      {data && !failed ? (
        <>
          <p className="mt-3">
            “{data.form}”, asked by {data.name}. With this click you confirm that{' '}
            <b className="break-words">{data.email}</b> is yours, and your request is sent.
          </p>
          <Button
            look="main"
            disabled={isLoading}
            className="mt-6 min-h-12 px-7 text-[16px]"
            onClick={() => confirm({ token })}
          >
            {isLoading ? 'Sending …' : 'Confirm and send'}
          </Button>
        </>
      ) : null}
    </Column>
  );
}
