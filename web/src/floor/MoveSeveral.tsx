import { useState } from 'react';
import { toast } from 'sonner';
import { Button } from '../ui/Button.tsx';
import { DialogFrame } from '../ui/DialogFrame.tsx';
import { Trouble } from '../ui/Trouble.tsx';
import { say } from '../wire/words.ts';
import { floorApi } from './endpoints.ts';
import type { ChosenRow } from './Ledger.tsx';
import { NotSo } from './NotSo.tsx';
import { useForetold } from './useForetold.ts';

interface MoveSeveralProps {
  readonly rows: readonly ChosenRow[];
  readonly drop: (rows: readonly ChosenRow[]) => void;
}

/** Moves all that is chosen to one stage. */
export function MoveSeveral({ rows, drop }: MoveSeveralProps) {
  const [open, setOpen] = useState(false);
  return (
    <DialogFrame
      open={open}
      onOpenChange={setOpen}
      title={say('floor:moveSeveral', { count: rows.length })}
      trigger={<Button disabled={rows.length === 0}>{say('floor:moveChosen')}</Button>}
    >
      {open ? <Moving rows={rows} drop={drop} close={() => setOpen(false)} /> : null}
    </DialogFrame>
  );
}

function Moving({ rows, drop, close }: MoveSeveralProps & { readonly close: () => void }) {
  const [stage, setStage] = useState('');
  const [look, looking] = floorApi.useMoveManyMutation();
  const [move, { error, isLoading }] = floorApi.useMoveManyMutation();
  // What would be moved is told before anything is.
  const [plan, setPlan] = useForetold({ ...(stage === '' ? {} : { stage }), requests: [...rows] }, (asked) =>
    look({ body: { ...asked, apply: false } }),
  );
  const put = async (): Promise<void> => {
    const done = await move({ body: { stage, requests: [...rows], apply: true } });
    if (!done.data) return;
    const left = new Set(done.data.refused.map(({ number }) => number));
    drop(rows.filter(({ number }) => !left.has(number)));
    toast(say('floor:movedSeveral', { count: done.data.moved }));
    if (left.size === 0) close();
    else setPlan(done.data);
  };
  const wrong = error ?? looking.error;
  return (
    <>
      {plan && plan.stages.length === 0 && !plan.applied ? (
        <p className="mt-3">{say('floor:moveNowhere')}</p>
      ) : (
        <fieldset className="mt-3">
          <legend className="text-soft">{say('floor:moveWhere')}</legend>
          {(plan?.stages ?? []).map(({ key, label, count }) => (
            <label key={key} className="flex min-h-[28px] items-baseline gap-2">
              <input
                type="radio"
                name="stage"
                className="accent-green"
                checked={stage === key}
                onChange={() => setStage(key)}
              />
              <span>{label}</span>
              <span className="text-[13px] text-soft">{say('floor:moveCount', { count, of: rows.length })}</span>
            </label>
          ))}
        </fieldset>
      )}
      {plan ? <NotSo refused={plan.refused} /> : null}
      {plan && stage !== '' && plan.moved > 0 ? <p className="mt-2 text-soft">{say('floor:moveTells')}</p> : null}
      {wrong ? <Trouble error={wrong} /> : null}
      <p className="mt-4 flex flex-wrap gap-3">
        <Button
          look="main"
          disabled={isLoading || stage === '' || !plan || plan.moved === 0}
          onClick={() => void put()}
        >
          {say('floor:moveNow', { count: stage === '' ? rows.length : (plan?.moved ?? 0) })}
        </Button>
        <Button onClick={close}>{say('common:cancel')}</Button>
      </p>
    </>
  );
}
