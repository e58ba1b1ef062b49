import { isFilled } from '@tolvek/core/register';
import { WISHES } from '@tolvek/core/routing';
import { say, told } from '../../wire/words.ts';
import { useBinder } from '../binder.ts';
import { FindingLine } from '../Findings.tsx';
import { wishedIn } from './rowEdits.ts';

/** In which answers whoever asks says how urgent it is for them, and until when they want it. */
export function Wishes() {
  const { editing, form, keeping } = useBinder();
  const { draft, change } = editing;
  const { wishes = {} } = draft.routing;
  const asked = draft.fields.filter(isFilled);
  return (
    <section id="at-wishes" className="mt-6 max-w-[46rem]">
      <h2 className="section-head">{say('workshop:wishes')}</h2>
      <p className="mt-2 text-soft">{say('workshop:wishesHint')}</p>
      {WISHES.map((wish) => {
        const field = wishes[wish];
        return (
          <p key={wish} className="mt-2 flex flex-wrap items-baseline gap-2">
            <label htmlFor={`wish-${wish}`} className="w-64">
              {say(`workshop:wish.${wish}`)}
            </label>
            <select
              id={`wish-${wish}`}
              className="input w-auto py-1"
              value={field ?? ''}
              onChange={({ target }) =>
                change((before) => ({ ...before, routing: wishedIn(before.routing, wish, target.value || null) }))
              }
            >
              <option value="">{say('workshop:notAsked')}</option>
              {field === undefined || asked.some(({ key }) => key === field) ? null : (
                <option value={field}>{say('workshop:fieldGone')}</option>
              )}
              {asked.map(({ key, label }) => (
                <option key={key} value={key}>
                  {label}
                </option>
              ))}
            </select>
          </p>
        );
      })}
      {keeping.findings
        .filter(({ at, page }) => page === 'routing' && at === 'wishes')
        .map((finding) => (
          <FindingLine key={told(finding.message)} finding={finding} formKey={form.key} change={change} />
        ))}
    </section>
  );
}
