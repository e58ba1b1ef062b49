import { ACTIVITIES, type RuleException } from '@tolvek/core/access';
import type { Scope } from '@tolvek/core/expression';
import { ConditionBuilder } from '../../conditions/ConditionBuilder.tsx';
import { firstCondition } from '../../conditions/firstCondition.ts';
import { Boxes } from '../../ui/Boxes.tsx';
import { ProblemsAt } from '../../ui/ProblemsAt.tsx';
import { say } from '../../wire/words.ts';
import { CASES, type Case, exceptionFor, graceFor, graceOf, toggled } from './planEdits.ts';
import type { Plan } from './usePlan.ts';

const LEVELS = ['hidden', 'read', 'write', 'none'] as const;

interface ExceptionsProps {
  readonly rule: string;
  readonly exceptions: readonly RuleException[];
  readonly plan: Plan;
  readonly scope: Scope;
  readonly set: (next: readonly RuleException[]) => void;
  readonly found: unknown;
}

/** Where a rule says something else: by stage, by what is done with the request, or by a condition. The first that holds decides. */
export function Exceptions({ rule, exceptions, plan, scope, set, found }: ExceptionsProps) {
  const add = (which: Case): void =>
    set([...exceptions, exceptionFor(which, `but-${crypto.randomUUID().slice(0, 8)}`, scope)]);
  return (
    <>
      <ol className="space-y-2">
        {exceptions.map((exception, index) => (
          <li key={exception.id} className="border-l-[3px] border-brass bg-paper px-3 py-2">
            <Exception
              {...{ exception, plan, scope }}
              place={index + 1}
              set={(next) => set(exceptions.map((each) => (each.id === exception.id ? next : each)))}
              remove={() => set(exceptions.filter((each) => each.id !== exception.id))}
            />
            <ProblemsAt error={found} field={`rules ${rule} exception ${exception.id}`} />
          </li>
        ))}
      </ol>
      <ProblemsAt error={found} field={`rules ${rule} exceptions`} />
      <select
        className="input mt-1 w-auto"
        aria-label={say('accessPlan:addException')}
        value=""
        onChange={(event) => {
          if (event.target.value !== '') add(event.target.value as Case);
        }}
      >
        <option value="">{say('accessPlan:addException')}</option>
        {CASES.map((each) => (
          <option key={each} value={each}>
            {say(`accessPlan:case.${each}`)}
          </option>
        ))}
      </select>
      {exceptions.length > 1 ? (
        <span className="ml-3 text-[13px] text-soft">{say('accessPlan:firstException')}</span>
      ) : null}
    </>
  );
}

interface ExceptionProps {
  readonly exception: RuleException;
  readonly place: number;
  readonly plan: Plan;
  readonly scope: Scope;
  readonly set: (next: RuleException) => void;
  readonly remove: () => void;
}

function Exception({ exception, place, plan, scope, set, remove }: ExceptionProps) {
  const { level, activities, stages, when } = exception;
  const without = (which: 'activities' | 'stages' | 'when'): void => {
    const { [which]: _, ...rest } = exception;
    set(rest);
  };
  return (
    <div className="grid grid-cols-[7rem_1fr] items-start gap-x-3 gap-y-2">
      <span className="pt-1.5 text-soft">{say('accessPlan:exceptionThen')}</span>
      <span className="flex flex-wrap items-center gap-3">
        <select
          className="input w-auto"
          aria-label={say('accessPlan:exceptionLevel', { number: place })}
          value={level}
          onChange={(event) => set({ ...exception, level: event.target.value as RuleException['level'] })}
        >
          {LEVELS.map((each) => (
            <option key={each} value={each}>
              {say(`accessPlan:level.${each}`)}
            </option>
          ))}
        </select>
        <button type="button" className="ml-auto text-green underline" onClick={remove}>
          {say('accessPlan:removeException', { number: place })}
        </button>
      </span>
      {stages ? (
        <Part label={say('accessPlan:atStages')} remove={() => without('stages')}>
          <Boxes
            all={plan.stages.map(({ key, label }) => ({ key, label }))}
            chosen={stages}
            toggle={(key) => set({ ...exception, stages: toggled(stages, key) })}
          />
        </Part>
      ) : null}
      {activities ? (
        <Part label={say('accessPlan:inActivities')} remove={() => without('activities')}>
          <Boxes
            all={ACTIVITIES.map((key) => ({ key, label: say(`accessPlan:activity.${key}`) }))}
            chosen={activities}
            toggle={(key) =>
              set({ ...exception, activities: ACTIVITIES.filter((each) => toggled(activities, key).includes(each)) })
            }
          />
        </Part>
      ) : null}
      {when === undefined ? null : (
        <Part label={say('accessPlan:onCondition')} remove={() => without('when')}>
          {graceOf(when) === null ? (
            <ConditionBuilder condition={when} scope={scope} set={(next) => set({ ...exception, when: next })} />
          ) : (
            <label className="flex flex-wrap items-center gap-2">
              {say('accessPlan:graceFirst')}
              <input
                type="number"
                className="input w-24"
                min={1}
                max={99_999}
                value={graceOf(when) ?? 30}
                onChange={(event) =>
                  set({ ...exception, when: graceFor(Math.max(1, Math.round(Number(event.target.value)))) })
                }
              />
              {say('accessPlan:graceMinutes')}
            </label>
          )}
        </Part>
      )}
      <span />
      <span className="flex flex-wrap gap-x-4 text-[13px]">
        {stages ? null : <More label={say('accessPlan:moreStages')} add={() => set({ ...exception, stages: [] })} />}
        {activities ? null : (
          <More label={say('accessPlan:moreActivities')} add={() => set({ ...exception, activities: [] })} />
        )}
        {when === undefined ? (
          <More
            label={say('accessPlan:moreCondition')}
            add={() => set({ ...exception, when: firstCondition(scope) })}
          />
        ) : null}
      </span>
    </div>
  );
}

const More = ({ label, add }: { label: string; add: () => void }) => (
  <button type="button" className="text-green underline" onClick={add}>
    {label}
  </button>
);

function Part({ label, remove, children }: { label: string; remove: () => void; children: React.ReactNode }) {
  return (
    <>
      <span className="pt-1 text-soft">{label}</span>
      <fieldset className="flex items-start gap-3">
        <legend className="sr-only">{label}</legend>
        <span className="min-w-0 flex-1">{children}</span>
        <button
          type="button"
          className="px-1 text-soft hover:text-brick"
          aria-label={say('accessPlan:takeOut', { name: label })}
          onClick={remove}
        >
          ×
        </button>
      </fieldset>
    </>
  );
}
