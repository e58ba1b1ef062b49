import { useState } from 'react';
import { NavLink, useNavigate, useParams } from 'react-router';
import { Button } from '../../ui/Button.tsx';
import { Trouble, WholeTrouble } from '../../ui/Trouble.tsx';
import { useTitle } from '../../ui/useTitle.ts';
import { say } from '../../wire/words.ts';
import { groundApi } from '../groundwork/endpoints.ts';
import { ProgramEditor } from './ProgramEditor.tsx';
import { type Around, ProgramFields } from './ProgramFields.tsx';
import { newProgram } from './programDraft.ts';

const BASE = '/workshop/groundwork/programs';

/** The programs that work with the desk, and the one that is open; a new one where there is none yet. */
export function ProgramsPage() {
  useTitle(say('programs:title'));
  const { program: asked } = useParams();
  const navigate = useNavigate();
  const { data, error, refetch } = groundApi.useProgramsQuery();
  const open = asked ?? data?.programs[0]?.key;
  const isNew = asked === 'new' || (data?.programs.length === 0 && data.mayChange);
  return (
    <main className="min-h-0 overflow-auto px-[26px] pt-5 pb-10">
      <h1>{say('programs:title')}</h1>
      <p className="text-soft">{say('programs:hint')}</p>
      {error ? <Trouble error={error} again={refetch} /> : null}
      {data && !data.mayChange ? <p className="mt-1 text-soft">{say('programs:mayNotChange')}</p> : null}
      <nav aria-label={say('programs:title')} className="mt-3 flex flex-wrap gap-x-6 border-b border-rule-strong">
        {data?.programs.map(({ key, name, retired, failed }) => (
          <NavLink
            key={key}
            to={`${BASE}/${key}`}
            aria-current={!isNew && key === open ? 'page' : undefined}
            className={`border-b-[3px] px-0.5 py-2 no-underline ${!isNew && key === open ? 'border-green font-semibold text-ink' : 'border-transparent text-soft hover:text-ink'}`}
          >
            <span className={retired ? 'line-through' : ''}>{name}</span>
            {failed > 0 ? (
              <span className="font-normal text-brick"> {say('programs:failed', { count: failed })}</span>
            ) : null}
          </NavLink>
        ))}
        {data?.mayChange ? (
          <NavLink
            to={`${BASE}/new`}
            className={`border-b-[3px] px-0.5 py-2 no-underline ${isNew ? 'border-green font-semibold text-ink' : 'border-transparent'}`}
          >
            {say('programs:add')}
          </NavLink>
        ) : null}
      </nav>
      {data && isNew ? (
        <NewProgram around={data} made={(key) => navigate(`${BASE}/${key}`)} />
      ) : data && open ? (
        <OpenProgram key={open} program={open} around={data} />
      ) : data ? (
        <p className="mt-4 text-soft">{say('programs:none')}</p>
      ) : null}
    </main>
  );
}

function OpenProgram({ program, around }: { program: string; around: Around }) {
  const { data, error, refetch } = groundApi.useProgramQuery(
    { key: program },
    { pollingInterval: 4_000, skipPollingIfUnfocused: true },
  );
  if (error)
    return (
      <div className="mt-4">
        <Trouble error={error} again={refetch} />
      </div>
    );
  return data ? <ProgramEditor key={data.version} opened={data} around={around} /> : null;
}

function NewProgram({ around, made }: { around: Around; made: (key: string) => void }) {
  const [draft, setDraft] = useState(() => newProgram(say('programs:newName')));
  const [once, setOnce] = useState(() => crypto.randomUUID());
  const [create, { isLoading, error }] = groundApi.useCreateProgramMutation();
  const send = async (event: React.FormEvent): Promise<void> => {
    event.preventDefault();
    const answer = await create({ once, body: { program: draft } });
    setOnce(crypto.randomUUID());
    if ('data' in answer && answer.data) made(answer.data.key);
  };
  return (
    <form onSubmit={send} noValidate className="max-w-[46rem]">
      <ProgramFields {...{ draft, around, error }} change={setDraft} />
      <WholeTrouble error={error} className="mt-4" />
      <p className="mt-6">
        <Button look="main" type="submit" disabled={isLoading}>
          {say('programs:create')}
        </Button>
      </p>
    </form>
  );
}
