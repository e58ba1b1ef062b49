import type { AnswerOf } from '@tolvek/contract';
import { useState } from 'react';
import { toast } from 'sonner';
import { Button } from '../../ui/Button.tsx';
import { DialogFrame } from '../../ui/DialogFrame.tsx';
import { ProblemsAt } from '../../ui/ProblemsAt.tsx';
import { Trouble } from '../../ui/Trouble.tsx';
import { problemOf } from '../../wire/problem.ts';
import { say, told } from '../../wire/words.ts';
import { groundApi } from './endpoints.ts';
import { PickMember } from './PickMember.tsx';

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
  const whole = error && !problemOf(error).problems ? error : null;
  return (
    <div className="mt-3">
      <DialogFrame
        open={open}
        onOpenChange={(now) => {
          setOpen(now);
          reset();
        }}
        title={say('ground:handOverTitle', { name: opened.name })}
        trigger={<Button>{say('ground:handOver')}</Button>}
      >
        <p className="mt-2">{say('ground:handOverHint')}</p>
        <ul className="mt-2">
          {opened.hangs.map(({ words }) => (
            <li key={told(words)} className="border-b border-rule py-1.5">
              {told(words)}
            </li>
          ))}
          <li className="border-b border-rule py-1.5">{say('ground:leavesGroups', { count: opened.groups.length })}</li>
        </ul>
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
        <p className="mt-2 text-soft">
          {taker ? say('ground:takesOver', { name: taker.name }) : say('ground:backToTeams')}
        </p>
        {whole ? (
          <div className="mt-3">
            <Trouble error={whole} />
          </div>
        ) : null}
        <p className="mt-4">
          <Button look="refuse" disabled={isLoading} onClick={() => void done()}>
            {say('ground:handOverNow')}
          </Button>
        </p>
      </DialogFrame>
    </div>
  );
}
