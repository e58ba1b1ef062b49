import { useDeferredValue, useState } from 'react';
import { toast } from 'sonner';
import { FindWho, type Who } from '../fields/FindWho.tsx';
import { Button } from '../ui/Button.tsx';
import { DialogFrame } from '../ui/DialogFrame.tsx';
import { Trouble } from '../ui/Trouble.tsx';
import { say } from '../wire/words.ts';
import { floorApi } from './endpoints.ts';

/** Asks a group or somebody else to decide, in place of whoever is asked. */
export function Handing({ number }: { number: string }) {
  const [open, setOpen] = useState(false);
  const [whom, setWhom] = useState<{ readonly whom: Who; readonly name: string } | null>(null);
  const [find, setFind] = useState('');
  const looking = useDeferredValue(find.trim());
  const { data } = floorApi.useDeciderTargetsQuery({ number, query: { find: looking } }, { skip: !open });
  const [hand, { isLoading, error, reset }] = floorApi.useHandDecisionMutation();
  const put = async (event: React.FormEvent): Promise<void> => {
    event.preventDefault();
    if (!whom) return;
    const done = await hand({ number, body: { to: whom.whom } });
    if ('error' in done) return;
    toast(say('floor:handed', { name: whom.name }));
    setOpen(false);
    setWhom(null);
  };
  return (
    <DialogFrame
      open={open}
      onOpenChange={setOpen}
      reset={reset}
      title={say('floor:handDecision')}
      trigger={<Button>{say('floor:handDecision')}</Button>}
    >
      <form onSubmit={put} noValidate>
        <p className="mt-2 mb-3 text-soft">{say('floor:handHint')}</p>
        <FindWho
          id="hand-to"
          label={say('floor:handTo')}
          placeholder={say('share:find')}
          none={say('share:noneFound')}
          groups={(data?.groups ?? []).map(({ key, name, members }) => ({
            ...{ key, name, detail: say('share:groupOf', { count: members }) },
          }))}
          people={(data?.people ?? []).map((person) => ({ ...person, detail: '' }))}
          find={setFind}
          choose={(who, name) => setWhom(who && { whom: who, name })}
        />
        {error ? (
          <div className="mt-3">
            <Trouble error={error} />
          </div>
        ) : null}
        <p className="mt-4">
          <Button look="main" type="submit" disabled={isLoading || whom === null}>
            {say('floor:handNow')}
          </Button>
        </p>
      </form>
    </DialogFrame>
  );
}
