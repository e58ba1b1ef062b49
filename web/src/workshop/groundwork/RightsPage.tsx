import type { AnswerOf } from '@tolvek/contract';
import { Link, useSearchParams } from 'react-router';
import { Trouble } from '../../ui/Trouble.tsx';
import { useTitle } from '../../ui/useTitle.ts';
import { say, told } from '../../wire/words.ts';
import { Audit } from './Audit.tsx';
import { groundApi } from './endpoints.ts';
import { GroundHistory } from './GroundHistory.tsx';
import { RegisterRights } from './RegisterRights.tsx';
import { RightsTable } from './RightsTable.tsx';

type Opened = AnswerOf<'rights'>;

/** Who may do what: for the whole desk, and in each register. */
export function RightsPage() {
  useTitle(say('ground:rights'));
  const { data, error, refetch } = groundApi.useRightsQuery();
  const [search, setSearch] = useSearchParams();
  const register = search.get('register') ?? '';
  return (
    <main className="min-h-0 overflow-auto px-[26px] pt-5 pb-10">
      <div className="max-w-[64rem]">
        <h1>{say('ground:rights')}</h1>
        <p className="text-soft">{say('ground:rightsHint')}</p>
        {error ? <Trouble error={error} again={refetch} /> : null}
        {data ? (
          <>
            {data.mayChange ? null : (
              <p className="mt-3 border-l-[3px] border-brass-mark bg-brass-wash px-3 py-1.5">
                {say('ground:rightsReadOnly', { people: data.givers })}
              </p>
            )}
            <label className="mt-4 flex flex-wrap items-baseline gap-x-2">
              <span className="text-[13px] text-soft">{say('rights:where')}</span>
              <select
                className="rounded-[3px] border border-edge bg-sheet px-2 py-1 font-semibold"
                value={register}
                onChange={(event) => setSearch(event.target.value ? { register: event.target.value } : {})}
              >
                <option value="">{say('rights:wholeDesk')}</option>
                {data.registers.map((each) => (
                  <option key={each.key} value={each.key}>
                    {each.name}
                    {differenceOf(each)}
                  </option>
                ))}
              </select>
            </label>
            {register === '' ? <DeskRights opened={data} /> : <RegisterRights register={register} />}
          </>
        ) : null}
      </div>
    </main>
  );
}

type Register = Opened['registers'][number];

/** How a register stands to the desk, after its name; empty where it is as the desk. */
function differenceOf({ apart, differences }: Register): string {
  if (apart) return say('rights:apartShort');
  return differences > 0 ? say('rights:differsShort', { count: differences }) : '';
}

function DeskRights({ opened }: { opened: Opened }) {
  const differing = opened.registers.filter(({ apart, differences }) => apart || differences > 0);
  return (
    <>
      {differing.length > 0 ? (
        <p className="mt-3">
          {say('rights:differing')}{' '}
          {differing.map((each, at) => (
            <span key={each.key}>
              {at > 0 ? ' · ' : ''}
              <Link to={`?register=${each.key}`}>{each.name}</Link>
              <span className="text-soft">{differenceOf(each)}</span>
            </span>
          ))}
        </p>
      ) : null}
      <RightsTable rights={opened.rights} subjects={opened.subjects} mayChange={opened.mayChange} />
      <h2 className="section-head mt-9">{say('ground:packages')}</h2>
      <p className="mt-2 text-soft">{say('ground:packagesHint')}</p>
      <dl className="mt-2 grid grid-cols-[150px_1fr] gap-y-3">
        {opened.packages.map(({ name, rights }) => (
          <div key={name} className="contents">
            <dt className="font-semibold">{say(`ground:role.${name}`)}</dt>
            <dd>
              {opened.rights
                .filter(({ right }) => rights.includes(right))
                .map(({ words }) => told(words))
                .join('. ')}
              .
            </dd>
          </div>
        ))}
      </dl>
      {opened.mayAudit ? <Audit /> : null}
      <GroundHistory lines={opened.history} />
    </>
  );
}
