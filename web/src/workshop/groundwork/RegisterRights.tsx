import type { AnswerOf, BodyOf } from '@tolvek/contract';
import { useState } from 'react';
import { toast } from 'sonner';
import { Button } from '../../ui/Button.tsx';
import { DialogFrame } from '../../ui/DialogFrame.tsx';
import { Trouble, WholeTrouble } from '../../ui/Trouble.tsx';
import { say, told } from '../../wire/words.ts';
import { groundApi } from './endpoints.ts';
import { GroundHistory } from './GroundHistory.tsx';
import { PlanLines } from './PlanLines.tsx';
import { RightsTable } from './RightsTable.tsx';

type Opened = AnswerOf<'registerRights'>;
type Becomes = BodyOf<'setRegisterRights'>['to'];

/** To whom rights are given in one register, beside what the desk gives. `isPart`: of a page that is about more than them. */
export function RegisterRights({ register, isPart = false }: { register: string; isPart?: boolean }) {
  const { data, error, refetch } = groundApi.useRegisterRightsQuery({ key: register });
  if (error)
    return (
      <div className="mt-5">
        <Trouble error={error} again={refetch} />
      </div>
    );
  if (!data) return null;
  return (
    <>
      <Standing opened={data} isPart={isPart} />
      <RightsTable
        key={register}
        {...{ rights: data.rights, subjects: data.subjects, mayChange: data.mayChange, register }}
      />
      {isPart ? null : <GroundHistory lines={data.history} />}
    </>
  );
}

/** In how many rights of how many a register differs from the desk. */
const countDifferences = ({ subjects }: Opened): number =>
  subjects.reduce(
    (sum, { rights, desk }) =>
      sum +
      rights.filter((right) => !desk.includes(right)).length +
      desk.filter((right) => !rights.includes(right)).length,
    0,
  );

/** How a register stands to the desk, and what changes that. */
function Standing({ opened, isPart }: { opened: Opened; isPart: boolean }) {
  const { apart, name, mayChange, givers } = opened;
  const count = countDifferences(opened);
  const words = apart
    ? say('rights:isApart', { name })
    : count > 0
      ? say('rights:differs', { name, count })
      : say('rights:asDesk', { name });
  return (
    <div className="mt-4">
      <p>
        {words} {mayChange && !apart && count === 0 ? say('rights:asDeskHint') : null}
      </p>
      {mayChange || !isPart ? null : (
        <p className="mt-1 text-soft">{say('ground:rightsReadOnly', { people: givers })}</p>
      )}
      {mayChange ? (
        <p className="mt-2 flex flex-wrap gap-2">
          {apart || count > 0 ? <Become opened={opened} to="desk" /> : null}
          <Become opened={opened} to={apart ? 'beside' : 'apart'} />
        </p>
      ) : null}
    </div>
  );
}

/** Changes how a register stands to the desk, and says before who gets or loses what. */
function Become({ opened: { key, name }, to }: { opened: Opened; to: Becomes }) {
  const [open, setOpen] = useState(false);
  const [set, { isLoading, error, reset }] = groundApi.useSetRegisterRightsMutation();
  // What comes of it is said first: nothing is pressed while that is read, and moves what is pressed.
  const effects = groundApi.useRegisterRightsPlanQuery({ key, query: { to } }, { skip: !open });
  const done = async (): Promise<void> => {
    const answer = await set({ key, body: { to } });
    if ('error' in answer) return;
    toast(say('rights:changed'));
    setOpen(false);
  };
  return (
    <DialogFrame
      open={open}
      onOpenChange={setOpen}
      reset={reset}
      title={say(`rights:become.${to}`)}
      trigger={<Button>{say(`rights:become.${to}`)}</Button>}
    >
      <p className="mt-2 text-soft">{say(`rights:becomeHint.${to}`, { name })}</p>
      <Effects plan={effects.data} error={effects.error} />
      <WholeTrouble error={error} />
      <p className="mt-4">
        <Button look="main" disabled={isLoading || effects.isFetching} onClick={() => void done()}>
          {say(`rights:becomeNow.${to}`)}
        </Button>
      </p>
    </DialogFrame>
  );
}

function Effects({ plan, error }: { plan: AnswerOf<'registerRightsPlan'> | undefined; error: unknown }) {
  if (error)
    return (
      <div className="mt-3">
        <Trouble error={error} />
      </div>
    );
  return plan ? <PlanLines lines={plan.effects.map(told)} none={say('rights:noEffect')} /> : null;
}
