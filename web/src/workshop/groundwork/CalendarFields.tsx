import { useState } from 'react';
import { DayField } from '../../fields/DateInput.tsx';
import { Button } from '../../ui/Button.tsx';
import { TextLine } from '../../ui/TextLine.tsx';
import { ZoneLine } from '../../ui/ZoneLine.tsx';
import { problemOf } from '../../wire/problem.ts';
import { say, told } from '../../wire/words.ts';
import {
  type CalendarDraft,
  type Day,
  minutesOf,
  nextStretch,
  type SpecialDay,
  WEEKDAYS,
  withDay,
  withDays,
} from './calendarDraft.ts';
import { InOut } from './InOut.tsx';
import { PublicHolidays } from './PublicHolidays.tsx';
import { YearOfDays } from './YearOfDays.tsx';

interface FieldsProps {
  readonly calendar: CalendarDraft;
  readonly set: (change: Partial<CalendarDraft>) => void;
  readonly error: unknown;
  readonly today: string;
}

/** All that is set of a working calendar: its name and zone, the hours of a week, and days unlike others. */
export function CalendarFields({ calendar, set, error, today }: FieldsProps) {
  return (
    <>
      <div className="grid items-start gap-x-8 sm:grid-cols-2">
        <TextLine
          id="calendar-name"
          label={say('ground:set.name')}
          error={error}
          field="name"
          value={calendar.name}
          change={(typed) => set({ name: typed })}
        />
        <ZoneLine
          id="calendar-zone"
          label={say('settings:theZone')}
          error={error}
          field="zone"
          value={calendar.zone}
          choose={(zone) => set({ zone })}
        />
      </div>
      <h2 className="section-head mt-7">{say('ground:weekHours')}</h2>
      <WeekHours calendar={calendar} set={set} error={error} />
      <InOut {...{ calendar, set, today }} />
      <h2 className="section-head mt-7">{say('ground:specialDays')}</h2>
      <p className="mt-1.5 text-soft">{say('ground:specialDaysHint')}</p>
      <YearOfDays calendar={calendar} today={today} />
      <SpecialDays calendar={calendar} set={set} error={error} today={today} />
    </>
  );
}

const problemsAt = (error: unknown, field: string): string =>
  (error === undefined ? [] : (problemOf(error).problems ?? []))
    .filter((each) => each.field === field)
    .map((each) => `${told(each.message)} ${told(each.fix)}`)
    .join(' ');

/** The hours of a week: each day with its stretches, drawn and to be typed. */
function WeekHours({ calendar, set, error }: Omit<FieldsProps, 'today'>) {
  const { week } = calendar;
  const put = (place: number, day: Day): void => set({ week: withDay(week, place, day) });
  return (
    <div>
      {WEEKDAYS.map((weekday, place) => {
        const day = week[place] ?? [];
        const wrong = problemsAt(error, `week ${place}`);
        return (
          <div
            key={weekday}
            className="grid grid-cols-[104px_minmax(0,1fr)_170px] items-center gap-x-4 border-b border-rule py-1.5"
          >
            <span className={day.length === 0 ? 'text-soft' : ''}>{say(`calendars:${weekday}`)}</span>
            <span className="flex flex-wrap items-center gap-x-3 gap-y-1">
              <Stretches day={day} name={say(`calendars:${weekday}`)} put={(next) => put(place, next)} wrong={wrong} />
              {place > 0 && JSON.stringify(day) !== JSON.stringify(week[place - 1]) ? (
                <LinkButton onClick={() => put(place, week[place - 1] ?? [])}>
                  {say('ground:asDayBefore', { day: say(`calendars:${WEEKDAYS[place - 1] ?? 'monday'}`) })}
                </LinkButton>
              ) : null}
            </span>
            <DayBar day={day} />
          </div>
        );
      })}
      {problemsAt(error, 'week') ? (
        <p role="alert" className="mt-1 text-brick">
          {problemsAt(error, 'week')}
        </p>
      ) : null}
    </div>
  );
}

const LinkButton = ({ onClick, children }: { onClick: () => void; children: React.ReactNode }) => (
  <button type="button" className="text-[13px] text-green underline underline-offset-[3px]" onClick={onClick}>
    {children}
  </button>
);

/** A day of 24 hours as a bar: what is open is filled. */
function DayBar({ day }: { day: Day }) {
  return (
    <span aria-hidden className="relative block h-3.5 border border-rule-strong bg-well">
      <span className="absolute inset-y-0 left-1/2 w-px bg-rule-strong" />
      {day.map(([from, to]) => {
        const [start, end] = [minutesOf(from), minutesOf(to)];
        return Number.isNaN(start) || Number.isNaN(end) || end <= start ? null : (
          <span
            key={`${from} ${to}`}
            className="absolute inset-y-0 bg-green"
            style={{ left: `${(start / 1_440) * 100}%`, width: `${((end - start) / 1_440) * 100}%` }}
          />
        );
      })}
    </span>
  );
}

interface StretchesProps {
  readonly day: Day;
  /** What the day is called. */
  readonly name: string;
  readonly put: (day: Day) => void;
  readonly wrong: string;
}

