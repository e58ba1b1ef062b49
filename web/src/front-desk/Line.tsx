import type { AnswerOf } from '@tolvek/contract';
import { CONTACT_LABELS } from '@tolvek/core/door';
import { useId, useState } from 'react';
import { Button } from '../ui/Button.tsx';
import { ProblemsAt } from '../ui/ProblemsAt.tsx';
import { WholeTrouble } from '../ui/Trouble.tsx';
import { say } from '../wire/words.ts';
import { frontDeskApi } from './endpoints.ts';

type Door = AnswerOf<'door'>;

/** For whom a door is full: to wait for a place, or no longer. */
export function Line({ door, line, again }: { door: Door; line: NonNullable<Door['line']>; again: () => void }) {
  const id = useId();
  const [contact, setContact] = useState({ name: '', email: '' });
  const [join, { data: joined, error, isLoading }] = frontDeskApi.useJoinLineMutation();
  const [leave, { isLoading: isLeaving }] = frontDeskApi.useLeaveLineMutation();
  // From outside somebody says who they are, unless they are signed in.
  const isUnknown = door.kind === 'outside' && door.asks === null;
  if (joined)
    return (
      <p role="status" className="mt-5 border-l-2 border-green pl-3.5">
        {say('desk:waitingAt', { email: joined.email })}
      </p>
    );
  if (line.is === 'in')
    return (
      <p className="mt-5 border-l-2 border-green pl-3.5">
        {say('desk:waiting')}{' '}
        <button
          type="button"
          className="min-h-6 text-green underline"
          disabled={isLeaving}
          onClick={() => void leave({ slug: door.slug, body: {} }).then(again)}
        >
          {say('desk:leaveLine')}
        </button>
      </p>
    );
  return (
    <form
      className="mt-5 border-l-2 border-green pl-3.5"
      noValidate
      onSubmit={(event) => {
        event.preventDefault();
        void join({ slug: door.slug, body: isUnknown ? { contact } : {} });
      }}
    >
      <p>{say('desk:waitForPlace')}</p>
      {isUnknown
        ? (['name', 'email'] as const).map((field) => (
            <p key={field} className="mt-3">
              <label htmlFor={`${id}-${field}`} className="block font-semibold">
                {say(CONTACT_LABELS[`contact.${field}`])}
              </label>
              <input
                id={`${id}-${field}`}
                className="input mt-1.5"
                type={field === 'email' ? 'email' : 'text'}
                autoComplete={field}
                value={contact[field]}
                onChange={({ target: { value } }) => setContact((before) => ({ ...before, [field]: value }))}
              />
              <ProblemsAt error={error} field={`contact.${field}`} />
            </p>
          ))
        : null}
      <WholeTrouble error={error} />
      <p className="mt-3">
        <Button look="main" type="submit" className="min-h-[46px]" disabled={isLoading}>
          {say('desk:waitButton')}
        </Button>
      </p>
    </form>
  );
}
