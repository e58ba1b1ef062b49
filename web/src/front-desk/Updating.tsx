import { useId } from 'react';
import { Button } from '../ui/Button.tsx';
import { say, told } from '../wire/words.ts';
import type { Theirs, Updating } from './updating.ts';

/** What of theirs a form changes: which one, that a blank leaves it, and that all of it can be still right. */
export function WhatChanges({
  updating: { updates, about, says },
  chosen,
  choose,
  confirm,
  isSending,
}: {
  updating: Updating;
  chosen: string | undefined;
  choose: (entry: string) => void;
  confirm: () => void;
  isSending: boolean;
}) {
  const { among } = about;
  const isOpen = among.length > 1 || (updates.beside && among.length > 0);
  const saysNothing = Object.keys(says).every((field) => updates.by.includes(field));
  return (
    <section className="mt-6 border-l-2 border-green pl-3.5" aria-live="polite" aria-label={say('desk:whatChanges')}>
      {isOpen && !updates.sent ? <Which among={among} beside={updates.beside} chosen={chosen} choose={choose} /> : null}
      {about.is === 'one' ? (
        <>
          {isOpen ? null : <p className="subject text-[17px]">{told(about.one.subject)}</p>}
          <p className="mt-1 text-soft">{say(updates.waits ? 'desk:blankLeavesWaits' : 'desk:blankLeaves')}</p>
          <Waiting one={about.one} />
          {saysNothing ? (
            <p className="mt-3">
              <Button onClick={confirm} disabled={isSending}>
                {say('desk:stillRight')}
              </Button>
            </p>
          ) : null}
        </>
      ) : null}
      {about.is === 'none' ? <p>{say(updates.adds ? 'desk:newToUs' : 'desk:nothingFits')}</p> : null}
      {about.is === 'another' ? <p className="mt-1 text-soft">{say('desk:addsAnother')}</p> : null}
      {about.is === 'unknown' ? <p className="text-soft">{say('desk:findsYours')}</p> : null}
    </section>
  );
}

function Which({
  among,
  beside,
  chosen,
  choose,
}: {
  among: readonly Theirs[];
  beside: boolean;
  chosen: string | undefined;
  choose: (entry: string) => void;
}) {
  const name = useId();
  const line = (value: string, text: string, number = '') => (
    <label key={value} className="flex min-h-11 items-center gap-3 py-1">
      <input
        type="radio"
        className="size-5 shrink-0"
        name={name}
        value={value}
        checked={chosen === value}
        onChange={() => choose(value)}
      />
      <span>
        {text} {number ? <span className="font-mono text-[13px] text-soft">{number}</span> : null}
      </span>
    </label>
  );
  return (
    <fieldset>
      <legend className="font-semibold">{say('desk:whichOne')}</legend>
      {among.map((one) => line(one.id, told(one.subject), one.number))}
      {beside ? line('another', say('desk:anotherOne')) : null}
    </fieldset>
  );
}

/** What they sent before that nobody has accepted yet. */
function Waiting({ one: { waiting } }: { one: Theirs }) {
  if (!waiting) return null;
  return (
    <div className="mt-3">
      <p>{say('desk:alreadySent', { at: waiting.at })}</p>
      <ul className="list-disc pl-5">
        {waiting.changes.map(({ label, before, after }) => (
          <li key={label}>{say('desk:fromTo', { label, before: told(before) || '–', after: told(after) || '–' })}</li>
        ))}
      </ul>
      <p className="text-soft">{say('desk:sendingReplaces')}</p>
    </div>
  );
}

/** Under a question: what stands there now, and whether it is taken away. */
export function StandsNow({
  one,
  field,
  isGone,
  takeAway,
}: {
  one: Theirs;
  field: string;
  isGone: boolean;
  takeAway: (is: boolean) => void;
}) {
  const now = one.values.fields.find(({ key }) => key === field);
  const shown = now ? told(now.shown) : '';
  if (shown === '') return null;
  return (
    <p className="mt-1.5 flex flex-wrap items-center gap-x-4 gap-y-1 text-[15px]">
      <span className={isGone ? 'line-through' : ''}>{say('desk:now', { value: shown })}</span>
      <label className="flex min-h-9 items-center gap-2 text-soft">
        <input
          type="checkbox"
          className="size-4.5"
          checked={isGone}
          onChange={(event) => takeAway(event.target.checked)}
        />
        {say('desk:removeAnswer')}
      </label>
    </p>
  );
}
