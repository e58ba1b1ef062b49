import type { RawAnswers } from '@tolvek/core/register';
import { useState } from 'react';
import { Button } from '../ui/Button.tsx';
import { problemOf, refusalInWords } from '../wire/problem.ts';
import { say, told } from '../wire/words.ts';
import { frontDeskApi } from './endpoints.ts';
import type { KeptAnswers } from './keptAnswers.ts';

/** A link by letter, to go on later or on another device. */
export function GoOnLater({ slug, answers, typed }: { slug: string; answers: RawAnswers; typed: KeptAnswers }) {
  const [open, setOpen] = useState(false);
  const [email, setEmail] = useState(typed.contact.email);
  const [send, { isLoading, error, data }] = frontDeskApi.useSendKeptMutation();
  const problem = error ? problemOf(error) : null;
  if (data)
    return <p className="mt-3 border-l-2 border-green pl-3.5">{say('desk:laterSent', { email: data.email })}</p>;
  if (!open)
    return (
      <p className="mt-3">
        <button type="button" className="min-h-6 text-[14px] underline" onClick={() => setOpen(true)}>
          {say('desk:continueLater')}
        </button>
      </p>
    );
  const ask = (): void =>
    void send({
      slug,
      body: { answers, contact: { name: typed.contact.name, email }, typedAt: typed.typedAt || Date.now() },
    });
  return (
    <div className="mt-4 border-l-2 border-green pl-3.5">
      <label htmlFor="go-on-email" className="block font-semibold">
        {say('desk:laterWhere')}
      </label>
      <p className="mt-0.5 text-[0.93em] text-soft">{say('desk:laterHint')}</p>
      <span className="mt-1.5 flex flex-wrap gap-2">
        <input
          id="go-on-email"
          className="input max-w-80 flex-1"
          type="email"
          autoComplete="email"
          value={email}
          aria-invalid={problem !== null}
          aria-describedby={problem ? 'go-on-problem' : undefined}
          onChange={(event) => setEmail(event.target.value)}
          onKeyDown={(event) => {
            if (event.key !== 'Enter') return;
            event.preventDefault();
            ask();
          }}
        />
        <Button disabled={isLoading} onClick={ask}>
          {isLoading ? say('desk:sending') : say('desk:laterSend')}
        </Button>
      </span>
      {problem ? (
        <p id="go-on-problem" role="alert" className="mt-1.5 font-semibold text-brick">
          <span aria-hidden="true">▲ </span>
          {problem.problems?.map((each) => `${told(each.message)} ${told(each.fix)}`).join(' ') ??
            refusalInWords(problem)}
        </p>
      ) : null}
    </div>
  );
}
