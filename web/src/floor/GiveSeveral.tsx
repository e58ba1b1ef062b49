import type { AnswerOf, BodyOf } from '@tolvek/contract';
import { priorities } from '@tolvek/core/register';
import { priorityInWords } from '@tolvek/core/request';
import { useState } from 'react';
import { toast } from 'sonner';
import { Button } from '../ui/Button.tsx';
import { DialogFrame } from '../ui/DialogFrame.tsx';
import { Trouble } from '../ui/Trouble.tsx';
import { say, told } from '../wire/words.ts';
import { floorApi } from './endpoints.ts';
import type { ChosenRow } from './Ledger.tsx';
import { MoveSeveral } from './MoveSeveral.tsx';
import { NotSo } from './NotSo.tsx';
import { useForetold } from './useForetold.ts';
import { WriteSeveral } from './WriteSeveral.tsx';

type Wanted = Omit<BodyOf<'rerouteMany'>, 'requests' | 'apply' | 'reason'>;

/** What is chosen in the ledger, and what can be done with all of it. */
export function GiveSeveral({
  chosen,
  drop,
}: {
  chosen: ReadonlyMap<string, number>;
  drop: (rows: readonly ChosenRow[]) => void;
}) {
  const [open, setOpen] = useState(false);
  const rows = [...chosen].map(([number, version]): ChosenRow => ({ number, version }));
  return (
    <div className="mx-[22px] mt-3 flex flex-wrap items-center gap-3 border-l-[3px] border-green bg-sheet px-3 py-1.5">
      <span aria-live="polite">{say('floor:chosen', { count: rows.length })}</span>
      <DialogFrame
        open={open}
        onOpenChange={setOpen}
        title={say('floor:giveSeveral', { count: rows.length })}
        trigger={<Button disabled={rows.length === 0}>{say('floor:give')}</Button>}
      >
        {open ? <Giving rows={rows} drop={drop} close={() => setOpen(false)} /> : null}
      </DialogFrame>
      <MoveSeveral rows={rows} drop={drop} />
      <WriteSeveral rows={rows} drop={drop} />
      {rows.length > 0 ? (
        <button type="button" className="text-green underline" onClick={() => drop(rows)}>
          {say('floor:chooseNone')}
        </button>
      ) : null}
    </div>
  );
}

/** As it is; in the place of a choice. */
const AS_IT_IS = ' as it is';
const BY_RULE = ' by rule';

function Giving({
  rows,
  drop,
  close,
}: {
  rows: readonly ChosenRow[];
  drop: (rows: readonly ChosenRow[]) => void;
  close: () => void;
}) {
  const [wanted, setWanted] = useState<Wanted>({});
  const [reason, setReason] = useState('');
  const [look] = floorApi.useRerouteManyMutation();
  const [give, { error, isLoading }] = floorApi.useRerouteManyMutation();
  // What would become otherwise is told before anything does.
  const [plan, setPlan] = useForetold({ ...wanted, requests: [...rows] }, (asked) =>
    look({ body: { ...asked, reason: '', apply: false } }),
  );
  const put = async (): Promise<void> => {
    const done = await give({ body: { ...wanted, requests: [...rows], reason: reason.trim(), apply: true } });
    if (!done.data) return;
    const left = new Set(done.data.refused.map(({ number }) => number));
    drop(rows.filter(({ number }) => !left.has(number)));
    toast(say('floor:givenSeveral', { count: done.data.changed }));
    if (left.size === 0) close();
    else setPlan(done.data);
  };
  const { handler } = wanted;
  const handlerIs = handler === undefined ? AS_IT_IS : 'by' in handler ? BY_RULE : (handler.person ?? '');
  return (
    <>
      <div className="mt-3 grid grid-cols-[8rem_1fr] items-center gap-x-3 gap-y-2">
        <label htmlFor="give-team">{say('floor:col.team')}</label>
        <select
          id="give-team"
          className="input"
          value={wanted.team ?? AS_IT_IS}
          // Who handles it is of the team: it is chosen anew with it.
          onChange={({ target: { value } }) =>
            setWanted(({ priority }) => ({
              ...(priority ? { priority } : {}),
              ...(value === AS_IT_IS ? {} : { team: value }),
            }))
          }
        >
          <option value={AS_IT_IS}>{say('floor:asItIs')}</option>
          {(plan?.teams ?? []).map(({ key, name }) => (
            <option key={key} value={key}>
              {name}
            </option>
          ))}
        </select>
        <label htmlFor="give-handler">{say('floor:handler')}</label>
        <select
          id="give-handler"
          className="input"
          value={handlerIs}
          onChange={({ target: { value } }) =>
            setWanted(({ handler: _, ...others }) =>
              value === AS_IT_IS
                ? others
                : { ...others, handler: value === BY_RULE ? { by: 'rule' } : { person: value || null } },
            )
          }
        >
          <option value={AS_IT_IS}>{say('floor:asItIs')}</option>
          <option value="">{say('floor:noHandler')}</option>
          {wanted.team === undefined ? <option value={BY_RULE}>{say('floor:handlerByRule')}</option> : null}
          {(plan?.people ?? []).map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </select>
        <label htmlFor="give-priority">{say('floor:priority')}</label>
        <select
          id="give-priority"
          className="input"
          value={wanted.priority ?? AS_IT_IS}
          onChange={({ target: { value } }) =>
            setWanted(({ priority: _, ...others }) => {
              const priority = priorities.find((each) => each === value);
              return priority ? { ...others, priority } : others;
            })
          }
        >
          <option value={AS_IT_IS}>{say('floor:asItIs')}</option>
          {priorities.map((each) => (
            <option key={each} value={each}>
              {told(priorityInWords(each))}
            </option>
          ))}
        </select>
        <label htmlFor="give-why">{say('floor:whyMoved')}</label>
        <input
          id="give-why"
          className="input"
          maxLength={500}
          value={reason}
          onChange={({ target }) => setReason(target.value)}
        />
      </div>
      {plan ? <WhatFollows plan={plan} isChosen={Object.keys(wanted).length > 0} /> : null}
      {error ? <Trouble error={error} /> : null}
      <p className="mt-4 flex flex-wrap gap-3">
        <Button look="main" disabled={isLoading || !plan || plan.changed === 0} onClick={() => void put()}>
          {say('floor:giveNow', { count: plan?.changed || rows.length })}
        </Button>
        <Button onClick={close}>{say('common:cancel')}</Button>
      </p>
    </>
  );
}

/** What becomes otherwise, and what can’t be changed so. */
function WhatFollows({
  plan: { changes, changed, refused },
  isChosen,
}: {
  plan: AnswerOf<'rerouteMany'>;
  isChosen: boolean;
}) {
  const says = (['team', 'handler', 'priority', 'letsGo'] as const).flatMap((what) =>
    changes[what] > 0 ? [say(`floor:gives.${what}`, { count: changes[what] })] : [],
  );
  return (
    <div className="mt-4" aria-live="polite">
      {changed === 0 ? (
        <p className="text-soft">{say(isChosen ? 'floor:givesSame' : 'floor:givesNothing')}</p>
      ) : (
        <ul>
          {says.map((each) => (
            <li key={each}>{each}</li>
          ))}
          <li className="text-soft">{say('floor:givesEmails')}</li>
        </ul>
      )}
      <NotSo refused={refused} />
    </div>
  );
}
