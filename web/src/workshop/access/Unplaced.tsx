import type { PlanRules } from '@tolvek/core/access';
import { Button } from '../../ui/Button.tsx';
import { say } from '../../wire/words.ts';
import type { Keeping } from '../useEditing.ts';
import { place, placeLike, type Recipe } from './planEdits.ts';
import type { Plan } from './usePlan.ts';

interface UnplacedProps {
  readonly plan: Plan;
  readonly add: (recipe: Recipe, fields: readonly string[]) => void;
  readonly change: Keeping<PlanRules>['change'];
}

/** Fields that have no place in the plan yet, each with the ways to give it one. */
export function Unplaced({ plan, add, change }: UnplacedProps) {
  const { unplaced, inForce } = plan;
  if (unplaced.length === 0) return null;
  const stand = inForce.placed ?? [];
  const labelOf = (key: string): string => plan.fields.find((field) => field.key === key)?.label ?? key;
  // What some rule names can be copied.
  const named = plan.fields.filter(
    ({ key }) =>
      !unplaced.includes(key) && plan.draft.rules.some(({ fields }) => fields !== 'all' && fields.includes(key)),
  );
  return (
    <section aria-labelledby="unplaced" className="mt-6">
      <h2 id="unplaced" className="section-head">
        {say('accessPlan:newFields')}
      </h2>
      <p className="mt-1 text-soft">{say('accessPlan:newFieldsHint')}</p>
      <ul className="mt-1">
        {unplaced.map((key) => (
          <li key={key} className="flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-rule py-1.5">
            <span className="min-w-48">{labelOf(key)}</span>
            <button type="button" className="text-green underline" onClick={() => change(place([key], stand))}>
              {say('accessPlan:placeUsual')}
            </button>
            <button type="button" className="text-green underline" onClick={() => add('only-some', [key])}>
              {say('accessPlan:placeOnly')}
            </button>
            {named.length > 0 ? (
              <label className="flex items-center gap-2 text-soft">
                {say('accessPlan:placeLike')}
                <select
                  className="border-green border-b bg-transparent text-green"
                  aria-label={say('accessPlan:placeLikeOf', { field: labelOf(key) })}
                  value=""
                  onChange={(event) => change(placeLike(key, event.target.value, stand))}
                >
                  <option value="" disabled>
                    {say('accessPlan:chooseField')}
                  </option>
                  {named.map((field) => (
                    <option key={field.key} value={field.key}>
                      {field.label}
                    </option>
                  ))}
                </select>
              </label>
            ) : null}
          </li>
        ))}
      </ul>
      {unplaced.length > 1 ? (
        <p className="mt-2">
          <Button onClick={() => change(place(unplaced, stand))}>{say('accessPlan:placeAllUsual')}</Button>
        </p>
      ) : null}
    </section>
  );
}
