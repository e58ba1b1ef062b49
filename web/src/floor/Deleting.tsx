import type { AnswerOf } from '@tolvek/contract';
import { Dialog } from 'radix-ui';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { toast } from 'sonner';
import { Button } from '../ui/Button.tsx';
import { DialogFrame } from '../ui/DialogFrame.tsx';
import { Trouble } from '../ui/Trouble.tsx';
import { say, told } from '../wire/words.ts';
import { floorApi } from './endpoints.ts';

type SheetData = AnswerOf<'sheet'>;

/** Deletes a request for good: says before what goes with it, and what stands against it. */
export function Deleting({ sheet: { number, version, may } }: { sheet: SheetData }) {
  const [open, setOpen] = useState(false);
  if (!may.delete) return null;
  return (
    <DialogFrame
      open={open}
      onOpenChange={setOpen}
      title={say('deletion:title', { number })}
      trigger={
        <button type="button" className="mt-6 text-[13px] text-brick underline underline-offset-[3px]">
          {say('deletion:open')}
        </button>
      }
    >
      {open ? <Plan number={number} version={version} /> : null}
    </DialogFrame>
  );
}

function Plan({ number, version }: { number: string; version: number }) {
  const { data: plan, error: wrong } = floorApi.useDeletionPlanQuery({ number });
  const [remove, { isLoading, error }] = floorApi.useDeleteRequestMutation();
  const [reason, setReason] = useState('');
  const navigate = useNavigate();
  if (wrong)
    return (
      <div className="mt-3">
        <Trouble error={wrong} />
      </div>
    );
  if (!plan) return null;
  const { count, some } = plan.pointing;
  if (count > 0)
    return (
      <>
        <p className="mt-2">{say('deletion:inUse', { count })}</p>
        <ul className="mt-2">
          {some.map((each) => (
            <li key={each.number} className="border-b border-rule py-1.5">
              <Link to={`/floor/all/${each.number}`}>
                {told(each.subject)} <span className="font-mono text-[12.5px] text-soft">{each.number}</span>
              </Link>
            </li>
          ))}
        </ul>
        <p className="mt-3 text-soft">{say('deletion:inUseFix')}</p>
      </>
    );
  const send = async (event: React.FormEvent): Promise<void> => {
    event.preventDefault();
    const done = await remove({ number, version, body: { reason } });
    if ('error' in done) return;
    toast(say('deletion:done', { number }));
    void navigate('..', { relative: 'path' });
  };
  return (
    <form onSubmit={send} noValidate>
      <p className="mt-2 font-semibold">{say('deletion:goes')}</p>
      <ul className="mt-1">
        {plan.lines.map((line) => (
          <li key={told(line)} className="border-b border-rule py-1.5">
            {told(line)}
          </li>
        ))}
      </ul>
      <p className="mt-3 text-soft">{say('deletion:stays')}</p>
      <label htmlFor="delete-why" className="mt-4 block font-semibold">
        {say('deletion:reason')}
      </label>
      <textarea
        id="delete-why"
        rows={2}
        className="input mt-1"
        value={reason}
        onChange={(event) => setReason(event.target.value)}
      />
      {error ? (
        <div className="mt-3">
          <Trouble error={error} />
        </div>
      ) : null}
      <div className="mt-4 flex gap-3">
        <Button look="refuse" type="submit" disabled={isLoading || reason.trim() === ''}>
          {say('deletion:now')}
        </Button>
        <Dialog.Close asChild>
          <Button>{say('common:cancel')}</Button>
        </Dialog.Close>
      </div>
    </form>
  );
}
