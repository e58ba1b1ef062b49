import { useState } from 'react';
import { language, say } from '../../wire/words.ts';
import type { CalendarDraft } from './calendarDraft.ts';

const DAY = 86_400_000;
const dayOf = (at: number): string => new Date(at).toISOString().slice(0, 10);

/** A year as twelve small months: what is open, what is closed, and what is unlike its weekday. */
export function YearOfDays({ calendar, today }: { calendar: CalendarDraft; today: string }) {
  const [year, setYear] = useState(Number(today.slice(0, 4)) || 2026);
  const special = new Map(calendar.holidays.map((day) => [day.date, day]));
  const months = Array.from({ length: 12 }, (_, month) => month);
  const nameOf = new Intl.DateTimeFormat(language(), { month: 'short', timeZone: 'UTC' });
  return (
    <div className="mt-3">
      <p className="flex items-baseline gap-3">
        <button
          type="button"
          className="size-[24px]"
          aria-label={say('ground:yearBefore')}
          onClick={() => setYear(year - 1)}
        >
          ‹
        </button>
        <strong className="tabular-nums">{year}</strong>
        <button
          type="button"
          className="size-[24px]"
          aria-label={say('ground:yearAfter')}
          onClick={() => setYear(year + 1)}
        >
          ›
        </button>
        <span className="flex flex-wrap items-center gap-x-4 text-[12.5px] text-soft">
          <span className="flex items-center gap-1.5">
            <i aria-hidden className="inline-block size-2.5 border border-rule bg-green-wash" /> {say('ground:dayOpen')}
          </span>
          <span className="flex items-center gap-1.5">
            <i aria-hidden className="inline-block size-2.5 border border-rule" /> {say('ground:closed')}
          </span>
          <span className="flex items-center gap-1.5">
            <i aria-hidden className="inline-block size-2.5 border-2 border-brick bg-brick-wash" />{' '}
            {say('ground:dayClosedSpecial')}
          </span>
          <span className="flex items-center gap-1.5">
            <i aria-hidden className="inline-block size-2.5 border-2 border-brass-mark bg-brass-wash" />{' '}
            {say('ground:dayOwnHours')}
          </span>
        </span>
      </p>
      <div className="mt-2 grid grid-cols-3 gap-x-6 gap-y-3 sm:grid-cols-6">
        {months.map((month) => {
          const first = Date.UTC(year, month, 1);
          const length = new Date(Date.UTC(year, month + 1, 0)).getUTCDate();
          const lead = (new Date(first).getUTCDay() + 6) % 7;
          return (
            <div key={month}>
              <span className="text-[12px] text-soft">{nameOf.format(first)}</span>
              <span className="mt-0.5 grid grid-cols-7 gap-[2px]">
                {Array.from({ length: lead }, (_, place) => (
                  // biome-ignore lint/suspicious/noArrayIndexKey: empty places before the first day.
                  <i key={`lead ${place}`} />
                ))}
                {Array.from({ length }, (_, place) => {
                  const date = dayOf(first + place * DAY);
                  const known = special.get(date);
                  const open = (calendar.week[(lead + place) % 7] ?? []).length > 0;
                  return (
                    <i
                      key={date}
                      title={
                        known
                          ? say('ground:dayNamed', { day: date, name: known.name })
                          : say('ground:longDay', { day: date })
                      }
                      className={`h-3 ${lookOf(known ? ((known.hours ?? []).length > 0 ? 'own' : 'closed') : open ? 'open' : 'off')} ${date === today ? 'outline-2 outline-ink' : ''}`}
                    />
                  );
                })}
              </span>
            </div>
          );
        })}
      </div>
    </div>
  );
}

const lookOf = (kind: 'own' | 'closed' | 'open' | 'off'): string =>
  ({
    own: 'border-2 border-brass-mark bg-brass-wash',
    closed: 'border-2 border-brick bg-brick-wash',
    open: 'border border-rule bg-green-wash',
    off: 'border border-rule',
  })[kind];
