import { RANK } from '@tolvek/core/access';
import { useState } from 'react';
import { toast } from 'sonner';
import { Button } from '../../ui/Button.tsx';
import { Trouble } from '../../ui/Trouble.tsx';
import { say, told } from '../../wire/words.ts';
import { workshopApi } from '../endpoints.ts';
import { Effect } from './Effect.tsx';
import type { Plan } from './usePlan.ts';

interface PutInForceProps {
  readonly plan: Plan;
  readonly version: number;
  readonly isKept: boolean;
  readonly discard: () => void;
  readonly raised: (version: number) => void;
}

/** What is written and not in force yet: its effect, and putting it in force. */
export function PutInForce({ plan, version, isKept, discard, raised }: PutInForceProps) {
  const [put, { isLoading, error, reset }] = workshopApi.usePutAccessPlanMutation();
  const { data: effect } = workshopApi.useAccessPlanEffectQuery({ key: plan.key });
  const [note, setNote] = useState('');
  const [closes, setCloses] = useState(false);
  const called = (rules: readonly string[]) => rules.map((name) => name || say('accessPlan:unnamed'));
  const { added, changed, removed, switchedOff, switchedOn, noted, notNoted, placed, base, readers } = plan.changes;
  const lines = [
    ...(added.length > 0 ? [say('accessPlan:written.added', { rules: called(added) })] : []),
    ...(changed.length > 0 ? [say('accessPlan:written.changed', { rules: called(changed) })] : []),
    ...(removed.length > 0 ? [say('accessPlan:written.removed', { rules: called(removed) })] : []),
    ...(switchedOff.length > 0 ? [say('accessPlan:written.switchedOff', { rules: called(switchedOff) })] : []),
    ...(base ? [say('accessPlan:written.base')] : []),
    ...(readers ? [say('accessPlan:written.readers')] : []),
    ...(placed.length > 0 ? [say('accessPlan:written.placed', { fields: placed })] : []),
    ...(noted.length > 0 ? [say('accessPlan:written.noted', { fields: noted })] : []),
    ...(notNoted.length > 0 ? [say('accessPlan:written.notNoted', { fields: notNoted })] : []),
    ...(switchedOn.length > 0 ? [say('accessPlan:written.switchedOn', { rules: called(switchedOn) })] : []),
  ];
  const closesSomething = effect?.yours.some(({ before, after }) => RANK[after] < RANK[before]);
  const stands = plan.problems.length > 0 || (effect?.opens.length ?? 0) > 0 || (effect?.mayNotOpen.length ?? 0) > 0;
  const send = async (event: React.FormEvent): Promise<void> => {
    event.preventDefault();
    const done = await put({ key: plan.key, version, body: { note, closesToMyself: closes } });
    if (!done.data) return;
    raised(done.data.version);
    toast(say('accessPlan:putNow'));
    setNote('');
    setCloses(false);
  };
  return (
    <form onSubmit={send} className="mt-4 border border-rule-strong bg-well px-4 py-3">
      <h2 className="font-semibold">{say('accessPlan:ifPut')}</h2>
      <p className="mt-1 text-soft">{lines.join(' ')}</p>
      <div className="mt-2">
        <Effect register={plan.key} />
      </div>
      {plan.problems.map((problem) => (
        <p key={problem.field + told(problem.message)} className="my-1.5 text-brick">
          {told(problem.message)} {told(problem.fix)}
        </p>
      ))}
      {closesSomething ? (
        <label className="mt-2 flex items-center gap-2">
          <input
            type="checkbox"
            className="accent-green"
            checked={closes}
            onChange={(event) => {
              setCloses(event.target.checked);
              reset();
            }}
          />
          {say('accessPlan:closesToMyself')}
        </label>
      ) : null}
      <p className="mt-2 flex flex-wrap items-center gap-2">
        <label htmlFor="plan-note" className="text-soft">
          {say('accessPlan:why')}
        </label>
        <input
          id="plan-note"
          className="input w-72"
          maxLength={500}
          value={note}
          onChange={(event) => setNote(event.target.value)}
        />
        <Button
          look="main"
          type="submit"
          disabled={isLoading || !isKept || stands || (closesSomething === true && !closes)}
        >
          {say('accessPlan:put')}
        </Button>
        <button type="button" className="ml-2 text-green underline" onClick={discard}>
          {say('accessPlan:takeBack')}
        </button>
      </p>
      {error ? (
        <div className="mt-2">
          <Trouble error={error} />
        </div>
      ) : null}
    </form>
  );
}
