import type { AnswerOf } from '@tolvek/contract';
import { RANK } from '@tolvek/core/access';
import { useState } from 'react';
import { Trouble } from '../../ui/Trouble.tsx';
import { say, told } from '../../wire/words.ts';
import { workshopApi } from '../endpoints.ts';

type Told = AnswerOf<'accessPlanEffect'>;
type Level = Told['yours'][number]['after'];

/** What becomes of a level, as part of a sentence: read, no longer read, change, no longer change. */
function becomes({ before, after }: { readonly before: Level; readonly after: Level }) {
  if (RANK[after] > RANK[before]) return after === 'write' ? 'nowWrite' : 'nowRead';
  return after === 'hidden' ? 'noMoreRead' : 'noMoreWrite';
}

/** What becomes of fields, those together of which the same becomes for the same people on as many requests. */
function alike(fields: Told['fields']): readonly (Omit<Told['fields'][number], 'label'> & { labels: string[] })[] {
  const found = new Map<string, Omit<Told['fields'][number], 'label'> & { labels: string[] }>();
  for (const { label, ...each } of fields) {
    const { field: _, ...rest } = each;
    const key = JSON.stringify(rest);
    const known = found.get(key);
    if (known) known.labels.push(label);
    else found.set(key, { ...each, labels: [label] });
  }
  return [...found.values()];
}

/** What putting a plan in force would change, and for whom: said before it takes hold. */
export function Effect({ register }: { register: string }) {
  const { data, isFetching, error } = workshopApi.useAccessPlanEffectQuery({ key: register });
  const [open, setOpen] = useState(false);
  if (error) return <Trouble error={error} />;
  if (!data) return <p className="text-soft">{say('accessPlan:looking')}</p>;
  const { fields, asking, people, more, yours, opens, closes, mayNotOpen } = data;
  return (
    <div className={isFetching ? 'cursor-progress' : ''} aria-busy={isFetching} aria-live="polite">
      {fields.length === 0 && asking.length === 0 ? <p>{say('accessPlan:nothingForNow')}</p> : null}
      <ul>
        {alike(fields).map((each) => {
          const how = becomes(each);
          return (
            <li
              key={`${each.activity} ${each.field} ${each.before} ${each.after}`}
              className={`my-1.5 border-l-[3px] pl-2.5 ${RANK[each.after] > RANK[each.before] ? 'border-green' : 'border-brick'}`}
            >
              {say(`accessPlan:effect.${how}`, { count: each.people, fields: each.labels, requests: each.requests })}{' '}
              {each.activity === 'working' ? null : `${say(`accessPlan:only.${each.activity}`)} `}
              <span className="text-soft">
                {say(each.names.length < each.people ? 'accessPlan:effectNames' : 'accessPlan:effectAll', {
                  names: each.names,
                })}
              </span>
            </li>
          );
        })}
      </ul>
      {asking.length > 0 ? (
        <ul>
          {asking.map((each) => (
            <li
              key={`${each.field} ${each.before} ${each.after}`}
              className={`my-1.5 border-l-[3px] pl-2.5 ${RANK[each.after] > RANK[each.before] ? 'border-green' : 'border-brick'}`}
            >
              {say(`accessPlan:asks.${each.after}`, {
                field: each.label,
                whom: [
                  ...(each.people > 0 ? [say('accessPlan:asksStaff', { count: each.people })] : []),
                  ...(each.outside ? [say('accessPlan:asksOutside')] : []),
                ],
              })}{' '}
              {each.people > 0 ? (
                <span className="text-soft">
                  {say(each.names.length < each.people ? 'accessPlan:effectNames' : 'accessPlan:effectAll', {
                    names: each.names,
                  })}
                </span>
              ) : null}
            </li>
          ))}
        </ul>
      ) : null}
      {yours.map((each) => (
        <p key={each.field} className="my-1.5">
          {say(`accessPlan:you.${becomes(each)}`, { field: each.label })}
        </p>
      ))}
      {opens.map((each) => (
        <p key={each.form + told(each.message)} className="my-1.5 text-brick">
          {say('accessPlan:opens', { title: each.title, what: told(each.message) })}
          {each.way.length > 1 ? (
            <span className="block text-[13px] text-soft">{each.way.map(told).join(' ')}</span>
          ) : null}
        </p>
      ))}
      {closes.map((each) => (
        <p key={each.form + told(each.message)} className="my-1.5 border-green border-l-[3px] pl-2.5">
          {say('accessPlan:closes', { title: each.title })} <span className="text-soft">{told(each.message)}</span>
        </p>
      ))}
      {mayNotOpen.length > 0 ? (
        <p className="my-1.5 text-brick">{say('accessPlan:mayNotOpen', { fields: mayNotOpen.map(told) })}</p>
      ) : null}
      {people.length > 0 ? (
        <button type="button" className="text-green underline" aria-expanded={open} onClick={() => setOpen(!open)}>
          {say('accessPlan:eachPerson', { count: people.length + more })}
        </button>
      ) : null}
      {open ? (
        <ul className="mt-1 max-h-72 overflow-auto">
          {people.map((person) => (
            <li key={person.id} className="border-b border-rule py-1">
              {person.name} <span className="text-soft">{person.email}</span>
              <ul className="pl-4 text-[13.5px]">
                {person.fields.map((each) => (
                  <li key={`${each.activity} ${each.field} ${each.before} ${each.after}`}>
                    {say('accessPlan:personChange', {
                      field: each.label,
                      before: say(`accessPlan:cell.${each.before}`),
                      after: say(`accessPlan:cell.${each.after}`),
                      count: each.requests,
                    })}{' '}
                    {each.activity === 'working' ? null : say(`accessPlan:only.${each.activity}`)}
                  </li>
                ))}
              </ul>
            </li>
          ))}
          {more > 0 ? <li className="py-1 text-soft">{say('accessPlan:morePeople', { count: more })}</li> : null}
        </ul>
      ) : null}
    </div>
  );
}
