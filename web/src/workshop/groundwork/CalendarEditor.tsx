import type { AnswerOf } from '@tolvek/contract';
import { useState } from 'react';
import { Link } from 'react-router';
import { toast } from 'sonner';
import { Button } from '../../ui/Button.tsx';
import { WholeTrouble } from '../../ui/Trouble.tsx';
import { say, told } from '../../wire/words.ts';
import { CalendarFields } from './CalendarFields.tsx';
import type { CalendarDraft } from './calendarDraft.ts';
import { DeleteGround } from './DeleteGround.tsx';
import { groundApi } from './endpoints.ts';
import { RetiredBox } from './RetiredBox.tsx';
import { States } from './States.tsx';

type Opened = AnswerOf<'calendar'>;

const draftOf = ({ key: _, ...calendar }: Opened['calendar']): CalendarDraft => calendar;

/**
 * A working calendar that is in force: a change is looked at first, with what it would move, and then
 * put in force in one step; an earlier state comes back the same way.
 */
export function CalendarEditor({ opened, today }: { opened: Opened; today: string }) {
  const was = draftOf(opened.calendar);
  const [calendar, setCalendar] = useState(was);
  const [note, setNote] = useState('');
  const [hold, setHold] = useState(false);
  const [look, tried] = groundApi.useLazyTryCalendarQuery();
  const [put, { isLoading, error }] = groundApi.useChangeCalendarMutation();
  const [lookedAt, setLookedAt] = useState<CalendarDraft | null>(null);
  const isChanged = JSON.stringify(calendar) !== JSON.stringify(was);
  const body = { calendar };
  const see = async (): Promise<void> => {
    setLookedAt(calendar);
    await look({ key: opened.key, body });
  };
  const save = async (): Promise<void> => {
    const saved = await put({ key: opened.key, version: opened.version, body: { ...body, note, hold } });
    if ('data' in saved && saved.data) toast(say('ground:calendarSaved', { count: saved.data.moved }));
  };
  const isSeen = lookedAt === calendar && tried.data !== undefined && !tried.isFetching;
  const wrong = error ?? (lookedAt === calendar ? tried.error : undefined);
  return (
    <div className="max-w-[58rem]">
      <p className="mt-3 text-soft">
        {opened.countedBy.length > 0
          ? say('ground:formsCount', { forms: opened.countedBy })
          : say('ground:noFormCounts')}
      </p>
      <CalendarFields
        {...{ calendar, error: wrong, today }}
        set={(change) => setCalendar((before) => ({ ...before, ...change }))}
      />
      <p className="mt-4">
        <RetiredBox label={say('ground:calendarRetired')} draft={calendar} change={setCalendar} error={wrong} />
      </p>
      <p className="mt-2">
        <DeleteGround at={{ kind: 'calendar', key: opened.key }} then="/workshop/groundwork/calendars" />
      </p>
      <WholeTrouble error={wrong} className="mt-4" />
      {isChanged ? (
        <section
          aria-label={say('ground:notInForce')}
          className="sticky bottom-0 mt-6 border border-rule-strong bg-sheet px-4 py-3 shadow-lg"
        >
          <p className="font-semibold">{say('ground:notInForce')}</p>
          {isSeen ? (
            <Effects effects={tried.data} hold={hold} setHold={setHold} />
          ) : (
            <p className="text-soft">{say('ground:lookFirst')}</p>
          )}
          <div className="mt-3 flex flex-wrap items-center gap-2">
            {isSeen ? (
              <>
                <input
                  aria-label={say('ground:why')}
                  placeholder={say('ground:why')}
                  className="input min-w-56 flex-1"
                  value={note}
                  onChange={(event) => setNote(event.target.value)}
                />
                <Button look="main" disabled={isLoading} onClick={() => void save()}>
                  {say('ground:putInForce')}
                </Button>
              </>
            ) : (
              <Button look="main" disabled={tried.isFetching} onClick={() => void see()}>
                {tried.isFetching ? say('ground:looking') : say('ground:seeEffect')}
              </Button>
            )}
            <Button onClick={() => setCalendar(was)}>{say('ground:undoChanges')}</Button>
          </div>
        </section>
      ) : null}
      <h2 className="section-head mt-9">{say('ground:whatWasSet')}</h2>
      <States
        states={opened.states}
        back={(state) => setCalendar(draftOf(state.calendar))}
        about={({ number, note }) => `${say('ground:stateNumber', { number })} ${note}`}
        inForce={<span className="text-soft">{say('ground:inForce')}</span>}
      />
    </div>
  );
}

/** What a change would move, before it is done. */
interface EffectsProps {
  readonly effects: AnswerOf<'tryCalendar'> | undefined;
  readonly hold: boolean;
  readonly setHold: (hold: boolean) => void;
}

function Effects({ effects, hold, setHold }: EffectsProps) {
  if (!effects) return null;
  const { moved, late, inTime, rings, requests } = effects;
  if (moved === 0) return <p>{say('ground:movesNothing')}</p>;
  return (
    <>
      <p>
        {say('ground:moves', { count: moved })}
        {late > 0 ? ` ${say('ground:becomeLate', { count: late })}` : ''}
        {inTime > 0 ? ` ${say('ground:noLongerLate', { count: inTime })}` : ''}
      </p>
      {rings > 0 ? (
        <label className="mt-1 flex items-center gap-2">
          <input
            type="checkbox"
            className="accent-green"
            checked={hold}
            onChange={(event) => setHold(event.target.checked)}
          />
          {say('ground:ringAtOnce', { count: rings })}
        </label>
      ) : null}
      <details className="mt-1">
        <summary className="text-soft">{say('ground:whichMove', { count: requests.length })}</summary>
        <ul className="mt-1 max-h-56 overflow-auto">
          {requests.map(({ number, subject, from, to }) => (
            <li key={number} className="border-b border-rule py-1">
              <Link to={`/floor/all/${number}`} className="font-mono text-[12.5px]">
                {number}
              </Link>{' '}
              {told(subject)} <span className="text-soft">{say('ground:dueFromTo', { from, to })}</span>
            </li>
          ))}
        </ul>
      </details>
    </>
  );
}
