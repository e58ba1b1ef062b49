import { NavLink, useNavigate, useParams } from 'react-router';
import { Trouble } from '../../ui/Trouble.tsx';
import { useTitle } from '../../ui/useTitle.ts';
import { meApi } from '../../wire/me.ts';
import { say } from '../../wire/words.ts';
import { CalendarEditor } from './CalendarEditor.tsx';
import { groundApi } from './endpoints.ts';
import { NewCalendar } from './NewCalendar.tsx';

const BASE = '/workshop/groundwork/calendars';

/** The working calendars, and the one that is open; a new one where there is none yet. */
export function CalendarsPage() {
  useTitle(say('ground:calendars'));
  const { calendar: asked } = useParams();
  const navigate = useNavigate();
  const { data, error, refetch } = groundApi.useCalendarsQuery();
  const open = asked ?? data?.calendars[0]?.key;
  const isNew = asked === 'new' || data?.calendars.length === 0;
  return (
    <main className="min-h-0 overflow-auto px-[26px] pt-5 pb-10">
      <h1>{say('ground:calendars')}</h1>
      <p className="text-soft">{say('ground:calendarsHint')}</p>
      {error ? <Trouble error={error} again={refetch} /> : null}
      <nav aria-label={say('ground:calendars')} className="mt-3 flex flex-wrap gap-x-6 border-b border-rule-strong">
        {data?.calendars.map((each) => (
          <NavLink
            key={each.key}
            to={`${BASE}/${each.key}`}
            aria-current={!isNew && each.key === open ? 'page' : undefined}
            className={`border-b-[3px] px-0.5 py-2 no-underline ${!isNew && each.key === open ? 'border-green font-semibold text-ink' : 'border-transparent text-soft hover:text-ink'}`}
          >
            <span className={each.retired ? 'line-through' : ''}>{each.name}</span>{' '}
            <span className="font-normal text-soft">{say('ground:countedBy', { count: each.forms })}</span>
          </NavLink>
        ))}
        <NavLink
          to={`${BASE}/new`}
          className={`border-b-[3px] px-0.5 py-2 no-underline ${isNew ? 'border-green font-semibold text-ink' : 'border-transparent'}`}
        >
          {say('ground:addCalendar')}
        </NavLink>
      </nav>
      {isNew ? (
        <NewCalendar made={(key) => navigate(`${BASE}/${key}`)} />
      ) : open ? (
        <OpenCalendar key={open} calendar={open} />
      ) : null}
    </main>
  );
}

function OpenCalendar({ calendar }: { calendar: string }) {
  const { data, error, refetch } = groundApi.useCalendarQuery({ key: calendar });
  const { data: me } = meApi.useMeQuery();
  if (error)
    return (
      <div className="mt-4">
        <Trouble error={error} again={refetch} />
      </div>
    );
  // Days are read by what day it is at the desk.
  return data && me ? <CalendarEditor key={data.version} opened={data} today={me.desk.now.slice(0, 10)} /> : null;
}
