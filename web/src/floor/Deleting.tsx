import type { AnswerOf } from '@tolvek/contract';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { toast } from 'sonner';
import { DialogFrame } from '../ui/DialogFrame.tsx';
import { Trouble } from '../ui/Trouble.tsx';
import { problemOf, refusalInWords } from '../wire/problem.ts';
import { say, told } from '../wire/words.ts';
import { floorApi } from './endpoints.ts';
import { ReasonForm } from './ReasonForm.tsx';

type SheetData = AnswerOf<'sheet'>;

/** Deletes a request: says before what goes with it, and what stands against it. */
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
  const [putBack] = floorApi.usePutBackRequestMutation();
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
  const undo = async (id: string): Promise<void> => {
    const back = await putBack({ id });
    if ('error' in back) toast.error(refusalInWords(problemOf(back.error)));
    else toast(say('deletion:back', { number }));
  };
  const send = async (reason: string): Promise<void> => {
    const done = await remove({ number, version, body: { reason } });
    if ('error' in done) return;
    const { id } = done.data;
    toast(say('deletion:done', { number }), {
      duration: 12_000,
      action: { label: say('deletion:undo'), onClick: () => void undo(id) },
    });
    void navigate('..', { relative: 'path' });
  };
  return (
    <ReasonForm
      id="delete-why"
      act={say('deletion:now')}
      look="refuse"
      busy={isLoading}
      error={error}
      send={(reason) => void send(reason)}
    >
      <p className="mt-2 font-semibold">{say('deletion:goes')}</p>
      <ul className="mt-1">
        {plan.lines.map((line) => (
          <li key={told(line)} className="border-b border-rule py-1.5">
            {told(line)}
          </li>
        ))}
      </ul>
      <p className="mt-3 text-soft">{say('deletion:stays')}</p>
    </ReasonForm>
  );
}