/** The stretches of a day, each from one clock time to another. */
function Stretches({ day, name, put, wrong }: StretchesProps) {
  const clock = (place: number, side: 0 | 1): React.ReactNode => (
    <input
      className="input w-[4.6rem] px-2 py-1 text-center tabular-nums"
      aria-label={say(side === 0 ? 'ground:opensAt' : 'ground:closesAt', { day: name, n: place + 1 })}
      aria-invalid={wrong !== ''}
      inputMode="numeric"
      value={day[place]?.[side] ?? ''}
      onChange={(event) =>
        put(
          day.map((each, at) =>
            at !== place ? each : side === 0 ? [event.target.value, each[1]] : [each[0], event.target.value],
          ),
        )
      }
    />
  );
  return (
    <>
      {day.map((_, place) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: a stretch is known by its place.
        <span key={place} className="flex items-center gap-1">
          {clock(place, 0)}–{clock(place, 1)}
          <button
            type="button"
            className="size-[24px] text-soft hover:text-brick"
            aria-label={say('ground:removeHours', { day: name, n: place + 1 })}
            onClick={() => put(day.filter((_each, at) => at !== place))}
          >
            ×
          </button>
        </span>
      ))}
      {day.length === 0 ? <span className="text-soft">{say('ground:closed')}</span> : null}
      <LinkButton onClick={() => put([...day, nextStretch(day)])}>{say('ground:addHours')}</LinkButton>
      {wrong ? (
        <span role="alert" className="basis-full text-brick">
          {wrong}
        </span>
      ) : null}
    </>
  );
}

/** Days ahead that are shown until all are asked for. */
const NEXT_DAYS = 8;

/** Days unlike others: one by one, or all public holidays of a country. */
function SpecialDays({ calendar, set, error, today }: FieldsProps) {
  const { holidays } = calendar;
  const [typed, setTyped] = useState({ date: '', name: '' });
  const [all, setAll] = useState(false);
  const coming = holidays.filter(({ date }) => date >= today);
  const shown = all ? holidays : coming.slice(0, NEXT_DAYS);
  const put = (date: string, change: Partial<SpecialDay>): void =>
    set({ holidays: holidays.map((day) => (day.date === date ? { ...day, ...change } : day)) });
  const add = (): void => {
    set({ holidays: [...withDays(holidays, [{ date: typed.date, name: typed.name.trim() }])] });
    setTyped({ date: '', name: '' });
  };
  return (
    <>
      <div className="mt-3 flex flex-wrap items-end gap-3">
        <span>
          <label htmlFor="special-day" className="block text-[13px] text-soft">
            {say('ground:newDay')}
          </label>
          <DayField
            id="special-day"
            value={typed.date}
            today={today}
            notBefore={null}
            withTime={false}
            onChange={(date) => setTyped((now) => ({ ...now, date }))}
          />
        </span>
        <span>
          <label htmlFor="special-name" className="block text-[13px] text-soft">
            {say('ground:newDayName')}
          </label>
          <input
            id="special-name"
            className="input"
            value={typed.name}
            onChange={({ target: { value } }) => setTyped((now) => ({ ...now, name: value }))}
          />
        </span>
        <Button
          disabled={!/^\d{4}-\d\d-\d\d$/.test(typed.date) || holidays.some(({ date }) => date === typed.date)}
          onClick={add}
        >
          {say('ground:addDay')}
        </Button>
      </div>
      <PublicHolidays
        year={Number(today.slice(0, 4)) || 2026}
        add={(days) => set({ holidays: [...withDays(holidays, days)] })}
      />
      <ul className="mt-3">
        {shown.map((day) => {
          const wrong = problemsAt(error, `holidays ${day.date}`);
          return (
            <li
              key={day.date}
              className="grid grid-cols-[180px_minmax(8rem,14rem)_1fr_auto] items-center gap-x-4 border-b border-rule py-1.5"
            >
              <span>{say('ground:longDay', { day: day.date })}</span>
              <input
                className="input px-2 py-1"
                aria-label={say('ground:nameOfDay', { day: day.date })}
                value={day.name}
                onChange={(event) => put(day.date, { name: event.target.value })}
              />
              <span className="flex flex-wrap items-center gap-x-3 gap-y-1">
                <Stretches
                  day={day.hours ?? []}
                  name={day.name}
                  put={(hours) => put(day.date, { hours })}
                  wrong={wrong}
                />
              </span>
              <LinkButton onClick={() => set({ holidays: holidays.filter(({ date }) => date !== day.date) })}>
                {say('ground:remove')}
              </LinkButton>
            </li>
          );
        })}
        {shown.length === 0 ? <li className="py-1.5 text-soft">{say('ground:noSpecialDays')}</li> : null}
      </ul>
      {all || shown.length < holidays.length ? (
        <p className="mt-1.5">
          <LinkButton onClick={() => setAll(!all)}>
            {all ? say('ground:showNextDays') : say('ground:showAllDays', { count: holidays.length })}
          </LinkButton>
        </p>
      ) : null}
    </>
  );
}
