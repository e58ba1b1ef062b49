import { useState } from 'react';
import { toast } from 'sonner';
import { Button } from '../../ui/Button.tsx';
import { DialogFrame } from '../../ui/DialogFrame.tsx';
import { Trouble } from '../../ui/Trouble.tsx';
import { say } from '../../wire/words.ts';
import { workshopApi } from '../endpoints.ts';

/** Removes a door, once it is said what ends with it and what stays. */
export function RemoveDoor({ slug, name }: { slug: string; name: string }) {
  const [isOpen, setOpen] = useState(false);
  const { data: ends } = workshopApi.useDoorRemovalQuery({ slug }, { skip: !isOpen });
  const { data: door } = workshopApi.useDoorDesignQuery({ slug }, { skip: !isOpen });
  const [remove, { isLoading, error, reset }] = workshopApi.useRemoveDoorMutation();
  const go = async (): Promise<void> => {
    if (!door) return;
    const removed = await remove({ slug, version: door.version });
    if (!('error' in removed)) toast(say('workshop:doors.removed', { door: name }));
  };
  return (
    <DialogFrame
      open={isOpen}
      onOpenChange={setOpen}
      reset={reset}
      trigger={<Button look="refuse">{say('workshop:doors.remove')}</Button>}
      title={say('workshop:doors.removeTitle', { door: name })}
    >
      <p className="mt-3">{say('workshop:doors.removeSays')}</p>
      {ends ? (
        <ul className="mt-3 list-disc pl-5">
          <li>{say('workshop:doors.endsLink', { address: `/ask/${slug}` })}</li>
          {ends.waiting > 0 ? <li>{say('workshop:doors.endsWaiting', { count: ends.waiting })}</li> : null}
          {ends.begun > 0 ? <li>{say('workshop:doors.endsBegun', { count: ends.begun })}</li> : null}
          {ends.line > 0 ? <li>{say('workshop:doors.endsLine', { count: ends.line })}</li> : null}
          <li>{say('workshop:doors.staysRequests', { count: ends.requests })}</li>
        </ul>
      ) : null}
      {error ? <Trouble error={error} /> : null}
      <p className="mt-5 flex gap-2">
        <Button look="refuse" disabled={isLoading || !door || !ends} onClick={() => void go()}>
          {say('workshop:doors.removeNow')}
        </Button>
        <Button onClick={() => setOpen(false)}>{say('workshop:doors.keep')}</Button>
      </p>
    </DialogFrame>
  );
}
