import type { AnswerOf } from '@tolvek/contract';
import { useDeferredValue, useState } from 'react';
import { toast } from 'sonner';
import { DayField } from '../fields/DateInput.tsx';
import { FindWho, type Who } from '../fields/FindWho.tsx';
import { Button } from '../ui/Button.tsx';
import { DialogFrame } from '../ui/DialogFrame.tsx';
import { Trouble } from '../ui/Trouble.tsx';
import { meApi } from '../wire/me.ts';
import { problemOf, refusalInWords } from '../wire/problem.ts';
import { say } from '../wire/words.ts';
import { floorApi } from './endpoints.ts';

type SheetData = AnswerOf<'sheet'>;

/** Who reads a request besides those who work on it; whoever may share it changes that here. */
export function Sharing({ sheet }: { sheet: SheetData }) {
  const { number, shares, may } = sheet;
  const [end, { isLoading }] = floorApi.useUnshareRequestMutation();
  if (shares.length === 0 && !may.share) return null;
  const stop = async (holder: string, name: string): Promise<void> => {
    const done = await end({ number, holder });
    if ('error' in done) toast.error(refusalInWords(problemOf(done.error)));
    else toast(say('share:ended', { name }));
  };
  return (
    <>
      <h3 className="section-head mt-6">{say('share:title')}</h3>
      <ul>
        {shares.map(({ holder, name, until }) => (
          <li key={holder} className="flex items-baseline justify-between gap-3 border-b border-rule py-1.5">
            <span>
              {name} <span className="text-soft">{until === null ? '' : say('share:untilDay', { day: until })}</span>
            </span>
            {may.share ? (
              <button
                type="button"
                aria-label={say('share:endWith', { name })}
                className="shrink-0 text-[13px] text-green underline"
                disabled={isLoading}
                onClick={() => void stop(holder, name)}
              >
                {say('share:end')}
              </button>
            ) : null}
          </li>
        ))}
        {shares.length === 0 ? <li className="py-1.5 text-soft">{say('share:nobodyYet')}</li> : null}
      </ul>
      {may.share ? <Share number={number} inside={shares.map(({ holder }) => holder)} /> : null}
    </>
  );
}

function Share({ number, inside }: { number: string; inside: readonly string[] }) {
  const [open, setOpen] = useState(false);
  const [whom, setWhom] = useState<{ readonly whom: Who; readonly name: string } | null>(null);
  const [until, setUntil] = useState('');
  const { data: me } = meApi.useMeQuery();
  const [share, { isLoading, error, reset }] = floorApi.useShareRequestMutation();
  const put = async (event: React.FormEvent): Promise<void> => {
    event.preventDefault();
    if (!whom) return;
    const done = await share({ number, body: { with: whom.whom, until: until === '' ? null : until } });
    if ('error' in done) return;
    toast(say('share:done', { name: whom.name }));
    setOpen(false);
    setWhom(null);
    setUntil('');
  };
  return (
    <DialogFrame
      open={open}
      onOpenChange={setOpen}
      reset={reset}
      title={say('share:open')}
      trigger={<Button className="mt-2">{say('share:open')}</Button>}
    >
      <form onSubmit={put} noValidate>
        <p className="mt-2 text-soft">{say('share:hint')}</p>
        <Whoever number={number} inside={inside} choose={setWhom} />
        <label htmlFor="share-until" className="mt-3 block text-[13px] text-soft">
          {say('share:until')}
        </label>
        <DayField
          id="share-until"
          value={until}
          today={(me?.desk.now ?? '').slice(0, 10)}
          notBefore={(me?.desk.now ?? '').slice(0, 10)}
          withTime={false}
          onChange={setUntil}
        />
        {error ? (
          <div className="mt-3">
            <Trouble error={error} />
          </div>
        ) : null}
        <p className="mt-4">
          <Button look="main" type="submit" disabled={isLoading || whom === null}>
            {say('share:now')}
          </Button>
        </p>
      </form>
    </DialogFrame>
  );
}

interface WhoeverProps {
  readonly number: string;
  readonly inside: readonly string[];
  readonly choose: (chosen: { readonly whom: Who; readonly name: string } | null) => void;
}

/** Groups and staff, found by part of their names. */
function Whoever({ number, inside, choose }: WhoeverProps) {
  const [find, setFind] = useState('');
  const looking = useDeferredValue(find.trim());
  const { data } = floorApi.useShareTargetsQuery({ number, query: { find: looking } });
  return (
    <div className="mt-3">
      <FindWho
        id="share-with"
        label={say('share:who')}
        placeholder={say('share:find')}
        none={say('share:noneFound')}
        groups={(data?.groups ?? [])
          .filter(({ key }) => !inside.includes(key))
          .map(({ key, name, members }) => ({ key, name, detail: say('share:groupOf', { count: members }) }))}
        people={(data?.people ?? [])
          .filter(({ id }) => !inside.includes(`@${id}`))
          .map((person) => ({ ...person, detail: '' }))}
        find={setFind}
        choose={(whom, name) => choose(whom && { whom, name })}
      />
    </div>
  );
}
