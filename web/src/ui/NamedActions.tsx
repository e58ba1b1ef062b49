import type { AnswerOf, BodyOf } from '@tolvek/contract';
import { type SyntheticEvent, useId, useState } from 'react';
import { problemOf, refusalInWords } from '../wire/problem.ts';
import { say, told } from '../wire/words.ts';
import { Button } from './Button.tsx';
import { badNews, news } from './news.ts';

type Offered = AnswerOf<'sheet'>['actions'][number];
type Act = (action: string, body: BodyOf<'act'>) => Promise<unknown>;

interface NamedActionsProps {
  readonly actions: readonly Offered[];
  readonly number: string;
  readonly act: Act;
  /** Whether whoever asks a question follows the request from then on. */
  readonly follows?: boolean;
}

/** What can be done beside some words: taking part, asking, writing an email. */
export default function NamedActions({ actions, number, act, follows = false }: NamedActionsProps) {
  return (
    <ul className="mt-2.5 flex flex-col items-start gap-2.5">
      {actions.map((action) => (
        <li key={action.does === 'write' ? action.to : action.id} className="w-full">
          {action.does === 'take-part' ? (
            <TakesPart action={action} act={act} />
          ) : action.does === 'begin' ? (
            <Begins action={action} act={act} />
          ) : action.does === 'ask' ? (
            <Asks action={action} act={act} hears={follows ? say('actions:askedAndFollow', { number }) : undefined} />
          ) : (
            <a href={`mailto:${action.to}?subject=${encodeURIComponent(number)}`}>
              {action.label || say('desk:emailTo', { to: action.to })}
            </a>
          )}
        </li>
      ))}
    </ul>
  );
}

function TakesPart({ action, act }: { action: Extract<Offered, { does: 'take-part' }>; act: Act }) {
  const [busy, setBusy] = useState(false);
  const { isIn, left, whyNot } = action;
  const turn = async (): Promise<void> => {
    setBusy(true);
    try {
      await act(action.id, { does: 'take-part', takes: !isIn });
      news(say(isIn ? 'actions:nowOut' : 'actions:nowIn'));
    } catch (error) {
      badNews(refusalInWords(problemOf(error)));
    }
    setBusy(false);
  };
  const says = [isIn ? say('actions:isIn') : '', left === null ? '' : say('actions:left', { count: left })];
  return (
    <span className="flex flex-wrap items-center gap-x-3 gap-y-1">
      {whyNot ? null : (
        <Button disabled={busy} onClick={() => void turn()}>
          {isIn ? action.back : action.label}
        </Button>
      )}
      <span className="text-[14px] text-soft">
        {(whyNot ? [isIn ? say('actions:isIn') : '', told(whyNot)] : says).filter(Boolean).join(' · ')}
      </span>
    </span>
  );
}

/** Has a request decided; where that can’t be now, why. */
function Begins({ action, act }: { action: Extract<Offered, { does: 'begin' }>; act: Act }) {
  const [busy, setBusy] = useState(false);
  const begin = async (): Promise<void> => {
    setBusy(true);
    try {
      await act(action.id, { does: 'begin' });
      news(say('actions:begun'));
    } catch (error) {
      badNews(refusalInWords(problemOf(error)));
    }
    setBusy(false);
  };
  return (
    <span className="flex flex-wrap items-center gap-x-3 gap-y-1">
      <Button disabled={busy || action.whyNot !== null} onClick={() => void begin()}>
        {action.label}
      </Button>
      {action.whyNot ? <span className="text-[14px] text-soft">{told(action.whyNot)}</span> : null}
    </span>
  );
}

function Asks({
  action,
  act,
  hears,
}: {
  action: Extract<Offered, { does: 'ask' }>;
  act: Act;
  hears: string | undefined;
}) {
  const id = useId();
  const [text, setText] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const send = async (event: SyntheticEvent): Promise<void> => {
    event.preventDefault();
    if (!text?.trim()) return;
    setBusy(true);
    try {
      await act(action.id, { does: 'ask', text });
      setText(null);
      news(say('actions:asked'), hears === undefined ? {} : { description: hears });
    } catch (error) {
      // What was typed stays.
      badNews(refusalInWords(problemOf(error)));
    }
    setBusy(false);
  };
  if (text === null) return <Button onClick={() => setText('')}>{action.label}</Button>;
  return (
    <form onSubmit={(event) => void send(event)}>
      <label htmlFor={id} className="font-semibold">
        {action.label}
      </label>
      <textarea
        id={id}
        className="input mt-1"
        rows={3}
        maxLength={4_000}
        placeholder={say('actions:question')}
        value={text}
        // biome-ignore lint/a11y/noAutofocus: whoever presses to ask goes on by typing.
        autoFocus
        onChange={(event) => setText(event.target.value)}
      />
      <span className="mt-2 flex gap-2">
        <Button type="submit" look="main" disabled={busy || text.trim() === ''}>
          {say('actions:send')}
        </Button>
        <Button onClick={() => setText(null)}>{say('actions:cancel')}</Button>
      </span>
    </form>
  );
}
