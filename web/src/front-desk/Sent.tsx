import type { AnswerOf } from '@tolvek/contract';
import { useEffect, useRef } from 'react';
import { Link } from 'react-router';
import { meApi } from '../wire/me.ts';

/** After sending: the number and what follows, or the one step that is left. */
export function Sent({ sent, again }: { sent: AnswerOf<'submit'>; again: () => void }) {
  const { data: me } = meApi.useMeQuery();
  const head = useRef<HTMLHeadingElement>(null);
  useEffect(() => {
    scrollTo(0, 0);
    head.current?.focus();
  }, []);
  if (sent.state === 'to-confirm') {
    return (
      <section className="mt-6">
        <h2 ref={head} tabIndex={-1} className="text-[22px] outline-none">
          One step is left: confirm your address
        </h2>
        <p className="mt-2">
          We have sent a letter to <b className="break-words">{sent.email}</b>. Open it and follow the link; your
          request goes out with that click. The link works for three days.
        </p>
        <p className="mt-2 text-soft">
          Nothing there after a few minutes? Look among unwanted mail, or check the address and send again.
        </p>
        {me?.demo ? (
          <p className="mt-5">
            <Link to="/mailroom">Open the Mailroom</Link>, where the demo’s letters arrive.
          </p>
        ) : null}
        <p className="mt-5">
          <button type="button" className="text-green underline" onClick={again}>
            Fill in the form once more
          </button>
        </p>
      </section>
    );
  }
  return (
    <section className="mt-6">
      <h2 ref={head} tabIndex={-1} className="text-[22px] outline-none">
        Thank you. We have your request.
      </h2>
      <p className="mt-2">
        Its number is <b className="font-mono">{sent.number}</b>.{' '}
        {sent.dueWords ? `You hear from us by ${sent.dueWords}. ` : ''}A letter with all this is on its way to you.
      </p>
      <p className="mt-5 flex flex-wrap gap-6">
        <Link to={`/my/${sent.number}`}>See how it stands</Link>
        <Link to="/">To the Front desk</Link>
        <button type="button" className="text-green underline" onClick={again}>
          Ask again
        </button>
      </p>
    </section>
  );
}
