import { useState } from 'react';
import { Link, NavLink, Outlet } from 'react-router';
import { ToSignIn } from '../../ui/ToSignIn.tsx';
import { meApi } from '../../wire/me.ts';
import { say } from '../../wire/words.ts';
import { groundApi } from './endpoints.ts';
import { GROUND, SETTINGS } from './places.ts';

/** The groundwork: its contents at the left, with a search over all settings, and the page that is open. */
export function Groundwork() {
  const { data: me } = meApi.useMeQuery();
  const { data } = groundApi.useGroundworkQuery();
  if (me && !me.person) return <ToSignIn />;
  return (
    <div className="grid h-[calc(100dvh-46px)] grid-cols-[196px_minmax(0,1fr)]">
      <nav aria-label={say('ground:groundwork')} className="overflow-auto border-r border-rule pt-5 pl-5">
        <h2 className="pr-3">{say('ground:groundwork')}</h2>
        <p className="pr-4 text-[13px] text-soft">
          {say('ground:groundworkHint')} <Link to="/workshop">{say('workshop:backToForms')}</Link>
        </p>
        <ul className="mt-2.5">
          {GROUND.map(({ path, label, count }) => (
            <li key={path}>
              <NavLink
                to={path}
                end={path === '/workshop/groundwork'}
                className={({ isActive }) =>
                  `-ml-2 flex justify-between border-l-[3px] py-1.5 pr-4 pl-2 text-ink no-underline ${isActive ? 'border-green bg-sheet font-semibold' : 'border-transparent'}`
                }
              >
                {say(label)} <span className="font-normal text-soft">{count ? data?.counts[count] : ''}</span>
              </NavLink>
            </li>
          ))}
        </ul>
        <FindSetting />
      </nav>
      <Outlet />
    </div>
  );
}

/** A search over all settings, by what people call them. */
function FindSetting() {
  const [typed, setTyped] = useState('');
  const words = typed.trim().toLowerCase().split(/\s+/).filter(Boolean);
  const found =
    words.length === 0
      ? []
      : SETTINGS.filter((setting) => {
          const text = `${say(setting.label)} ${say(setting.in)}`.toLowerCase();
          return words.every((word) => text.includes(word));
        }).slice(0, 12);
  return (
    <search className="mt-4 block pr-4 pb-6">
      <label htmlFor="find-setting" className="text-[13px] text-soft">
        {say('ground:findSetting')}
      </label>
      <input
        id="find-setting"
        type="search"
        className="input mt-1"
        value={typed}
        onChange={(event) => setTyped(event.target.value)}
      />
      <ul className="mt-1" aria-live="polite">
        {found.map(({ label, in: place, to }) => (
          <li key={`${label} ${to}`} className="border-b border-rule py-1.5">
            <Link to={to} className="no-underline hover:underline" onClick={() => setTyped('')}>
              {say(label)}
            </Link>
            <span className="block text-[12.5px] text-soft">{say(place)}</span>
          </li>
        ))}
        {words.length > 0 && found.length === 0 ? (
          <li className="py-1.5 text-[13px] text-soft">{say('ground:noSetting')}</li>
        ) : null}
      </ul>
    </search>
  );
}
