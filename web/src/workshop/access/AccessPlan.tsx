import { type PlanRules, placedByName } from '@tolvek/core/access';
import { isSame } from '@tolvek/core/design';
import { partsOf } from '@tolvek/core/register';
import { useState } from 'react';
import { Link } from 'react-router';
import { Button } from '../../ui/Button.tsx';
import { Trouble } from '../../ui/Trouble.tsx';
import { DeskMoment } from '../../wire/DeskMoment.tsx';
import { say } from '../../wire/words.ts';
import { workshopApi } from '../endpoints.ts';
import { RegisterRights } from '../groundwork/RegisterRights.tsx';
import { Kept } from '../Kept.tsx';
import { Base } from './Base.tsx';
import { Grid } from './Grid.tsx';
import { PutInForce } from './PutInForce.tsx';
import { addRule, noteReading, type Recipe } from './planEdits.ts';
import { Readers } from './Readers.tsx';
import { Rules } from './Rules.tsx';
import { SeeAs } from './SeeAs.tsx';
import { Unplaced } from './Unplaced.tsx';
import { type Plan, usePlan } from './usePlan.ts';
import { WhoReads } from './WhoReads.tsx';

const planOf = ({ rules, resting, noted, base, placed, readers }: PlanRules): PlanRules => ({
  ...{ rules, resting },
  ...(noted ? { noted } : {}),
  ...(base ? { base } : {}),
  ...(placed ? { placed } : {}),
  ...(readers ? { readers } : {}),
});

/** The access plan of a register: written in a draft, looked at, put in force. */
export function AccessPlan({ register }: { register: string }) {
  const { data, error, refetch } = workshopApi.useAccessPlanQuery({ key: register });
  if (error)
    return (
      <div className="mt-4">
        <Trouble error={error} again={refetch} />
      </div>
    );
  return data ? <OpenPlan key={data.key} plan={data} /> : null;
}

/** What may be done with whole requests: each right in a row of its own, over what the desk gives. It counts at once. */
function Whole({ register }: { register: string }) {
  return (
    <section aria-labelledby="whole-requests">
      <h2 id="whole-requests" className="section-head mt-8">
        {say('accessPlan:wholeRequests')}
      </h2>
      <p className="mt-2 text-soft">
        {say('accessPlan:wholeHint')}{' '}
        <Link to={`/workshop/groundwork/rights?register=${register}`}>{say('accessPlan:rightsHere')}</Link>
      </p>
      <RegisterRights register={register} isPart />
    </section>
  );
}

function OpenPlan({ plan }: { plan: Plan }) {
  const editing = usePlan(plan);
  const [open, setOpen] = useState<string | null>(null);
  const add = (recipe: Recipe, fields: readonly string[] = [], called?: string): void => {
    const id = `rule-${crypto.randomUUID().slice(0, 8)}`;
    const named = called ?? partsOf(plan.fields).find(({ key }) => key === fields[0])?.label;
    const name =
      recipe === 'empty' ? '' : say(`accessPlan:recipeName.${recipe}`, { field: named ?? say('accessPlan:aField') });
    editing.change(addRule(id, recipe, { name, fields }));
    setOpen(id);
  };
  const isAsInForce = isSame(editing.content, plan.inForce);
  const { before } = plan;
  return (
    <>
      <div className="mt-3 flex flex-wrap items-baseline gap-x-4 gap-y-1">
        <span className="text-soft">
          {say('accessPlan:ofRegister', { name: plan.name })}{' '}
          {plan.forms.length > 1 ? say('accessPlan:sharedBy', { forms: plan.forms.map(({ title }) => title) }) : null}
        </span>
        <span className="ml-auto flex items-baseline gap-2">
          <Kept editing={editing} />
          {editing.undo ? <Button onClick={() => editing.undo?.()}>{say('accessPlan:undo')}</Button> : null}
          {editing.redo ? <Button onClick={() => editing.redo?.()}>{say('workshop:redo')}</Button> : null}
        </span>
      </div>
      {isAsInForce ? (
        <p className="mt-2 text-soft">
          {say('accessPlan:asInForce')}{' '}
          {before ? (
            <>
              {say('accessPlan:changedBy', { by: before.by })} <DeskMoment at={before.at} />.{' '}
              <button
                type="button"
                className="text-green underline"
                onClick={() => editing.change(() => planOf(before))}
              >
                {say('accessPlan:stepBack')}
              </button>
            </>
          ) : null}
        </p>
      ) : (
        <PutInForce
          plan={plan}
          version={editing.version}
          isKept={editing.state === 'kept'}
          discard={() => editing.change(() => plan.inForce)}
          raised={(version) => {
            editing.raised(version);
            // What its rules name has its place from then on.
            if (placedByName(editing.content) !== editing.content) editing.change(placedByName);
          }}
        />
      )}
      <Unplaced {...{ plan, add }} change={editing.change} />
      <Rules {...{ plan, editing, open, setOpen, add }} />
      <Base plan={editing.content} change={editing.change} />
      <Whole register={plan.key} />
      <Readers plan={plan} readers={editing.content.readers ?? []} change={editing.change} />
      <Grid
        {...{ plan, add }}
        change={setOpen}
        note={(field) => editing.change(noteReading(field))}
        noted={editing.content.noted ?? []}
      />
      <WhoReads plan={plan} />
      <SeeAs plan={plan} />
    </>
  );
}
