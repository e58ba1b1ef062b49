import type { AnswerOf } from '@tolvek/contract';
import { useState } from 'react';
import { toast } from 'sonner';
import { api, problemOf } from '../app/api.ts';
import { DeskMoment } from '../app/DeskMoment.tsx';
import { Button } from '../ui/Button.tsx';

type DoorSettings = AnswerOf<'form'>['doors'][number];

/** The ways in to the form, and its releases. A door never changes who may read the register. */
export function DoorsPage({ form }: { form: AnswerOf<'form'> }) {
  return (
    <>
      <p className="text-soft">A door lets people ask. It never changes who may read what was asked.</p>
      {form.doors.map((door) => (
        <DoorLine key={door.slug} door={door} />
      ))}
      <h2 className="section-head mt-8">Releases</h2>
      {form.releases.length === 0 ? <p className="py-3 text-soft">Not released yet: the doors lead nowhere.</p> : null}
      <ol>
        {form.releases.map((release, index) => (
          <li key={release.number} className="grid grid-cols-[7rem_1fr_auto] gap-3 border-b border-rule py-2">
            <span>
              Release {release.number}
              {index === 0 ? <span className="block text-[12.5px] text-green">in force</span> : null}
            </span>
            <span>{release.note || <span className="text-soft">no note</span>}</span>
            <span className="text-soft">
              {release.by}, <DeskMoment at={release.at} show="day" />
            </span>
          </li>
        ))}
      </ol>
    </>
  );
}

function DoorLine({ door }: { door: DoorSettings }) {
  const [setDoor, { isLoading }] = api.useSetDoorMutation();
  const [message, setMessage] = useState(door.closedMessage);
  const link = `${location.origin}/ask/${door.slug}`;
  const put = async (open: boolean): Promise<void> => {
    try {
      await setDoor({ slug: door.slug, open, closedMessage: message }).unwrap();
      toast(open ? 'The door is open.' : 'The door is closed. People who come read the message.');
    } catch (error) {
      toast.error(problemOf(error).detail);
    }
  };
  const copy = (): void =>
    void navigator.clipboard.writeText(link).then(
      () => toast('The link was copied. Copying changes nothing about who may enter.'),
      () => toast.error('Copying did not work here. Select the link instead.'),
    );
  return (
    <section className="mt-5 border-b border-rule pb-4">
      <h2>
        {door.kind === 'staff' ? 'Staff door' : 'Outside door'}{' '}
        <span className={`ml-2 font-sans text-[13px] font-normal ${door.open ? 'text-green' : 'text-brick'}`}>{door.open ? 'open' : 'closed'}</span>
      </h2>
      <p className="mt-1 text-soft">{door.kind === 'staff' ? 'Admits signed-in staff.' : 'Admits anyone with the link; they confirm their address by a letter.'}</p>
      <p className="mt-2 flex items-center gap-3">
        <code className="font-mono text-[13px]">{link}</code>
        <Button onClick={copy}>Copy the link</Button>
      </p>
      <label htmlFor={`closed-${door.slug}`} className="mt-3 block text-soft">
        When it is closed, people read
      </label>
      <textarea
        id={`closed-${door.slug}`}
        rows={2}
        className="input mt-1"
        placeholder="This form is closed. If you need this now, write to the desk."
        value={message}
        onChange={(event) => setMessage(event.target.value)}
      />
      <div className="mt-2 flex gap-2">
        <Button disabled={isLoading} look={door.open ? 'refuse' : 'main'} onClick={() => put(!door.open)}>
          {door.open ? 'Close the door' : 'Open the door'}
        </Button>
        {message !== door.closedMessage ? (
          <Button disabled={isLoading} onClick={() => put(door.open)}>
            Keep the message
          </Button>
        ) : null}
      </div>
    </section>
  );
}
