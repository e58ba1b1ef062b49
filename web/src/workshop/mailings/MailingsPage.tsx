import { useState } from 'react';
import { toast } from 'sonner';
import { Button } from '../../ui/Button.tsx';
import { Trouble } from '../../ui/Trouble.tsx';
import { say } from '../../wire/words.ts';
import { useBinder } from '../binder.ts';
import { workshopApi } from '../endpoints.ts';
import { MailingCard } from './MailingCard.tsx';
import { MailingEditor } from './MailingEditor.tsx';
import { STARTS, type Start, startOf } from './mailingEdits.ts';

/** To whom the form is sent to be filled in, and who has answered. */
export function MailingsPage() {
  const { form } = useBinder();
  const { data, error, refetch } = workshopApi.useMailingsQuery(
    { key: form.key },
    { refetchOnMountOrArgChange: true, pollingInterval: 4_000, skipPollingIfUnfocused: true },
  );
  if (error) return <Trouble error={error} again={refetch} />;
  return (
    <>
      <p className="text-soft">{say('mailings:intro')}</p>
      {data?.mailings.map((mailing) => (
        <MailingCard key={mailing.id} mailing={mailing} />
      ))}
      {data?.mailings.length === 0 ? <p className="mt-4 text-soft">{say('mailings:none')}</p> : null}
      <AddMailing />
    </>
  );
}

/** One more mailing, from what it is for. */
function AddMailing() {
  const { form, editing } = useBinder();
  const [isOpen, setOpen] = useState(false);
  const [start, setStart] = useState<Start | null>(null);
  const [once, setOnce] = useState(() => crypto.randomUUID());
  const [add, adding] = workshopApi.useAddMailingMutation();
  const [door] = form.doors.filter(({ door: { unnamed } }) => !unnamed);
  if (form.doors.length === 0 || !door) return <p className="mt-4 text-soft">{say('mailings:needsDoor')}</p>;
  const begins = (which: Start) =>
    startOf(which, {
      name: say(`mailings:start.${which}`),
      door: door.slug,
      form: editing.draft,
      registers: form.registers,
      fills: form.register.key,
    });
  const begun = start && begins(start);
  if (start && begun)
    return (
      <section aria-label={say('mailings:add')} className="mt-6 border-t border-rule pt-4">
        <h2>{say(`mailings:start.${start}`)}</h2>
        <MailingEditor
          key={start}
          of={null}
          mailing={begun}
          save={async (mailing) => {
            const made = await add({ key: form.key, once, body: { mailing } });
            setOnce(crypto.randomUUID());
            if ('error' in made) return;
            toast(say('mailings:added', { name: mailing.name }));
            setStart(null);
            setOpen(false);
          }}
          {...{ adding }}
          close={() => setStart(null)}
        />
      </section>
    );
  if (!isOpen)
    return (
      <p className="mt-5">
        <Button onClick={() => setOpen(true)}>{say('mailings:add')}</Button>
      </p>
    );
  return (
    <section aria-label={say('mailings:add')} className="mt-6 border-t border-rule pt-4">
      <h2>{say('mailings:whatFor')}</h2>
      <ul className="mt-2">
        {STARTS.map((which) => {
          const isThere = begins(which) !== null;
          return (
            <li key={which} className="flex items-baseline justify-between gap-4 border-b border-rule py-2.5">
              <span>
                <b className="font-semibold">{say(`mailings:start.${which}`)}</b>
                <span className="block text-soft">
                  {isThere
                    ? say(`mailings:says.${which}`)
                    : say(`mailings:lacks.${which === 'each-other' ? 'person' : 'request'}`)}
                </span>
              </span>
              <Button
                disabled={!isThere}
                aria-label={say('mailings:startNamed', { name: say(`mailings:start.${which}`) })}
                onClick={() => setStart(which)}
              >
                {say('mailings:begin')}
              </Button>
            </li>
          );
        })}
      </ul>
      <p className="mt-3">
        <Button onClick={() => setOpen(false)}>{say('common:cancel')}</Button>
      </p>
    </section>
  );
}
