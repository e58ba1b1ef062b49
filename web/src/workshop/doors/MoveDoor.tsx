import { useId, useState } from 'react';
import { toast } from 'sonner';
import { Button } from '../../ui/Button.tsx';
import { DialogFrame } from '../../ui/DialogFrame.tsx';
import { TextLine } from '../../ui/TextLine.tsx';
import { WholeTrouble } from '../../ui/Trouble.tsx';
import { DeskMoment } from '../../wire/DeskMoment.tsx';
import { say } from '../../wire/words.ts';
import { workshopApi } from '../endpoints.ts';

/** Gives a door another address, once it is said what becomes of the one it has. */
export function MoveDoor({ slug, name }: { slug: string; name: string }) {
  const id = useId();
  const [isOpen, setOpen] = useState(false);
  const [address, setAddress] = useState('');
  const [leadsOn, setLeadsOn] = useState(true);
  const { data: door } = workshopApi.useDoorDesignQuery({ slug }, { skip: !isOpen });
  const [move, { isLoading, error, reset }] = workshopApi.useMoveDoorMutation();
  const go = async (event: React.FormEvent): Promise<void> => {
    event.preventDefault();
    if (!door) return;
    const wished = address.trim() === '' ? {} : { slug: address.trim() };
    const moved = await move({ slug, version: door.version, body: { ...wished, leadsOn } });
    if ('error' in moved) return;
    toast(say('workshop:doors.moved', { door: name, address: `/ask/${moved.data.slug}` }));
    setOpen(false);
  };
  return (
    <DialogFrame
      open={isOpen}
      onOpenChange={setOpen}
      reset={reset}
      trigger={<Button>{say('workshop:doors.move')}</Button>}
      title={say('workshop:doors.moveTitle', { door: name })}
    >
      <form noValidate onSubmit={(event) => void go(event)}>
        <p className="mt-3">{say('workshop:doors.moveSays', { address: `/ask/${slug}` })}</p>
        <TextLine
          id={`${id}-slug`}
          label={say('workshop:doors.newAddress')}
          hint={say('workshop:doors.newAddressHint', { start: `${location.origin}/ask/` })}
          error={error}
          field="slug"
          value={address}
          change={(typed) => {
            reset();
            setAddress(typed.toLowerCase());
          }}
        />
        <fieldset className="mt-4 flex flex-col gap-2">
          <legend className="mb-1 font-semibold">{say('workshop:doors.oldAddress')}</legend>
          {([true, false] as const).map((leads) => (
            <label key={String(leads)} className="flex items-start gap-2">
              <input
                type="radio"
                name={id}
                className="mt-1 accent-green"
                checked={leadsOn === leads}
                onChange={() => setLeadsOn(leads)}
              />
              <span>
                {say(leads ? 'workshop:doors.leadsOn' : 'workshop:doors.leadsNoMore')}
                <span className="block text-[13px] text-soft">
                  {say(leads ? 'workshop:doors.leadsOnHint' : 'workshop:doors.leadsNoMoreHint')}
                </span>
              </span>
            </label>
          ))}
        </fieldset>
        {door && door.former.length > 0 ? (
          <ul className="mt-4 text-[13px] text-soft">
            {door.former.map((former) => (
              <li key={former.slug}>
                <code className="font-mono">{former.slug}</code>{' '}
                {say(former.leadsOn ? 'workshop:doors.formerLeads' : 'workshop:doors.formerEnded')},{' '}
                <DeskMoment at={former.at} show="day" />
              </li>
            ))}
          </ul>
        ) : null}
        <WholeTrouble error={error} className="mt-3" />
        <p className="mt-5 flex gap-2">
          <Button look="main" type="submit" disabled={isLoading || !door}>
            {say('workshop:doors.moveNow')}
          </Button>
          <Button onClick={() => setOpen(false)}>{say('common:cancel')}</Button>
        </p>
      </form>
    </DialogFrame>
  );
}
