import { Link, NavLink } from 'react-router';
import { meApi } from '../wire/me.ts';
import { say, told } from '../wire/words.ts';
import { floorApi } from './endpoints.ts';
import { reportsApi } from './reports/endpoints.ts';
import { Shortcuts } from './Shortcuts.tsx';
import { viewsApi } from './views/endpoints.ts';

const here = ({ isActive }: { isActive: boolean }): string =>
  `-ml-2 flex justify-between gap-2 border-l-[3px] py-[5px] pr-3.5 pl-2 text-ink no-underline ${isActive ? 'border-green bg-sheet font-semibold' : 'border-transparent'}`;

/** What lies at the left of the Floor: the trays with their counts, one’s views, and other pages. */
export function TraysNav() {
  const { data: me } = meApi.useMeQuery();
  const { data: trays } = floorApi.useTraysQuery();
  const { data: saved } = viewsApi.useViewsQuery();
  const { data: reports } = reportsApi.useReportsQuery();
  return (
    <nav aria-label={say('floor:trays')} className="overflow-auto border-r border-rule pt-4 pl-5">
      <h2 className="mb-1 font-sans text-[11.5px] font-semibold text-soft">{say('floor:trays')}</h2>
      <ul>
        {trays?.trays.map((each) => (
          <li key={each.key} className={each.key === 'all' ? 'mt-4' : ''}>
            <NavLink to={`/floor/${each.key}`} className={here}>
              <span>{say(`floor:tray.${each.key}`)}</span>
              <span
                className={`tabular-nums ${each.key === 'late' && each.count > 0 ? 'font-bold text-brick' : 'text-soft'}`}
              >
                {each.count}
              </span>
            </NavLink>
          </li>
        ))}
        {trays && me?.person?.rights.includes('groundwork') ? (
          <li>
            <Link
              to="/floor/emails"
              className="-ml-2 flex justify-between border-l-[3px] border-transparent py-[5px] pr-3.5 pl-2 text-ink no-underline"
            >
              <span>{say('incoming:tray')}</span>
              <span className={`tabular-nums ${trays.heldEmails > 0 ? 'font-bold text-brass' : 'text-soft'}`}>
                {trays.heldEmails}
              </span>
            </Link>
          </li>
        ) : null}
      </ul>
      {saved && saved.views.length + saved.registers.length > 0 ? (
        <>
          <h2 className="mt-5 mb-1 font-sans text-[11.5px] font-semibold text-soft">{say('views:head')}</h2>
          <ul>
            {saved.views.map(({ id, name, says }) => (
              <li key={id}>
                <NavLink
                  to={`/floor/views/${id}`}
                  className={here}
                  title={says.map(({ words }) => told(words)).join(', ')}
                >
                  <span className="truncate">{name}</span>
                </NavLink>
              </li>
            ))}
          </ul>
          <NavLink to="/floor/views/new" className="mt-1 block text-[13px] text-soft">
            {say('views:new')}
          </NavLink>
        </>
      ) : null}
      {reports && (reports.reports.length > 0 || saved) ? (
        <>
          <h2 className="mt-5 mb-1 font-sans text-[11.5px] font-semibold text-soft">{say('reports:head')}</h2>
          <ul>
            {reports.reports.map(({ id, name }) => (
              <li key={id}>
                <NavLink to={`/floor/reports/${id}`} className={here}>
                  <span className="truncate">{name}</span>
                </NavLink>
              </li>
            ))}
          </ul>
          <NavLink to="/floor/reports/new" className="mt-1 block text-[13px] text-soft">
            {say('reports:new')}
          </NavLink>
        </>
      ) : null}
      <NavLink to="/floor/duty" className="mt-5 block text-[13px] text-soft">
        {say('rosters:page')}
      </NavLink>
      <NavLink to="/floor/forecast" className="mt-1.5 block text-[13px] text-soft">
        {say('forecast:title')}
      </NavLink>
      <NavLink to="/floor/times" className="mt-1.5 block text-[13px] text-soft">
        {say('service:title')}
      </NavLink>
      <NavLink to="/floor/shared-results" className="mt-1.5 block text-[13px] text-soft">
        {say('floor:sharedResults')}
      </NavLink>
      <Shortcuts />
    </nav>
  );
}
