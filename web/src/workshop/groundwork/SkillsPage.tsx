import type { AnswerOf } from '@tolvek/contract';
import { isFresh } from '@tolvek/core/assignment';
import type { SkillSource } from '@tolvek/core/settings';
import { momentIn } from '@tolvek/words/speech';
import { useState } from 'react';
import { Link } from 'react-router';
import { toast } from 'sonner';
import { Button } from '../../ui/Button.tsx';
import { Trouble } from '../../ui/Trouble.tsx';
import { useTitle } from '../../ui/useTitle.ts';
import { language, say } from '../../wire/words.ts';
import { groundApi } from './endpoints.ts';
import { coverageOf, matrixOf } from './skillMatrix.ts';

type Skills = AnswerOf<'skills'>;

/** Where it is kept who can do what, and all of it as a table. */
export function SkillsPage() {
  useTitle(say('ground:skills'));
  const { data, error, refetch } = groundApi.useSkillsQuery();
  const { data: desk } = groundApi.useDeskSettingsQuery();
  return (
    <main className="min-h-0 overflow-auto px-[26px] pt-5 pb-10">
      <h1>{say('ground:skills')}</h1>
      <p className="max-w-[46rem] text-soft">{say('ground:skillsHint')}</p>
      {error ? <Trouble error={error} again={refetch} /> : null}
      {data && desk ? <Kept key={desk.version} data={data} opened={desk} /> : null}
      {data?.source ? <Matrix data={data} /> : null}
    </main>
  );
}

const PARTS = ['person', 'skill', 'level', 'checked'] as const;
/** Without these there is nothing to look up. */
const NEEDED: readonly (typeof PARTS)[number][] = ['person', 'skill'];

/** The register and its fields; what is chosen counts once it is saved. */
function Kept({ data, opened }: { data: Skills; opened: AnswerOf<'deskSettings'> }) {
  const [source, setSource] = useState<SkillSource | null>(opened.desk.skills ?? null);
  const [save, { isLoading, error }] = groundApi.useChangeDeskMutation();
  const { registers } = data;
  const chosen = registers.find(({ key }) => key === source?.register);
  const isChanged = JSON.stringify(source) !== JSON.stringify(opened.desk.skills ?? null);
  const choose = (key: string): void => {
    const register = registers.find((each) => each.key === key);
    setSource(
      register
        ? {
            register: key,
            person: register.person[0]?.key ?? '',
            skill: register.skill[0]?.key ?? '',
            level: register.level[0]?.key ?? '',
            checked: register.checked[0]?.key ?? '',
          }
        : null,
    );
  };
  const put = async (): Promise<void> => {
    const { skills: _, ...desk } = opened.desk;
    const body = { desk: source ? { ...desk, skills: source } : desk, note: '' };
    const saved = await save({ version: opened.version, body });
    if (!('error' in saved)) toast(say('ground:skillsSaved'));
  };
  if (registers.length === 0 && source === null) return <p className="mt-4">{say('ground:noSkillRegister')}</p>;
  return (
    <div className="mt-4 flex flex-wrap items-end gap-x-4 gap-y-2">
      <label>
        <span className="block text-[13px] text-soft">{say('settings:theSkillsOf.register')}</span>
        <select className="input w-auto" value={source?.register ?? ''} onChange={({ target }) => choose(target.value)}>
          <option value="">{say('ground:keptNowhere')}</option>
          {source && !chosen ? <option value={source.register}>{say('ground:registerGone')}</option> : null}
          {registers.map(({ key, name }) => (
            <option key={key} value={key}>
              {name}
            </option>
          ))}
        </select>
      </label>
      {source && chosen
        ? PARTS.map((part) => (
            <label key={part}>
              <span className="block text-[13px] text-soft">{say(`settings:theSkillsOf.${part}`)}</span>
              <select
                className="input w-auto"
                value={source[part]}
                onChange={({ target }) => setSource({ ...source, [part]: target.value })}
              >
                {NEEDED.includes(part) ? null : <option value="">{say('ground:notKept')}</option>}
                {source[part] === '' || chosen[part].some(({ key }) => key === source[part]) ? null : (
                  <option value={source[part]}>{say('workshop:fieldGone')}</option>
                )}
                {chosen[part].map(({ key, label }) => (
                  <option key={key} value={key}>
                    {label}
                  </option>
                ))}
              </select>
            </label>
          ))
        : null}
      {isChanged ? (
        <Button look="main" disabled={isLoading} onClick={() => void put()}>
          {say('workshop:saveChanges')}
        </Button>
      ) : null}
      {error ? <Trouble error={error} /> : null}
    </div>
  );
}

