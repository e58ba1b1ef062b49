import type { AnswerOf } from '@tolvek/contract';
import { Link } from 'react-router';
import { toast } from 'sonner';
import { Button } from '../../ui/Button.tsx';
import { Trouble } from '../../ui/Trouble.tsx';
import { useTitle } from '../../ui/useTitle.ts';
import { problemOf, refusalInWords } from '../../wire/problem.ts';
import { say } from '../../wire/words.ts';
import { CopyLine } from './CopyLine.tsx';
import { groundApi } from './endpoints.ts';
import { GroundHistory } from './GroundHistory.tsx';
import { Tokens, type TokenWords } from './Tokens.tsx';

type Opened = AnswerOf<'directory'>;

/** A directory that adds, changes and removes staff and groups: how it comes in, what it brings, and what needs attention. */
export function DirectoryPage() {
  useTitle(say('directory:directory'));
  const { data, error, refetch } = groundApi.useDirectoryQuery();
  return (
    <main className="min-h-0 overflow-auto px-[26px] pt-5 pb-10">
      <div className="max-w-[46rem]">
        <h1>{say('directory:directory')}</h1>
        <p className="text-soft">{say('directory:directoryHint')}</p>
        {error ? <Trouble error={error} again={refetch} /> : null}
        {data ? (
          <>
            {data.left.length > 0 ? <Left left={data.left} /> : null}
            <Connect opened={data} />
            <FromIt opened={data} />
            <Fields opened={data} />
            {data.history.length > 0 ? <GroundHistory lines={data.history} /> : null}
          </>
        ) : null}
      </div>
    </main>
  );
}

function Left({ left }: Pick<Opened, 'left'>) {
  return (
    <>
      <h2 className="section-head mt-6">{say('directory:left')}</h2>
      <p className="mt-1.5 text-soft">{say('directory:leftHint')}</p>
      <ul className="mt-1.5">
        {left.map(({ id, name, openWork }) => (
          <li key={id} className="flex items-baseline justify-between gap-3 border-b border-rule py-1.5">
            <span>
              {name} <span className="text-soft">{say('directory:openWork', { count: openWork })}</span>
            </span>
            <Link to={`/workshop/groundwork/people/${id}`}>{say('directory:handOver')}</Link>
          </li>
        ))}
      </ul>
    </>
  );
}

function Connect({ opened: { address, tokens, mayGiveTokens } }: { opened: Opened }) {
  const [end] = groundApi.useEndDirectoryTokenMutation();
  const [add] = groundApi.useAddDirectoryTokenMutation();
  return (
    <>
      <h2 className="section-head mt-6">{say('directory:connect')}</h2>
      <p className="mt-1.5 text-soft">{say('directory:connectHint')}</p>
      <CopyLine text={address} name={say('directory:address')} />
      <h3 className="mt-5 font-semibold">{say('directory:tokens')}</h3>
      <Tokens
        tokens={tokens}
        words={tokenWords()}
        mayChange={mayGiveTokens}
        end={(id) => end({ id })}
        add={async (body) => {
          const made = await add({ body });
          return made.data ? { data: made.data.token } : { error: made.error };
        }}
      />
      {mayGiveTokens ? null : <p className="mt-1.5 text-[13px] text-soft">{say('directory:onlyRights')}</p>}
    </>
  );
}

const tokenWords = (): TokenWords => ({
  ...{ none: say('directory:noTokens'), endHint: say('directory:endHint'), endNow: say('directory:endNow') },
  ...{ ended: say('directory:ended'), add: say('directory:newToken'), addTitle: say('directory:newTokenTitle') },
  ...{ addHint: say('directory:newTokenHint'), name: say('directory:tokenName'), create: say('directory:createToken') },
  once: say('directory:tokenOnce'),
  endTitle: (name) => say('directory:endTitle', { name }),
});

function FromIt({ opened: { users, groups } }: { opened: Opened }) {
  return (
    <>
      <h2 className="section-head mt-8">{say('directory:fromIt')}</h2>
      <ul>
        {users > 0 ? (
          <li className="border-b border-rule py-1.5">{say('directory:people', { count: users })}</li>
        ) : null}
        {groups.map(({ key, name, members }) => (
          <li key={key} className="border-b border-rule py-1.5">
            <Link to={`/workshop/groundwork/groups/${key}`}>{name}</Link>{' '}
            <span className="text-soft">{say('workshop:members', { count: members })}</span>
          </li>
        ))}
        {users + groups.length === 0 ? <li className="py-1.5 text-soft">{say('directory:noneFromIt')}</li> : null}
      </ul>
    </>
  );
}

/** Values that are shown of those that do not fit a field. */
const SHOWN = 5;

function Fields({ opened: { fields, users } }: { opened: Opened }) {
  const [fill, { isLoading }] = groundApi.useFillFromDirectoryMutation();
  const fillIn = async (): Promise<void> => {
    const done = await fill();
    if ('error' in done) toast.error(refusalInWords(problemOf(done.error)));
    else toast(say('directory:filled', { count: done.data.changed }));
  };
  return (
    <>
      <h2 className="section-head mt-8">{say('directory:fields')}</h2>
      <p className="mt-1.5 text-soft">
        {say('directory:fieldsHint')} <Link to="/workshop/groundwork/profiles">{say('directory:toFields')}</Link>
      </p>
      <ul>
        {fields.map(({ key, label, from, unread }) => (
          <li key={key} className="border-b border-rule py-1.5">
            {label}{' '}
            <span className="text-soft">
              {say('directory:filledFrom', { attribute: say(`directory:attribute.${from}`) })}
            </span>
            {unread.length > 0 ? (
              <span className="block text-[13px] text-brick">
                {say('directory:unread', { count: unread.length })}{' '}
                {unread.slice(0, SHOWN).map(({ id, name, said: text }, place) => (
                  <span key={id}>
                    {place > 0 ? ', ' : ''}
                    <Link to={`/workshop/groundwork/people/${id}`}>{say('directory:unreadOf', { name, text })}</Link>
                  </span>
                ))}{' '}
                {unread.length > SHOWN ? say('directory:more', { count: unread.length - SHOWN }) : ''}
              </span>
            ) : null}
          </li>
        ))}
        {fields.length === 0 ? <li className="py-1.5 text-soft">{say('directory:noFields')}</li> : null}
      </ul>
      {fields.length > 0 && users > 0 ? (
        <p className="mt-2.5">
          <Button disabled={isLoading} onClick={() => void fillIn()}>
            {say('directory:fill')}
          </Button>
        </p>
      ) : null}
    </>
  );
}
