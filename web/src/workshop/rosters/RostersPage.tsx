import { useState } from 'react';
import { NavLink, useNavigate, useParams } from 'react-router';
import { Trouble } from '../../ui/Trouble.tsx';
import { useTitle } from '../../ui/useTitle.ts';
import { meApi } from '../../wire/me.ts';
import { say } from '../../wire/words.ts';
import { groundApi } from '../groundwork/endpoints.ts';
import { NewRoster } from './NewRoster.tsx';
import { type Kept, RosterEditor } from './RosterEditor.tsx';

const BASE = '/workshop/groundwork/rosters';

/** The rosters, with who is on duty by each, and the one that is open; a new one where there is none yet. */
export function RostersPage() {
  useTitle(say('rosters:title'));
  const { roster: asked } = useParams();
  const navigate = useNavigate();
  const [kept] = useState<Kept>(() => new Map());
  const { data, error, refetch } = groundApi.useRostersQuery();
  const { data: me } = meApi.useMeQuery();
  const open = asked ?? data?.rosters[0]?.key;
  const isNew = asked === 'new' || data?.rosters.length === 0;
  return (
    <main className="min-h-0 overflow-auto px-[26px] pt-5 pb-10">
      <h1>{say('rosters:title')}</h1>
      <p className="text-soft">{say('rosters:hint')}</p>
      {error ? <Trouble error={error} again={refetch} /> : null}
      <nav aria-label={say('rosters:title')} className="mt-3 flex flex-wrap gap-x-6 border-b border-rule-strong">
        {data?.rosters.map(({ key, name, retired, on }) => (
          <NavLink
            key={key}
            to={`${BASE}/${key}`}
            aria-current={!isNew && key === open ? 'page' : undefined}
            className={`border-b-[3px] px-0.5 py-2 no-underline ${!isNew && key === open ? 'border-green font-semibold text-ink' : 'border-transparent text-soft hover:text-ink'}`}
          >
            <span className={retired ? 'line-through' : ''}>{name}</span>{' '}
            <span className="font-normal text-soft">
              {on.length > 0 ? say('rosters:nowOn', { names: on }) : say('rosters:nobodyNow')}
            </span>
          </NavLink>
        ))}
        <NavLink
          to={`${BASE}/new`}
          className={`border-b-[3px] px-0.5 py-2 no-underline ${isNew ? 'border-green font-semibold text-ink' : 'border-transparent'}`}
        >
          {say('rosters:add')}
        </NavLink>
      </nav>
      {data && me && isNew ? (
        <NewRoster ground={data} now={me.desk.now} zone={me.desk.zone} made={(key) => navigate(`${BASE}/${key}`)} />
      ) : data && me && open ? (
        <OpenRoster key={open} roster={open} ground={data} now={me.desk.now} kept={kept} />
      ) : null}
    </main>
  );
}

function OpenRoster({
  roster,
  ...about
}: { roster: string } & Pick<Parameters<typeof RosterEditor>[0], 'ground' | 'now' | 'kept'>) {
  const { data, error, refetch } = groundApi.useRosterQuery({ key: roster });
  if (error)
    return (
      <div className="mt-4">
        <Trouble error={error} again={refetch} />
      </div>
    );
  return data ? <RosterEditor key={data.version} opened={data} {...about} /> : null;
}
