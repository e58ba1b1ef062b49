import { type AccessLevel, type OutsideLevels, outsideOf, type PlanRules, USUAL_BASE } from '@tolvek/core/access';
import { useId } from 'react';
import { say } from '../../wire/words.ts';
import type { Keeping } from '../useEditing.ts';
import { withBase } from './planEdits.ts';

const PARTS = ['answers', 'made', 'staffOnly'] as const;

interface BaseProps {
  readonly plan: PlanRules;
  readonly change: Keeping<PlanRules>['change'];
}

/** What holds of fields where no rule says otherwise: for the desk, for whoever asked, and for who is called in. */
export function Base({ plan, change }: BaseProps) {
  const id = useId();
  const { base = USUAL_BASE } = plan;
  const { desk, requester } = base;
  const outside = outsideOf(base);
  return (
    <>
      <h2 className="section-head mt-8">{say('accessPlan:base')}</h2>
      <p className="mt-2 flex flex-wrap items-center gap-x-2 gap-y-1">
        <label htmlFor={`${id}-desk`}>{say('accessPlan:base.desk')}</label>
        <select
          id={`${id}-desk`}
          className="input w-auto"
          value={desk}
          onChange={(event) => change(withBase({ ...base, desk: event.target.value as AccessLevel }))}
        >
          {(['write', 'read', 'hidden'] as const).map((level) => (
            <option key={level} value={level}>
              {say(`accessPlan:baseLevel.${level}`)}
            </option>
          ))}
        </select>
      </p>
      <fieldset className="mt-2">
        <legend className="float-left mr-3">{say('accessPlan:base.requester')}</legend>
        <span className="flex flex-wrap gap-x-5 gap-y-1">
          {PARTS.map((part) => (
            <label key={part} className="flex min-h-6 items-center gap-2">
              <input
                type="checkbox"
                className="accent-green"
                checked={requester[part] === 'read'}
                onChange={(event) =>
                  change(
                    withBase({
                      ...base,
                      requester: { ...requester, [part]: event.target.checked ? 'read' : 'hidden' },
                    }),
                  )
                }
              />
              {say(`accessPlan:base.${part}`)}
            </label>
          ))}
        </span>
      </fieldset>
      <fieldset className="mt-3">
        <legend>{say('accessPlan:base.outside')}</legend>
        <span className="mt-1 flex flex-wrap gap-x-5 gap-y-1">
          {PARTS.map((part) => (
            <span key={part} className="flex items-center gap-2">
              <label htmlFor={`${id}-outside-${part}`}>{say(`accessPlan:base.outside.${part}`)}</label>
              <select
                id={`${id}-outside-${part}`}
                className="input w-auto"
                value={outside[part]}
                onChange={(event) =>
                  change(withBase({ ...base, outside: { ...outside, [part]: event.target.value } as OutsideLevels }))
                }
              >
                {(part === 'made' ? (['read', 'hidden'] as const) : (['write', 'read', 'hidden'] as const)).map(
                  (level) => (
                    <option key={level} value={level}>
                      {say(`accessPlan:outsideLevel.${level}`)}
                    </option>
                  ),
                )}
              </select>
            </span>
          ))}
        </span>
        <p className="mt-1 text-[13px] text-soft">{say('accessPlan:base.outsideHint')}</p>
      </fieldset>
    </>
  );
}
