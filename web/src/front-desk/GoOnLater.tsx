import type { RawAnswers } from '@tolvek/core/register';
import { useState } from 'react';
import { say } from '../wire/words.ts';
import { AddressLine } from './AddressLine.tsx';
import { frontDeskApi } from './endpoints.ts';
import type { KeptAnswers } from './keptAnswers.ts';

/** A link by email, to continue later or on another device. */
export function GoOnLater({ slug, answers, typed }: { slug: string; answers: RawAnswers; typed: KeptAnswers }) {
  const [open, setOpen] = useState(false);
  const [email, setEmail] = useState(typed.contact.email);
  const [send, { isLoading, error, data }] = frontDeskApi.useSendKeptMutation();
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
      <AddressLine
        id="go-on-email"
        address={email}
        set={setEmail}
        button={say('desk:laterSend')}
        send={ask}
        isSending={isLoading}
        error={error}
      />
    </div>
  );
}
