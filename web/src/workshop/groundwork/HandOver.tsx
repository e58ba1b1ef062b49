import type { AnswerOf } from '@tolvek/contract';
import { useState } from 'react';
import { toast } from 'sonner';
import { Button } from '../../ui/Button.tsx';
import { DialogFrame } from '../../ui/DialogFrame.tsx';
import { ProblemsAt } from '../../ui/ProblemsAt.tsx';
import { WholeTrouble } from '../../ui/Trouble.tsx';
import { say } from '../../wire/words.ts';
import { groundApi } from './endpoints.ts';
import { PickMember } from './PickMember.tsx';
import { PlanLines } from './PlanLines.tsx';

/** Hands all over that hangs on somebody who leaves: what will happen is said first, and then done in one go. */
export function HandOver({ opened }: { opened: AnswerOf<'person'> }) {
  const [open, setOpen] = useState(false);
  const [taker, setTaker] = useState<{ readonly id: string; readonly name: string } | null>(null);
  const [hand, { isLoading, error, reset }] = groundApi.useHandOverMutation();
  const done = async (): Promise<void> => {
    const answer = await hand({ id: opened.id, body: { to: taker?.id ?? null } });
    if (!('data' in answer) || !answer.data) return;
    const { given, back } = answer.data;
    toast(say('ground:handedOver', { name: opened.name, given, back }));
    setOpen(false);
  };
  return (
    <div className="mt-3">
      <DialogFrame
        open={open}
        onOpenChange={setOpen}
        reset={reset}
        title={say('ground:handOverTitle', { name: opened.name })}
        trigger={<Button>{say('ground:handOver')}</Button>}
      >
        <p className="mt-2">{say('ground:handOverHint')}</p>
        <div className="mt-4">
          <PickMember
            kind="staff"
            label={say('ground:whoTakesOver')}
            onlyPeople
            inside={[opened.id]}
            group=""
            choose={(member, name) => setTaker(member && 'person' in member ? { id: member.person, name } : null)}
          />
          <ProblemsAt error={error} field="to" />
        </div>
        {open ? <Plan id={opened.id} taker={taker} /> : null}
        <WholeTrouble error={error} />
        <p className="mt-4">
          <Button look="refuse" disabled={isLoading} onClick={() => void done()}>
            {say('ground:handOverNow')}
          </Button>
        </p>
      </DialogFrame>
    </div>
  );
}

/** What handing over would come to, in numbers: read anew for each person that is chosen. */
function Plan({ id, taker }: { id: string; taker: { readonly id: string; readonly name: string } | null }) {
  const { data } = groundApi.useHandOverPlanQuery({ id, query: { to: taker?.id } });
  if (!data) return null;
  const name = taker?.name ?? '';
  const lines = [
    data.given > 0 ? say('ground:plan.given', { name, count: data.given }) : '',
    data.back > 0 ? say('ground:plan.back', { count: data.back }) : '',
    data.decides > 0 ? say('ground:plan.decides', { name, count: data.decides }) : '',
    data.waits > 0 ? say('ground:plan.waits', { count: data.waits }) : '',
    data.forms.given > 0 ? say('ground:plan.forms', { name, count: data.forms.given }) : '',
    data.forms.ended > 0 ? say('ground:plan.formsEnd', { count: data.forms.ended }) : '',
    data.rosters > 0
      ? say(taker ? 'ground:plan.rosters' : 'ground:plan.rostersLeft', { name, count: data.rosters })
      : '',
    data.groups > 0 ? say('ground:leavesGroups', { count: data.groups }) : '',
  ].filter(Boolean);
  return <PlanLines lines={lines} none={say('ground:nothingHangs')} />;
}