/** People and what they can do, with how many can do each thing, and what was checked too long ago. */
function Matrix({ data }: { data: Skills }) {
  const { skills, people, today, source } = data;
  const [least, setLeast] = useState(3);
  const [months, setMonths] = useState<number | null>(12);
  const [team, setTeam] = useState('');
  const teams = [...new Set(people.flatMap((person) => person.teams))].sort();
  const shown = people.filter((person) => team === '' || person.teams.includes(team));
  const rows = matrixOf(shown, skills);
  const asked = { least, months, today };
  return (
    <section aria-labelledby="matrix" className="mt-7">
      <h2 id="matrix" className="section-head">
        {say('ground:whoCan')}
      </h2>
      <p className="mt-2 flex flex-wrap items-center gap-x-2 gap-y-1">
        {say('ground:countedFrom')}
        <input
          type="number"
          className="input w-16 py-1"
          aria-label={say('ground:countedFrom')}
          min={0}
          value={least}
          onChange={({ target }) => setLeast(Math.max(0, Number(target.value) || 0))}
        />
        {say('ground:checkedWithin')}
        <input
          type="number"
          className="input w-16 py-1"
          aria-label={say('ground:checkedWithin')}
          min={1}
          placeholder="—"
          value={months ?? ''}
          onChange={({ target: { value } }) => setMonths(value === '' ? null : Math.max(1, Math.round(Number(value))))}
        />
        {say('workshop:months')}
        {teams.length > 1 ? (
          <select
            aria-label={say('ground:ofTeam')}
            className="input ml-3 w-auto py-1"
            value={team}
            onChange={({ target }) => setTeam(target.value)}
          >
            <option value="">{say('ground:allTeams')}</option>
            {teams.map((each) => (
              <option key={each}>{each}</option>
            ))}
          </select>
        ) : null}
      </p>
      {shown.length === 0 ? <p className="mt-4 text-soft">{say('ground:noSkills')}</p> : null}
      <div className="mt-3 overflow-x-auto">
        <table className="border-collapse">
          <thead>
            <tr className="border-b border-rule-strong text-left align-bottom text-[12.5px]">
              <th scope="col" className="py-1.5 pr-5 font-semibold text-soft">
                {say('ground:col.who')}
              </th>
              {skills.map(({ key, label }) => (
                <th key={key} scope="col" className="min-w-24 px-3 py-1.5 font-semibold">
                  {label}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {rows.map(({ person, cells }) => (
              <tr key={person.id} className="border-b border-rule align-top">
                <th scope="row" className="py-2 pr-5 text-left font-normal">
                  {person.name}
                  <span className="block text-[12.5px] text-soft">{person.teams.join(', ')}</span>
                </th>
                {cells.map((cell, place) => (
                  <td key={skills[place]?.key} className="px-3 py-2">
                    {cell ? <Held cell={cell} today={today} months={months} /> : null}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
          <tfoot>
            <tr className="border-t border-rule-strong align-top">
              <th scope="row" className="py-2 pr-5 text-left font-semibold">
                {say(months === null ? 'ground:countBare' : 'ground:countAt', { least })}
              </th>
              {skills.map(({ key }) => {
                const able = coverageOf(shown, key, asked);
                return (
                  <td key={key} className={`px-3 py-2 ${able.length < 2 ? 'font-semibold text-brass' : ''}`}>
                    {able.length}
                    {able.length === 1 ? (
                      <span className="block text-[12.5px] font-normal">
                        {say('ground:only', { name: able[0] ?? '' })}
                      </span>
                    ) : null}
                  </td>
                );
              })}
            </tr>
          </tfoot>
        </table>
      </div>
      <p className="mt-2 text-[13px] text-soft">
        {say('ground:skillsFrom')} <Link to={`/workshop/registers/${source?.register ?? ''}`}>{source?.name}</Link>
        {data.isWhole ? '' : ` ${say('ground:skillsNotWhole')}`}
      </p>
    </section>
  );
}

/** A level and the day it was checked; what was checked too long ago stands out. */
function Held({
  cell: { number, level, checked },
  today,
  months,
}: {
  cell: Skills['people'][number]['held'][number];
  today: string;
  months: number | null;
}) {
  const isStale = months !== null && !isFresh(checked, months, today);
  return (
    <Link to={`/floor/all/${number}`} className="text-ink no-underline hover:underline">
      <span className="tabular-nums">{level ?? '✓'}</span>
      <span className={`block text-[12px] ${isStale ? 'font-semibold text-brass' : 'text-soft'}`}>
        {checked === null ? say('ground:neverChecked') : momentIn(language(), 'date', checked, 'UTC')}
      </span>
    </Link>
  );
}
