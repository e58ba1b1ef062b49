import type { PlanRules, RequestReader } from '@tolvek/core/access';
import { useId } from 'react';
import { ConditionBuilder } from '../../conditions/ConditionBuilder.tsx';
import { firstCondition } from '../../conditions/firstCondition.ts';
import { Button } from '../../ui/Button.tsx';
import { ProblemsAt } from '../../ui/ProblemsAt.tsx';
import { say } from '../../wire/words.ts';
import { workshopApi } from '../endpoints.ts';
import type { Keeping } from '../useEditing.ts';
import { Chosen } from './Chosen.tsx';
import { Meets } from './Meets.tsx';
import { meaning, toggled, withReaders, wordsMeant } from './planEdits.ts';
import { profileScopeOf, readerScopeOf } from './ruleWords.ts';
import type { Plan } from './usePlan.ts';

interface ReadersProps {
  readonly plan: Plan;
  readonly readers: readonly RequestReader[];
  readonly change: Keeping<PlanRules>['change'];
}

/** Who reads whole requests by what stands in them, besides those who work on them. */
export function Readers({ plan, readers, change }: ReadersProps) {
  const { data: ground } = workshopApi.useGroundQuery();
  const scope = readerScopeOf(plan, ground);
  const add = (): void => {
    const id = `reader-${crypto.randomUUID().slice(0, 8)}`;
    const audience = { in: { anyOf: [] }, outOf: [] };
    change(withReaders((before) => [...before, { id, name: '', audience, when: firstCondition(scope) }]));
  };
  return (
    <section aria-labelledby="readers" className="mt-8">
      <h2 id="readers" className="section-head">
        {say('accessPlan:readers')}
      </h2>
      <p className="mt-1 text-soft">{say('accessPlan:readersHint')}</p>
      {readers.length === 0 ? <p className="mt-1">{say('accessPlan:noReaders')}</p> : null}
      <ul>
        {readers.map((reader) => (
          <li key={reader.id} className="border-b border-rule py-3">
            <One
              {...{ reader, plan, ground, scope }}
              set={(next) =>
                change(withReaders((before) => before.map((each) => (each.id === reader.id ? next(each) : each))))
              }
              remove={() => change(withReaders((before) => before.filter(({ id }) => id !== reader.id)))}
            />
          </li>
        ))}
      </ul>
      <p className="mt-2">
        <Button onClick={add}>{say('accessPlan:newReader')}</Button>
      </p>
    </section>
  );
}

interface OneProps {
  readonly reader: RequestReader;
  readonly plan: Plan;
  readonly ground: Parameters<typeof profileScopeOf>[0];
  readonly scope: ReturnType<typeof readerScopeOf>;
  readonly set: (next: (reader: RequestReader) => RequestReader) => void;
  readonly remove: () => void;
}

function One({ reader, plan, ground, scope, set, remove }: OneProps) {
  const id = useId();
  const found = { status: 422, data: { title: '', problems: plan.problems } };
  const profile = profileScopeOf(ground);
  const at = (field: string): string => `readers ${reader.id} ${field}`;
  return (
    <div className="grid grid-cols-[9rem_1fr] items-start gap-x-4 gap-y-2">
      <label htmlFor={`${id}-name`} className="pt-1.5 text-soft">
        {say('accessPlan:readerName')}
      </label>
      <span>
        <span className="flex gap-4">
          <input
            id={`${id}-name`}
            className="input"
            maxLength={200}
            value={reader.name}
            onChange={(event) => {
              const name = event.target.value;
              set((before) => ({ ...before, name }));
            }}
          />
          <button
            type="button"
            className="text-green underline"
            aria-label={say('accessPlan:removeReaderOf', { name: reader.name || say('accessPlan:unnamed') })}
            onClick={remove}
          >
            {say('accessPlan:removeReader')}
          </button>
        </span>
        <ProblemsAt error={found} field={at('name')} />
      </span>
      <span className="pt-1.5 text-soft">{say('accessPlan:readerWho')}</span>
      <fieldset>
        <legend className="sr-only">{say('accessPlan:readerWho')}</legend>
        <Chosen
          id={`${id}-who`}
          groups={ground?.groups ?? []}
          people={plan.people}
          {...(profile ? { profile } : {})}
          byRequest={false}
          chosen={wordsMeant(reader.audience)}
          label={say('accessPlan:readerAdd')}
          toggle={(key) =>
            set((before) => ({
              ...before,
              audience: meaning(before.audience, 'anyOf', toggled(wordsMeant(before.audience), key)),
            }))
          }
        />
        <ProblemsAt error={found} field={at('audience')} />
        <Meets told={plan.told[reader.id]} />
      </fieldset>
      <span className="pt-1.5 text-soft">{say('accessPlan:readerWhen')}</span>
      <fieldset>
        <legend className="sr-only">{say('accessPlan:readerWhen')}</legend>
        <ConditionBuilder
          condition={reader.when}
          scope={scope}
          set={(when) => set((before) => ({ ...before, when }))}
        />
        <p className="mt-1 text-[13px] text-soft">
          {say('accessPlan:readerReaches', { count: plan.reached[reader.id] ?? 0 })}
        </p>
        <ProblemsAt error={found} field={at('when')} />
      </fieldset>
    </div>
  );
}
