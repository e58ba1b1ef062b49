import type { AnswerOf } from '@tolvek/contract';
import { HEARD, type Hearing, waysFor } from '@tolvek/core/notice';
import { useState } from 'react';
import { toast } from 'sonner';
import { Button } from '../ui/Button.tsx';
import { WholeTrouble } from '../ui/Trouble.tsx';
import { say } from '../wire/words.ts';
import { startApi } from './endpoints.ts';

const EVERY_DAY = [1, 2, 3, 4, 5, 6, 7];
const WORKING_DAYS = [1, 2, 3, 4, 5];

/** When one gets which emails: at once, together at a time of one’s own, or not at all. */
export function OwnEmails() {
  const { data } = startApi.useOwnEmailsQuery();
  return (
    <>
      <h2 className="section-head mt-8">{say('hearing:emails')}</h2>
      <p className="mt-1 text-soft">{say('hearing:emailsHint')}</p>
      {data ? <Choices key={JSON.stringify(data)} {...data} /> : null}
    </>
  );
}

function Choices({ hearing, desk }: AnswerOf<'ownEmails'>) {
  const [chosen, setChosen] = useState<Hearing>(hearing);
  const [put, { isLoading, error }] = startApi.useSetOwnEmailsMutation();
  const { ways, digest, quiet } = chosen;
  const open = HEARD.filter((heard) => waysFor(desk[heard]).length > 1);
  const save = async (): Promise<void> => {
    const done = await put({ body: { ...chosen, digest: { ...digest, days: [...digest.days] } } });
    if (!('error' in done)) toast(say('hearing:saved'));
  };
  return (
    <div className="mt-2 max-w-[38rem]">
      {open.map((heard) => (
        <div
          key={heard}
          className="grid grid-cols-[1fr_auto] items-center gap-x-4 gap-y-1 border-b border-rule py-1.5 max-sm:grid-cols-1"
        >
          <label htmlFor={`hears-${heard}`}>{say(`hearing:${heard}`)}</label>
          <select
            id={`hears-${heard}`}
            className="input w-auto"
            value={ways[heard] ?? desk[heard].way}
            onChange={({ target }) => {
              const way = waysFor(desk[heard]).find((each) => each === target.value);
              if (way) setChosen({ ...chosen, ways: { ...ways, [heard]: way } });
            }}
          >
            {waysFor(desk[heard]).map((way) => (
              <option key={way} value={way}>
                {say(`hearing:way.${way}`)}
              </option>
            ))}
          </select>
        </div>
      ))}
      <p className="mt-3 flex flex-wrap items-center gap-2">
        <label htmlFor="digest-at">{say('hearing:digestAt')}</label>
        <input
          id="digest-at"
          type="time"
          className="input w-auto"
          value={digest.at}
          onChange={({ target }) => setChosen({ ...chosen, digest: { ...digest, at: target.value } })}
        />
        <select
          aria-label={say('hearing:digestDays')}
          className="input w-auto"
          value={JSON.stringify(digest.days)}
          onChange={({ target }) =>
            setChosen({ ...chosen, digest: { ...digest, days: JSON.parse(target.value) as number[] } })
          }
        >
          <option value={JSON.stringify(WORKING_DAYS)}>{say('hearing:workingDays')}</option>
          <option value={JSON.stringify(EVERY_DAY)}>{say('hearing:everyDay')}</option>
          {([1, 2, 3, 4, 5, 6, 7] as const).map((day) => (
            <option key={day} value={JSON.stringify([day])}>
              {say('hearing:onDay', { day: say(`hearing:day.${day}`) })}
            </option>
          ))}
        </select>
      </p>
      <p className="mt-3">
        <label className="flex items-center gap-2">
          <input
            type="checkbox"
            checked={quiet !== null}
            onChange={({ target }) =>
              setChosen({ ...chosen, quiet: target.checked ? { from: '19:00', to: '07:00' } : null })
            }
          />
          {say('hearing:quiet')}
        </label>
      </p>
      {quiet ? (
        <p className="mt-2 flex flex-wrap items-center gap-2">
          <label htmlFor="quiet-from">{say('hearing:quietFrom')}</label>
          <input
            id="quiet-from"
            type="time"
            className="input w-auto"
            value={quiet.from}
            onChange={({ target }) => setChosen({ ...chosen, quiet: { ...quiet, from: target.value } })}
          />
          <label htmlFor="quiet-to">{say('hearing:quietTo')}</label>
          <input
            id="quiet-to"
            type="time"
            className="input w-auto"
            value={quiet.to}
            onChange={({ target }) => setChosen({ ...chosen, quiet: { ...quiet, to: target.value } })}
          />
        </p>
      ) : null}
      <WholeTrouble error={error} />
      <p className="mt-3">
        <Button disabled={isLoading || digest.at === ''} onClick={() => void save()}>
          {say('hearing:save')}
        </Button>
      </p>
    </div>
  );
}
