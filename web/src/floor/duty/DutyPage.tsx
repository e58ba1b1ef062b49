import { useState } from 'react';
import { Button } from '../../ui/Button.tsx';
import { type DutyItem, dutyWeeks } from '../../ui/dutyWeeks.ts';
import { saveFile } from '../../ui/saveFile.ts';
import { WeekPicture } from '../../ui/WeekPicture.tsx';
import { meApi } from '../../wire/me.ts';
import { say } from '../../wire/words.ts';
import { floorApi } from '../endpoints.ts';
import { FloorFrame } from '../FloorFrame.tsx';
import { type Duty, fromTo, type RosterTold } from './duty.ts';
import { MyDuties } from './MyDuties.tsx';
import { Offers } from './Offers.tsx';

/** Weeks of a roster that are shown. */
const WEEKS = 4;
const WEEKDAYS = ['monday', 'tuesday', 'wednesday', 'thursday', 'friday', 'saturday', 'sunday'] as const;

/** Who is on duty, one’s own duties, and what is offered among those of a roster. */
export function DutyPage() {
  const { data: me } = meApi.useMeQuery();
  const { data, error, refetch } = floorApi.useDutyQuery(undefined, { refetchOnMountOrArgChange: true });
  return (
    <FloorFrame title={say('rosters:page')} error={error} again={refetch}>
      {data && data.rosters.length === 0 ? <p className="mt-4">{say('rosters:noRosters')}</p> : null}
      {data && data.rosters.length > 0 ? <Laid duty={data} reader={me?.person?.name ?? ''} /> : null}
    </FloorFrame>
  );
}

function Laid({ duty, reader }: { duty: Duty; reader: string }) {
  const { rosters, mine } = duty;
  const [chosen, setChosen] = useState<string | null>(null);
  const shown = rosters.find(({ key }) => key === chosen) ?? rosters.find(({ mine: is }) => is) ?? rosters[0];
  const isOnOne = rosters.some(({ mine: is }) => is);
  return (
    <>
      <Offers duty={duty} />
      <ul className="mt-4 border-t border-rule">
        {rosters.map((roster) => (
          <Now key={roster.key} roster={roster} />
        ))}
      </ul>
      {isOnOne || mine.length > 0 ? (
        <section aria-labelledby="my-duties" className="mt-8">
          <h2 id="my-duties" className="section-head">
            {say('rosters:mine')}
          </h2>
          <MyDuties duty={duty} />
          {mine.length > 0 ? (
            <p className="mt-3">
              <Button onClick={() => void saveMine(duty, reader)}>{say('rosters:export')}</Button>
            </p>
          ) : null}
        </section>
      ) : null}
      {shown ? (
        <section aria-labelledby="roster-weeks" className="mt-8">
          <h2 id="roster-weeks" className="section-head">
            {say('rosters:weeksAhead', { count: WEEKS })}
          </h2>
          {rosters.length > 1 ? (
            <p className="mt-2 mb-3">
              <label>
                <span className="mr-2 text-soft">{say('rosters:roster')}</span>
                <select
                  className="input w-auto py-1"
                  value={shown.key}
                  onChange={({ target }) => setChosen(target.value)}
                >
                  {rosters.map(({ key, name }) => (
                    <option key={key} value={key}>
                      {name}
                    </option>
                  ))}
                </select>
              </label>
            </p>
          ) : null}
          <Weeks roster={shown} now={duty.now} />
        </section>
      ) : null}
    </>
  );
}

/** Who is on duty by one roster now, until when, and who comes next. */
function Now({ roster: { name, zone, on, next, gaps } }: { roster: RosterTold }) {
  const gap = gaps[0];
  return (
    <li className="grid gap-x-5 gap-y-0.5 border-b border-rule py-2.5 sm:grid-cols-[12rem_minmax(0,1fr)]">
      <span className="font-semibold">{name}</span>
      <span>
        {on.length === 0 ? (
          <span className="text-brass">{say('rosters:nobodyNow')}</span>
        ) : (
          on.map(({ name: who, to }) => (
            <span key={who} className="mr-4">
              <span className="text-[16px]">{who}</span>{' '}
              <span className="text-soft">{say('rosters:untilMoment', { at: to })}</span>
            </span>
          ))
        )}
        {next ? (
          <span className="block text-[13px] text-soft">{say('rosters:next', { names: next.names, at: next.at })}</span>
        ) : null}
        {gap ? (
          <span className="block text-[13px] text-brick">
            {gap.away.length === 0
              ? say('rosters:gapOf', { when: fromTo(gap, zone) })
              : say('rosters:awayOf', { when: fromTo(gap, zone), names: gap.away })}
          </span>
        ) : null}
      </span>
    </li>
  );
}

function Weeks({ roster, now }: { roster: RosterTold; now: string }) {
  const items: readonly DutyItem[] = [
    ...roster.ahead.map(({ name, mine, from, to }) => ({
      ...{ key: name, from: Date.parse(from), to: Date.parse(to) },
      look: mine ? ('mine' as const) : ('plain' as const),
      words: (time: string) => (
        <>
          <span className="text-soft tabular-nums">{time}</span> {name}
        </>
      ),
    })),
    ...roster.gaps.map(({ from, to, away }) => ({
      ...{ key: 'gap', from: Date.parse(from), to: Date.parse(to), look: 'gap' as const },
      words: (time: string) =>
        away.length === 0 ? say('rosters:gapAt', { time }) : say('rosters:awayAt', { time, names: away }),
    })),
  ];
  return (
    <WeekPicture
      label={roster.name}
      heads={WEEKDAYS.map((day) => say(`rosters:day.${day}`))}
      weeks={dutyWeeks(items, {
        ...{ now: Date.parse(now), zone: roster.zone, weeks: WEEKS, allDay: say('rosters:allDay') },
        nameDay: (day) => say('rosters:shortDay', { day }),
      })}
    />
  );
}

async function saveMine({ rosters, mine, now }: Duty, reader: string): Promise<void> {
  const { dutiesAsICalendar } = await import('../../ui/dutiesAsICalendar.ts');
  const told = mine.map(({ roster, from, to }) => ({
    ...{ from: Date.parse(from), to: Date.parse(to), uid: `${roster}-${from}@tolvek` },
    who: rosters.find(({ key }) => key === roster)?.name ?? roster,
  }));
  saveFile('duties.ics', 'text/calendar', dutiesAsICalendar(reader, told, Date.parse(now)));
}
