import type { AnswerOf } from '@tolvek/contract';
import { useState } from 'react';
import { toast } from 'sonner';
import { Button } from '../../ui/Button.tsx';
import { DialogFrame } from '../../ui/DialogFrame.tsx';
import { Trouble, WholeTrouble } from '../../ui/Trouble.tsx';
import { say } from '../../wire/words.ts';
import { groundApi } from './endpoints.ts';
import { PickMember } from './PickMember.tsx';
import { PlanLines } from './PlanLines.tsx';

/** Merges another record of the same person into the one that is open: what it will come to is said first. */
export function Merge({ opened }: { opened: AnswerOf<'person'> }) {
  const [open, setOpen] = useState(false);
  const [other, setOther] = useState<string | null>(null);
  const [merge, { isLoading, error, reset }] = groundApi.useMergePeopleMutation();
  const done = async (): Promise<void> => {
    if (other === null) return;
    const answer = await merge({ id: opened.id, body: { other } });
    if ('error' in answer) return;
    toast(say('ground:merged'));
    setOpen(false);
  };
  return (
    <div className="mt-3">
      <DialogFrame
        open={open}
        onOpenChange={(now) => {
          setOpen(now);
          setOther(null);
          reset();
        }}
        title={say('ground:mergeTitle', { name: opened.name })}
        trigger={<Button>{say('ground:merge')}</Button>}
      >
        <p className="mt-2">{say('ground:mergeHint')}</p>
        <div className="mt-4">
          <PickMember
            label={say('ground:whichRecord')}
            onlyPeople
            inside={[opened.id]}
            group=""
            choose={(member) => setOther(member && 'person' in member ? member.person : null)}
          />
        </div>
        {open && other ? <Plan id={opened.id} other={other} /> : null}
        <WholeTrouble error={error} />
        <p className="mt-4">
          <Button look="refuse" disabled={isLoading || other === null} onClick={() => void done()}>
            {say('ground:mergeNow')}
          </Button>
        </p>
      </DialogFrame>
    </div>
  );
}

/** What merging would come to: read anew for each record that is chosen. */
function Plan({ id, other }: { id: string; other: string }) {
  const { data, error } = groundApi.useMergePlanQuery({ id, query: { other } });
  if (error)
    return (
      <div className="mt-3">
        <Trouble error={error} />
      </div>
    );
  if (!data) return null;
  const lines = [
    say('ground:mergePlan.addresses', { addresses: data.addresses }),
    data.requests > 0 ? say('ground:mergePlan.requests', { count: data.requests }) : '',
    data.groups.length > 0 ? say('ground:mergePlan.groups', { groups: data.groups }) : '',
    data.rights > 0 ? say('ground:mergePlan.rights', { count: data.rights }) : '',
    data.named > 0 ? say('ground:mergePlan.named', { count: data.named }) : '',
  ].filter(Boolean);
  return <PlanLines lines={lines} />;
}
