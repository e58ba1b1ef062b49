import type { AnswerOf } from '@tolvek/contract';
import { Button } from '../ui/Button.tsx';
import { say } from '../wire/words.ts';

type Session = AnswerOf<'account'>['sessions'][number];

interface SessionsProps {
  readonly sessions: readonly Session[];
  readonly end: (id: string) => void;
  readonly busy: boolean;
}

/** Where somebody is signed in, each to be ended but for the one that looks. */
export function Sessions({ sessions, end, busy }: SessionsProps) {
  return (
    <ul>
      {sessions.map(({ id, here, browser, address, since, seen }) => (
        <li key={id} className="flex flex-wrap items-baseline justify-between gap-3 border-b border-rule py-2.5">
          <span className="min-w-0">
            <span className="block break-words">
              {browser || say('start:unknownBrowser')}
              {address ? <span className="text-soft"> {address}</span> : null}
            </span>
            <span className="block text-[14px] text-soft">
              {here ? say('start:hereNow') : say('start:sessionSince', { since, seen })}
            </span>
          </span>
          {here ? null : (
            <Button disabled={busy} onClick={() => end(id)}>
              {say('start:endSession')}
            </Button>
          )}
        </li>
      ))}
    </ul>
  );
}
