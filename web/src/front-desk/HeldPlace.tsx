import { useState } from 'react';
import { Link } from 'react-router';
import { Button } from '../ui/Button.tsx';
import { DialogFrame } from '../ui/DialogFrame.tsx';
import { Trouble } from '../ui/Trouble.tsx';
import { say } from '../wire/words.ts';
import { frontDeskApi } from './endpoints.ts';

interface HeldPlaceProps {
  readonly slug: string;
  /** Until when it is held, as an ISO moment. */
  readonly until: string;
  /** The link to it; nothing where who is signed in has it. */
  readonly place: string | undefined;
  readonly given: () => void;
}

/** A place that is held for somebody: until when, and to give it to the next. */
export function HeldPlace({ slug, until, place, given }: HeldPlaceProps) {
  const [isOpen, setOpen] = useState(false);
  const [leave, { error, isLoading, reset }] = frontDeskApi.useLeaveLineMutation();
  const give = async (): Promise<void> => {
    const { data } = await leave({ slug, body: { place } });
    if (data) given();
  };
  return (
    <p className="mt-4 border-l-2 border-green pl-3.5">
      {say('desk:placeHeld', { until: Date.parse(until) })}{' '}
      <DialogFrame
        open={isOpen}
        onOpenChange={setOpen}
        reset={reset}
        trigger={
          <button type="button" className="min-h-6 text-green underline">
            {say('desk:givePlace')}
          </button>
        }
        title={say('desk:giveTitle')}
      >
        <p className="mt-3">{say('desk:giveSays')}</p>
        {error ? <Trouble error={error} /> : null}
        <p className="mt-5 flex flex-wrap gap-3">
          <Button look="refuse" className="min-h-11 px-5" disabled={isLoading} onClick={() => void give()}>
            {say('desk:giveNow')}
          </Button>
          <Button className="min-h-11 px-5" onClick={() => setOpen(false)}>
            {say('desk:giveNot')}
          </Button>
        </p>
      </DialogFrame>
    </p>
  );
}

/** What is said once a place was given to the next. */
export function PlaceGiven() {
  return (
    <>
      <p role="status" className="mt-4">
        {say('desk:placeGiven')}
      </p>
      <p className="mt-5">
        <Link to="/">{say('desk:seeOtherForms')}</Link>
      </p>
    </>
  );
}
