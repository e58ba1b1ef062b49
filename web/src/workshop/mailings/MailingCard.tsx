import { useId, useState } from 'react';
import { toast } from 'sonner';
import { Button } from '../../ui/Button.tsx';
import { DialogFrame } from '../../ui/DialogFrame.tsx';
import { Trouble, WholeTrouble } from '../../ui/Trouble.tsx';
import { DeskMoment } from '../../wire/DeskMoment.tsx';
import { say, told } from '../../wire/words.ts';
import { useBinder } from '../binder.ts';
import { workshopApi } from '../endpoints.ts';
import { MailingEditor } from './MailingEditor.tsx';
import type { MailingView } from './mailingView.ts';
import { Owed } from './Owed.tsx';
import { Reach } from './Reach.tsx';

/** One mailing of the form: what it does, what came of it, and what can be done with it. */
export function MailingCard({ mailing: view }: { mailing: MailingView }) {
  const { mailing, counts, findings } = view;
  const [isEditing, setEditing] = useState(false);
  const [isOpen, setOpen] = useState(false);
  const [change, changing] = workshopApi.useChangeMailingMutation();
  const sent = counts.open + counts.done;
  return (
    <section aria-label={mailing.name} className="mt-5 border-b border-rule pb-4">
      <h2>
        {mailing.name}
        {mailing.going ? null : (
          <span className="ml-2 font-sans text-[13px] font-normal text-brick">{say('mailings:atRest')}</span>
        )}
      </h2>
      <p className="mt-1 text-soft">{view.says.map(told).join(' ')}</p>
      {findings.map(({ at, message }) => (
        <p key={at + told(message)} role="alert" className="mt-1 border-l-[3px] border-brick bg-brick-wash px-3 py-1.5">
          {told(message)}
        </p>
      ))}
      <p className="mt-2">
        {sent === 0 ? say('mailings:notSentYet') : say('mailings:answeredOf', { done: counts.done, count: sent })}{' '}
        {counts.late > 0 ? (
          <b className="font-semibold text-brick">{say('mailings:late', { count: counts.late })}</b>
        ) : null}{' '}
        {view.next === null ? null : (
          <span className="text-soft">
            {say('mailings:goesNext')} <DeskMoment at={view.next} />
          </span>
        )}
      </p>
      {view.missed.length > 0 ? (
        <p className="mt-1 text-[13.5px] text-amber">
          {say('mailings:missed', { count: view.missed.length })}{' '}
          {view.missed.toReversed().map((day, index) => (
            <span key={day}>
              {index > 0 ? ', ' : ''}
              <DeskMoment at={`${day}T12:00:00Z`} show="day" />
            </span>
          ))}
        </p>
      ) : null}
      <p className="mt-3 flex flex-wrap gap-2">
        <SendNow view={view} />
        <Button
          disabled={sent === 0 && view.goings.length === 0}
          aria-expanded={isOpen}
          onClick={() => setOpen(!isOpen)}
        >
          {say(isOpen ? 'mailings:hideOwed' : 'mailings:showOwed')}
        </Button>
        <Button disabled={isEditing} onClick={() => setEditing(true)}>
          {say('mailings:change')}
        </Button>
        <RemoveMailing view={view} />
      </p>
      {isEditing ? (
        <MailingEditor
          key={view.version}
          of={view}
          mailing={mailing}
          save={async (next, note) => {
            const saved = await change({ id: view.id, version: view.version, body: { mailing: next, note } });
            if ('error' in saved) return;
            toast(say('mailings:saved'));
            setEditing(false);
          }}
          adding={changing}
          close={() => setEditing(false)}
        />
      ) : null}
      {isOpen ? <Owed view={view} /> : null}
    </section>
  );
}

/** Sends a mailing by hand, once it is said whom it goes to. */
function SendNow({ view: { id, mailing, counts, findings } }: { view: MailingView }) {
  const { form } = useBinder();
  const [isOpen, setOpen] = useState(false);
  const [onlyNew, setOnlyNew] = useState(false);
  const radios = useId();
  const [once, setOnce] = useState(() => crypto.randomUUID());
  const [send, { isLoading, error, reset }] = workshopApi.useSendMailingMutation();
  const isReached = mailing.when.is === 'reached';
  const go = async (): Promise<void> => {
    const sent = await send({ id, once, body: { onlyNew } });
    setOnce(crypto.randomUUID());
    if ('error' in sent || !sent.data) return;
    toast(say('mailings:isSent', { count: sent.data.people }));
    setOpen(false);
  };
  return (
    <DialogFrame
      open={isOpen}
      onOpenChange={setOpen}
      reset={reset}
      trigger={
        <Button look={mailing.when.is === 'by-hand' ? 'main' : 'plain'} disabled={findings.length > 0}>
          {say('mailings:sendNow')}
        </Button>
      }
      title={say('mailings:sendTitle', { name: mailing.name })}
    >
      {isReached ? <p className="mt-3 text-soft">{say('mailings:sendsAll')}</p> : null}
      <div className="mt-3">
        <Reach form={form.key} mailing={mailing} />
      </div>
      {counts.open + counts.done > 0 ? (
        <fieldset className="mt-4">
          <legend className="sr-only">{say('mailings:whom')}</legend>
          {([false, true] as const).map((only) => (
            <label key={String(only)} className="flex items-start gap-2 py-1">
              <input
                type="radio"
                name={radios}
                className="mt-1 accent-green"
                checked={onlyNew === only}
                onChange={() => setOnlyNew(only)}
              />
              {say(only ? 'mailings:onlyNew' : 'mailings:again')}
            </label>
          ))}
        </fieldset>
      ) : null}
      {error ? (
        <div className="mt-3">
          <Trouble error={error} />
        </div>
      ) : null}
      <p className="mt-5 flex gap-2">
        <Button look="main" disabled={isLoading} onClick={() => void go()}>
          {say('mailings:sendNow')}
        </Button>
        <Button onClick={() => setOpen(false)}>{say('common:cancel')}</Button>
      </p>
    </DialogFrame>
  );
}

/** Removes a mailing, once it is said what ends with it. */
function RemoveMailing({ view: { id, version, mailing, counts } }: { view: MailingView }) {
  const [isOpen, setOpen] = useState(false);
  const [remove, { isLoading, error, reset }] = workshopApi.useRemoveMailingMutation();
  const go = async (): Promise<void> => {
    const removed = await remove({ id, version });
    if (!('error' in removed)) toast(say('mailings:removed', { name: mailing.name }));
  };
  return (
    <DialogFrame
      open={isOpen}
      onOpenChange={setOpen}
      reset={reset}
      trigger={<Button look="refuse">{say('mailings:remove')}</Button>}
      title={say('mailings:removeTitle', { name: mailing.name })}
    >
      <p className="mt-3">{say('mailings:removeSays')}</p>
      <ul className="mt-3 list-disc pl-5">
        {counts.open > 0 ? <li>{say('mailings:endsOpen', { count: counts.open })}</li> : null}
        <li>{say('mailings:staysDone', { count: counts.done })}</li>
      </ul>
      <WholeTrouble error={error} />
      <p className="mt-5 flex gap-2">
        <Button look="refuse" disabled={isLoading} onClick={() => void go()}>
          {say('mailings:removeNow')}
        </Button>
        <Button onClick={() => setOpen(false)}>{say('workshop:doors.keep')}</Button>
      </p>
    </DialogFrame>
  );
}
