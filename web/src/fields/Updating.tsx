import { useId } from 'react';
import { Button } from '../ui/Button.tsx';
import { say, told } from '../wire/words.ts';
import type { Theirs, Updating } from './updating.ts';

/** So many of theirs are listed to choose from. */
const AT_ONCE = 12;

/** What of theirs a form changes: which one, that a blank leaves it, and that all of it can be still right. */
export function WhatChanges({
  updating: { updates, about, says },
  chosen,
  choose,
  confirm,
  isSending = false,
}: {
  updating: Updating;
  chosen: string | undefined;
  choose: (entry: string) => void;
  /** Says that all of it is still right; undefined where nothing is sent. */
  confirm?: (() => void) | undefined;
  isSending?: boolean;
}) {
  const { among } = about;
  // Where it is found by answers, they can as well be filled in by choosing what is there.
  const byAnswers = updates.by.length > 0 && among.length < 2 && !updates.beside;
  const offered = byAnswers ? updates.theirs.slice(0, AT_ONCE) : among;
  const isOpen = offered.length > (byAnswers || updates.beside ? 0 : 1);
  const found = about.is === 'one' ? about.one.id : about.is === 'none' && updates.adds ? 'another' : undefined;
  const saysNothing = Object.keys(says).every((field) => updates.by.includes(field));
  return (
    <section className="mt-6 border-l-2 border-green pl-3.5" aria-live="polite" aria-label={say('desk:whatChanges')}>
      {isOpen && !updates.sent ? (
        <Which
          among={offered}
          another={byAnswers ? updates.adds : updates.beside}
          chosen={byAnswers ? found : chosen}
          choose={choose}
        />
      ) : null}
      {about.is === 'one' ? (
        <>
          {isOpen && !updates.sent ? null : <p className="subject text-[17px]">{told(about.one.subject)}</p>}
          <p className="mt-1 text-soft">{say(updates.waits ? 'desk:blankLeavesWaits' : 'desk:blankLeaves')}</p>
          <Waiting one={about.one} />
          {saysNothing && confirm ? (
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
      {about.is === 'unknown' && !isOpen ? (
        <p className="text-soft">{say(updates.theirs.length > 0 ? 'desk:findsYours' : 'desk:nothingYet')}</p>
      ) : null}
    </section>
  );
}

function Which({
  among,
  another,
  chosen,
  choose,
}: {
  among: readonly Theirs[];
  another: boolean;
  chosen: string | undefined;
  choose: (entry: string) => void;
}) {
  const name = useId();
  const line = (value: string, text: string, number = '') => (
    <label key={value} className="flex min-h-11 items-center gap-3 py-1">
      <input
        type="radio"
        className="size-5 shrink-0 accent-green"
        name={name}
        value={value}
        checked={chosen === value}
        onChange={() => choose(value)}
      />
      <span>
        {text} {number ? <span className="font-mono text-[13px] whitespace-nowrap text-soft">{number}</span> : null}
      </span>
    </label>
  );
  return (
    <fieldset>
      <legend className="font-semibold">{say('desk:whichOne')}</legend>
      {among.map((one) => line(one.id, told(one.subject), one.number))}
      {another ? line('another', say('desk:anotherOne')) : null}
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
  mayRemove,
  isGone,
  takeAway,
}: {
  one: Theirs;
  field: string;
  /** Null where it is not asked what is to stand there. */
  mayRemove: boolean | null;
  isGone: boolean;
  takeAway: (is: boolean) => void;
}) {
  const now = one.values.fields.find(({ key }) => key === field);
  const shown = now ? told(now.shown) : '';
  if (shown === '' || mayRemove === null) return null;
  return (
    <p className="mt-1.5 flex flex-wrap items-center gap-x-4 gap-y-1 text-[15px]">
      <span className={isGone ? 'line-through' : ''}>{say('desk:now', { value: shown })}</span>
      {mayRemove ? (
        <label className="flex min-h-9 items-center gap-2 text-soft">
          <input
            type="checkbox"
            className="size-4.5 accent-green"
            checked={isGone}
            onChange={(event) => takeAway(event.target.checked)}
          />
          {say('desk:removeAnswer')}
        </label>
      ) : null}
    </p>
  );
}
