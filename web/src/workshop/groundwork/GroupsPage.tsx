import { useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { Button } from '../../ui/Button.tsx';
import { Trouble } from '../../ui/Trouble.tsx';
import { useTitle } from '../../ui/useTitle.ts';
import { say } from '../../wire/words.ts';
import { groundApi } from './endpoints.ts';
import { GroupSheet } from './GroupSheet.tsx';
import { NewGroup } from './NewGroup.tsx';

/** Every group with what it is for and how many are in it; the one that is open beside them. */
export function GroupsPage() {
  useTitle(say('ground:groups'));
  const { group: open } = useParams();
  const [find, setFind] = useState('');
  const { data, error, refetch } = groundApi.useGroupsQuery();
  const words = find.trim().toLowerCase();
  const shown = (data?.groups ?? []).filter(({ name, about }) => `${name} ${about}`.toLowerCase().includes(words));
  return (
    <div className={`grid min-h-0 ${open ? 'grid-cols-[minmax(0,1fr)_340px] xl:grid-cols-[minmax(0,1fr)_400px]' : ''}`}>
      <main className="min-h-0 overflow-auto px-[26px] pt-5 pb-10">
        <div className="flex flex-wrap items-baseline justify-between gap-3">
          <h1>{say('ground:groups')}</h1>
          <AddGroup />
        </div>
        <p className="text-soft">{say('ground:groupsHint')}</p>
        {error ? <Trouble error={error} again={refetch} /> : null}
        <input
          type="search"
          aria-label={say('ground:findGroup')}
          placeholder={say('ground:findGroup')}
          className="input mt-3"
          value={find}
          onChange={(event) => setFind(event.target.value)}
        />
        <table className="mt-3 w-full border-collapse">
          <thead className="sticky -top-5 z-[1] bg-paper">
            <tr className="border-b border-rule-strong text-left text-[11.5px] text-soft">
              {[say('ground:col.group'), say('ground:col.inside'), say('ground:col.members')].map((head) => (
                <th key={head} scope="col" className="py-1.5 pr-4 font-semibold last:text-right">
                  {head}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {shown.map((group) => (
              <tr
                key={group.key}
                className={`border-b border-rule ${open === group.key ? 'bg-sheet shadow-[inset_3px_0_var(--green)]' : ''}`}
              >
                <td className="py-2 pr-4 pl-2">
                  <Link
                    to={`/workshop/groundwork/groups/${group.key}`}
                    className={group.retired ? 'text-soft line-through' : 'text-ink no-underline hover:underline'}
                  >
                    {group.name}
                  </Link>
                  <span className="block text-[12.5px] text-soft">
                    {[
                      group.isTeam ? say('ground:isTeam') : '',
                      group.source === 'directory' ? say('ground:fromDirectory') : '',
                      group.ruled ? say('ground:isRuled') : '',
                      group.retired ? say('ground:isRetired') : '',
                      group.about,
                    ]
                      .filter(Boolean)
                      .join(' · ')}
                  </span>
                </td>
                <td className="py-2 pr-4">{group.inside.join(', ') || '–'}</td>
                <td className="py-2 pr-4 text-right">{group.members}</td>
              </tr>
            ))}
            {data && shown.length === 0 ? (
              <tr>
                <td colSpan={3} className="py-4 text-soft">
                  {data.groups.length === 0 ? say('ground:noGroupYet') : say('ground:noGroupFound')}
                </td>
              </tr>
            ) : null}
          </tbody>
        </table>
      </main>
      {open ? <GroupSheet key={open} group={open} /> : null}
    </div>
  );
}

function AddGroup() {
  const navigate = useNavigate();
  return (
    <NewGroup
      isTeam
      trigger={<Button look="main">{say('ground:addGroup')}</Button>}
      made={(key) => navigate(`/workshop/groundwork/groups/${key}`)}
    />
  );
}
