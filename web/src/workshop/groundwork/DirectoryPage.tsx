import type { AnswerOf } from '@tolvek/contract';
import { useState } from 'react';
import { Link } from 'react-router';
import { toast } from 'sonner';
import { Button } from '../../ui/Button.tsx';
import { ChoiceLine } from '../../ui/ChoiceLine.tsx';
import { DialogFrame } from '../../ui/DialogFrame.tsx';
import { TextLine } from '../../ui/TextLine.tsx';
import { Trouble, WholeTrouble } from '../../ui/Trouble.tsx';
import { useTitle } from '../../ui/useTitle.ts';
import { problemOf, refusalInWords } from '../../wire/problem.ts';
import { say } from '../../wire/words.ts';
import { CopyLine } from './CopyLine.tsx';
import { groundApi } from './endpoints.ts';
import { GroundHistory } from './GroundHistory.tsx';

type Opened = AnswerOf<'directory'>;
type Token = Opened['tokens'][number];

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
  return (
    <>
      <h2 className="section-head mt-6">{say('directory:connect')}</h2>
      <p className="mt-1.5 text-soft">{say('directory:connectHint')}</p>
      <CopyLine text={address} name={say('directory:address')} />
      <h3 className="mt-5 font-semibold">{say('directory:tokens')}</h3>
      <ul>
        {tokens.map((token) => (
          <TokenLine key={token.id} token={token} mayEnd={mayGiveTokens} />
        ))}
        {tokens.length === 0 ? <li className="py-1.5 text-soft">{say('directory:noTokens')}</li> : null}
      </ul>
      {mayGiveTokens ? (
        <div className="mt-2.5">
          <NewToken />
        </div>
      ) : (
        <p className="mt-1.5 text-[13px] text-soft">{say('directory:onlyRights')}</p>
      )}
    </>
  );
}

function TokenLine({ token: { id, name, by, made, used, ends, state }, mayEnd }: { token: Token; mayEnd: boolean }) {
  const isWorking = state === 'works';
  return (
    <li className="flex items-baseline justify-between gap-3 border-b border-rule py-2">
      <span className={isWorking ? '' : 'text-soft'}>
        {name}
        {isWorking ? '' : ` · ${say(`directory:state.${state}`)}`}
        <span className="block text-[12.5px] text-soft">
          {[
            by === '' ? say('directory:made', { at: made }) : say('directory:madeBy', { by, at: made }),
            used === null ? say('directory:unused') : say('directory:used', { at: used }),
            isWorking && ends !== null ? say('directory:ends', { at: ends }) : '',
          ]
            .filter(Boolean)
            .join(' · ')}
        </span>
      </span>
      {isWorking && mayEnd ? <EndToken id={id} name={name} /> : null}
    </li>
  );
}

function EndToken({ id, name }: Pick<Token, 'id' | 'name'>) {
  const [open, setOpen] = useState(false);
  const [end, { isLoading, error }] = groundApi.useEndDirectoryTokenMutation();
  const endNow = async (): Promise<void> => {
    if ('error' in (await end({ id }))) return;
    toast(say('directory:ended'));
    setOpen(false);
  };
  return (
    <DialogFrame
      open={open}
      onOpenChange={setOpen}
      title={say('directory:endTitle', { name })}
      trigger={<Button>{say('directory:end')}</Button>}
    >
      <p className="mt-2">{say('directory:endHint')}</p>
      <WholeTrouble error={error} />
      <p className="mt-4">
        <Button look="refuse" disabled={isLoading} onClick={() => void endNow()}>
          {say('directory:endNow')}
        </Button>
      </p>
    </DialogFrame>
  );
}

/** For how long a token may work, days. */
const DAYS = { '90': 90, '365': 365, none: null } as const;
type Days = keyof typeof DAYS;

/** A token is made with a name and a time, told once, and copied. */
function NewToken() {
  const [open, setOpen] = useState(false);
  const [name, setName] = useState('');
  const [days, setDays] = useState<Days>('365');
  const [token, setToken] = useState('');
  const [add, { isLoading, error, reset }] = groundApi.useAddDirectoryTokenMutation();
  const turn = (now: boolean): void => {
    setOpen(now);
    setToken('');
    setName('');
    reset();
  };
  const make = async (): Promise<void> => {
    const made = await add({ body: { name: name.trim(), days: DAYS[days] } });
    if (!('error' in made)) setToken(made.data.token);
  };
  return (
    <DialogFrame
      open={open}
      onOpenChange={turn}
      title={say('directory:newTokenTitle')}
      trigger={<Button look="main">{say('directory:newToken')}</Button>}
    >
      {token === '' ? (
        <form
          onSubmit={(event) => {
            event.preventDefault();
            void make();
          }}
          noValidate
        >
          <p className="mt-2 text-soft">{say('directory:newTokenHint')}</p>
          <TextLine
            id="token-name"
            label={say('directory:tokenName')}
            error={error}
            field="name"
            value={name}
            change={setName}
          />
          <ChoiceLine
            id="token-days"
            label={say('directory:works')}
            error={error}
            field="days"
            options={(Object.keys(DAYS) as Days[]).map((key) => ({ key, label: say(`directory:days.${key}`) }))}
            value={days}
            choose={setDays}
          />
          <WholeTrouble error={error} />
          <p className="mt-4">
            <Button look="main" type="submit" disabled={name.trim() === '' || isLoading}>
              {say('directory:createToken')}
            </Button>
          </p>
        </form>
      ) : (
        <>
          <p className="mt-2">{say('directory:tokenOnce')}</p>
          <CopyLine text={token} name={say('directory:newTokenTitle')} />
          <p className="mt-4">
            <Button look="main" onClick={() => turn(false)}>
              {say('directory:tokenDone')}
            </Button>
          </p>
        </>
      )}
    </DialogFrame>
  );
}

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
