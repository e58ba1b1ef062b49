import type { ParamsOf } from '@tolvek/contract';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { toast } from 'sonner';
import { Button } from '../../ui/Button.tsx';
import { DialogFrame } from '../../ui/DialogFrame.tsx';
import { Trouble, WholeTrouble } from '../../ui/Trouble.tsx';
import { say, told } from '../../wire/words.ts';
import { groundApi } from './endpoints.ts';
import { PlanLines } from './PlanLines.tsx';

interface DeleteProps {
  readonly at: ParamsOf<'groundDeletion'>;
  /** Where one is afterwards. */
  readonly then: string;
}

/** Deletes a group, a calendar or a vocabulary: says before what uses it, or what goes with it. */
export function DeleteGround({ at, then }: DeleteProps) {
  const [open, setOpen] = useState(false);
  return (
    <DialogFrame
      open={open}
      onOpenChange={setOpen}
      title={say(`ground:deleteTitle.${at.kind}`)}
      trigger={
        <button type="button" className="text-[13px] text-brick underline underline-offset-[3px]">
          {say(`ground:deleteOpen.${at.kind}`)}
        </button>
      }
    >
      {open ? <Plan at={at} then={then} /> : null}
    </DialogFrame>
  );
}

function Plan({ at, then }: DeleteProps) {
  const { data, error: wrong } = groundApi.useGroundDeletionQuery(at);
  const [remove, { isLoading, error }] = groundApi.useDeleteGroundMutation();
  const navigate = useNavigate();
  if (wrong)
    return (
      <div className="mt-3">
        <Trouble error={wrong} />
      </div>
    );
  if (!data) return null;
  if (data.uses.length > 0)
    return (
      <>
        <p className="mt-2">{say('ground:deleteInUse', { name: data.name })}</p>
        <ul className="mt-2">
          {data.uses.map((use) => (
            <li key={`${told(use.title)} ${told(use.at)}`} className="border-b border-rule py-1.5">
              {told(use.title)} <span className="text-soft">{told(use.at)}</span>
            </li>
          ))}
        </ul>
        <p className="mt-3 text-soft">{say(`ground:deleteInstead.${at.kind}`)}</p>
      </>
    );
  const done = async (): Promise<void> => {
    const answer = await remove(at);
    if ('error' in answer) return;
    toast(say('ground:deleted', { name: data.name }));
    void navigate(then);
  };
  return (
    <>
      <p className="mt-2">{say('ground:deleteFree', { name: data.name })}</p>
      <PlanLines lines={data.goes.map(told)} />
      <WholeTrouble error={error} />
      <p className="mt-4">
        <Button look="refuse" disabled={isLoading} onClick={() => void done()}>
          {say('ground:deleteNow')}
        </Button>
      </p>
    </>
  );
}
