import { wallClockAt } from '@tolvek/core/deadline';
import { momentOf } from '@tolvek/core/roster';
import { useState } from 'react';
import { toast } from 'sonner';
import { DayField } from '../../fields/DateInput.tsx';
import { Button } from '../../ui/Button.tsx';
import { ProblemsAt } from '../../ui/ProblemsAt.tsx';
import { WholeTrouble } from '../../ui/Trouble.tsx';
import { say } from '../../wire/words.ts';
import { floorApi } from '../endpoints.ts';
import { type Duty, fromTo } from './duty.ts';

/** Duties that are listed until all are asked for. */
const FIRST = 6;

/** One’s own duties ahead; each can be offered to somebody else. */
export function MyDuties({ duty }: { duty: Duty }) {
  const [all, setAll] = useState(false);
  const [handing, setHanding] = useState<string | null>(null);
  const [withdraw] = floorApi.useAnswerOfferMutation();
  const { mine, rosters, offering } = duty;
  if (mine.length === 0) return <p className="mt-2 text-soft">{say('rosters:mineNone')}</p>;
  const shown = all ? mine : mine.slice(0, FIRST);
  return (
    <>
      <ul className="mt-1">
        {shown.map((each) => {
          const key = `${each.roster} ${each.from}`;
          const roster = rosters.find((one) => one.key === each.roster);
          const offers = offering.filter(
            (one) => one.roster === each.roster && one.from < each.to && one.to > each.from,
          );
          return (
            <li key={key} className="border-b border-rule py-2">
              <div className="flex flex-wrap items-baseline gap-x-5 gap-y-1">
                <span className="min-w-64 tabular-nums">{fromTo(each, roster?.zone ?? 'UTC')}</span>
                <span className="min-w-0 basis-full text-soft sm:flex-1 sm:basis-auto">{roster?.name}</span>
                {offers.length === 0 && roster && roster.others.length > 0 ? (
                  <button
                    type="button"
                    className="text-[13.5px] text-green underline"
                    aria-expanded={handing === key}
                    onClick={() => setHanding(handing === key ? null : key)}
                  >
                    {say('rosters:offer')}
                  </button>
                ) : null}
              </div>
              {offers.map((offer) => (
                <p key={offer.id} className="mt-1 flex flex-wrap items-baseline gap-x-4 text-[13.5px] text-brass">
                  {offer.person === null
                    ? say('rosters:offeredToAll', { when: fromTo(offer, roster?.zone ?? 'UTC') })
                    : say('rosters:offeredTo', { person: offer.person, when: fromTo(offer, roster?.zone ?? 'UTC') })}
                  <button
                    type="button"
                    className="text-green underline"
                    onClick={() => void withdraw({ id: offer.id, body: { answer: 'withdraw' } })}
                  >
                    {say('rosters:withdraw')}
                  </button>
                </p>
              ))}
              {handing === key && roster ? (
                <Handing each={each} roster={roster} now={duty.now} done={() => setHanding(null)} />
              ) : null}
            </li>
          );
        })}
      </ul>
      {mine.length > shown.length ? (
        <button type="button" className="mt-2 text-[13.5px] text-green underline" onClick={() => setAll(true)}>
          {say('rosters:allMine', { count: mine.length })}
        </button>
      ) : null}
    </>
  );
}

interface HandingProps {
  readonly each: Duty['mine'][number];
  readonly roster: Duty['rosters'][number];
  readonly now: string;
  readonly done: () => void;
}

/** Offers a duty, or a part of it, to somebody of the roster or to whoever takes it. */
function Handing({ each, roster, now, done }: HandingProps) {
  const { zone, others } = roster;
  const clock = (at: string): string => wallClockAt(Date.parse(at), zone);
  const [typed, setTyped] = useState({ from: clock(each.from), to: clock(each.to), person: '', note: '' });
  const set = (edit: Partial<typeof typed>): void => setTyped((before) => ({ ...before, ...edit }));
  const [once] = useState(() => crypto.randomUUID());
  const [offer, { isLoading, error }] = floorApi.useOfferDutyMutation();
  const isMoment = (text: string): boolean => /T\d\d:\d\d$/.test(text);
  // What was not changed is sent to the second, as the duty itself begins and ends.
  const moment = (part: 'from' | 'to'): string =>
    typed[part] === clock(each[part]) ? each[part] : new Date(momentOf(typed[part], zone)).toISOString();
  const send = async (event: React.FormEvent): Promise<void> => {
    event.preventDefault();
    const sent = await offer({
      once,
      body: {
        ...{ roster: roster.key, from: moment('from'), to: moment('to'), note: typed.note },
        person: typed.person === '' ? null : typed.person,
      },
    });
    if ('error' in sent) return;
    toast(say('rosters:offerSent'));
    done();
  };
  return (
    <form onSubmit={send} noValidate className="mt-2 border-l-[3px] border-green bg-sheet px-3 py-2.5">
      <div className="flex flex-wrap items-end gap-3">
        <span>
          <label htmlFor="offer-person" className="block text-[13px] text-soft">
            {say('rosters:offerWhom')}
          </label>
          <select
            id="offer-person"
            className="input w-auto"
            value={typed.person}
            onChange={({ target }) => set({ person: target.value })}
          >
            <option value="">{say('rosters:whoever')}</option>
            {others.map(({ id, name, away }) => (
              <option key={id} value={id}>
                {away ? say('rosters:awayToday', { name }) : name}
              </option>
            ))}
          </select>
          <ProblemsAt error={error} field="person" />
        </span>
        {(['from', 'to'] as const).map((part) => (
          <span key={part} className="min-w-72">
            <label htmlFor={`offer-${part}`} className="block text-[13px] text-soft">
              {say(part === 'from' ? 'rosters:swapFrom' : 'rosters:swapUntil')}
            </label>
            <DayField
              id={`offer-${part}`}
              value={typed[part]}
              today={clock(now)}
              notBefore={null}
              withTime
              onChange={(value) => set({ [part]: value })}
            />
            <ProblemsAt error={error} field={part} />
          </span>
        ))}
        <span className="min-w-44 flex-1">
          <label htmlFor="offer-note" className="block text-[13px] text-soft">
            {say('rosters:swapNote')}
          </label>
          <input
            id="offer-note"
            className="input"
            value={typed.note}
            onChange={({ target }) => set({ note: target.value })}
          />
        </span>
        <Button look="main" type="submit" disabled={isLoading || !isMoment(typed.from) || !isMoment(typed.to)}>
          {say('rosters:offerSend')}
        </Button>
      </div>
      <p className="mt-1.5 text-[13px] text-soft">{say('rosters:offerHint')}</p>
      <WholeTrouble error={error} className="mt-2" />
    </form>
  );
}
