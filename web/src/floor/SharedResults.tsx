import type { AnswerOf } from '@tolvek/contract';
import { useState } from 'react';
import { Link } from 'react-router';
import { toast } from 'sonner';
import { Button } from '../ui/Button.tsx';
import { ToSignIn } from '../ui/ToSignIn.tsx';
import { Trouble } from '../ui/Trouble.tsx';
import { useTitle } from '../ui/useTitle.ts';
import { meApi } from '../wire/me.ts';
import { problemOf, refusalInWords } from '../wire/problem.ts';
import { say, told } from '../wire/words.ts';
import { CannotOpen } from './CannotOpen.tsx';
import { floorApi } from './endpoints.ts';
import { ShareEditor } from './ShareEditor.tsx';

type Listed = AnswerOf<'sharedResults'>;
type Mine = Listed['mine'][number];

/** What somebody shares of requests, what is shared with them, and the way to share something. */
export function SharedResults() {
  useTitle(say('shared:title'));
  const { data: me } = meApi.useMeQuery();
  const { data, error, refetch } = floorApi.useSharedResultsQuery();
  const [editing, setEditing] = useState<string | null>(null);
  if (me && !me.person) return <ToSignIn />;
  if (error)
    return (
      <main className="p-6">
        <Trouble error={error} again={refetch} />
      </main>
    );
  if (!data) return null;
  const { mine, forMe, registers } = data;
  const close = (): void => setEditing(null);
  return (
    <main className="mx-auto max-w-4xl px-6 pt-6 pb-16">
      <p>
        <Link to="/floor" className="text-[13px] text-soft">
          {say('common:floor')}
        </Link>
      </p>
      <h1>{say('shared:title')}</h1>
      <p className="mt-1 max-w-2xl text-soft">{say('shared:hint')}</p>
      {registers.length > 0 ? (
        <section aria-labelledby="shared-mine">
          <h2 id="shared-mine" className="section-head mt-8">
            {say('shared:mine')}
          </h2>
          {mine.length === 0 && editing === null ? <p className="mt-2 text-soft">{say('shared:none')}</p> : null}
          <ul>
            {mine.map((each) => (
              <li key={each.id} className="border-b border-rule py-3">
                <MineLine shared={each} isOpen={editing === each.id} edit={() => setEditing(each.id)} />
                {editing === each.id ? <ShareEditor registers={registers} shared={each} close={close} /> : null}
              </li>
            ))}
          </ul>
          {editing === 'new' ? (
            <ShareEditor registers={registers} shared={null} close={close} />
          ) : (
            <p className="mt-4">
              <Button onClick={() => setEditing('new')}>{say('shared:new')}</Button>
            </p>
          )}
        </section>
      ) : null}
      <section aria-labelledby="shared-for-me">
        <h2 id="shared-for-me" className="section-head mt-8">
          {say('shared:forMe')}
        </h2>
        {forMe.length === 0 ? <p className="mt-2 text-soft">{say('shared:noneForMe')}</p> : null}
        <ul>
          {forMe.map(({ id, name, register, by, until }) => (
            <li key={id} className="flex flex-wrap items-baseline gap-x-4 border-b border-rule py-2">
              <Link to={`/shared/${id}`} className="text-[15.5px]">
                {name}
              </Link>
              <span className="text-soft">
                {register} · {say('shared:byUntil', { name: by, day: until })}
              </span>
            </li>
          ))}
        </ul>
      </section>
    </main>
  );
}

function MineLine({ shared, isOpen, edit }: { shared: Mine; isOpen: boolean; edit: () => void }) {
  const { id, name, who, until, path, cannotOpen, closed } = shared;
  const [end, { isLoading }] = floorApi.useEndSharedMutation();
  const [sure, setSure] = useState(false);
  const copy = async (): Promise<void> => {
    await navigator.clipboard.writeText(new URL(path, location.href).href);
    toast(say('shared:copied'));
  };
  const stop = async (): Promise<void> => {
    const done = await end({ id });
    if ('error' in done) toast.error(refusalInWords(problemOf(done.error)));
    else toast(say('shared:ended', { name }));
  };
  return (
    <>
      <div className="flex flex-wrap items-baseline gap-x-4 gap-y-1">
        <span className="text-[15.5px]">{name}</span>
        <span className="text-soft">
          {say('shared:forUntil', { who: who === null ? say('shared:byLink') : told(who), day: until })}
        </span>
      </div>
      {closed === null ? null : <p className="mt-1 text-brick">{told(closed)}</p>}
      <p className="mt-1 text-[13px] text-soft">{who === null ? say('shared:anybody') : say('shared:onlyNamed')}</p>
      <CannotOpen names={cannotOpen} />
      <p className="mt-2 flex flex-wrap items-baseline gap-x-5 gap-y-1">
        <Button onClick={() => void copy()}>{say('shared:copy')}</Button>
        <Link to={path}>{say('shared:open')}</Link>
        <button type="button" className="text-green underline" aria-expanded={isOpen} onClick={edit}>
          {say('shared:change')}
        </button>
        {sure ? (
          <Button look="refuse" disabled={isLoading} onClick={() => void stop()}>
            {say('shared:reallyEnd')}
          </Button>
        ) : (
          <button type="button" className="text-green underline" onClick={() => setSure(true)}>
            {say('shared:end')}
          </button>
        )}
      </p>
    </>
  );
}
