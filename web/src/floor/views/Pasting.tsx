import type { AnswerOf } from '@tolvek/contract';
import type { Field } from '@tolvek/core/register';
import { calledIn } from '@tolvek/core/view';
import { useEffect, useState } from 'react';
import { toast } from 'sonner';
import { Button } from '../../ui/Button.tsx';
import { DialogFrame } from '../../ui/DialogFrame.tsx';
import { Trouble } from '../../ui/Trouble.tsx';
import { say, told } from '../../wire/words.ts';
import { floorApi } from '../endpoints.ts';
import type { Meant } from './block.ts';

type Answer = AnswerOf<'changeCells'>;

interface Refused {
  readonly number: string;
  readonly subject: string | null;
  readonly why: string;
}

/** Requests that are changed at once. */
export const MOST = 200;
/** What can’t be changed that is told one by one. */
const TOLD = 12;

const countOf = ({ rows }: Answer): number => rows.reduce((sum, { changed }) => sum + changed.length, 0);

const refusedIn = ({ rows }: Answer): readonly Refused[] =>
  rows.flatMap(({ number, refused }) =>
    refused.map(({ field, why, fix }) => ({ number, subject: field, why: `${told(why)} ${told(fix)}` })),
  );

interface PastingProps {
  readonly meant: Meant;
  readonly fields: readonly Field[];
  /** Ends it: with the cells that could not be changed, by request and subject, where any was changed. */
  readonly close: (wrong: readonly Refused[]) => void;
}

/** What cells would become that are put into a view: shown first, then the good ones changed, and taken back in one press. */
export function Pasting({ meant, fields, close }: PastingProps) {
  const [look, { error: unseen }] = floorApi.useChangeCellsMutation();
  const [change, { error, isLoading }] = floorApi.useChangeCellsMutation();
  const [takeBack] = floorApi.useTakeBackCellsMutation();
  const [plan, setPlan] = useState<Answer | null>(null);
  useEffect(() => {
    let isOver = false;
    const { rows } = meant;
    if (rows.length === 0) setPlan({ applied: false, rows: [] });
    else
      void look({ body: { rows: [...rows], apply: false } }).then(({ data }) => {
        if (data && !isOver) setPlan(data);
      });
    return () => {
      isOver = true;
    };
  }, [meant, look]);
  const closed = meant.closed.map(
    ({ number, subject }): Refused => ({
      ...{ number, subject },
      why: `${say('views:factNotTyped')} ${say('views:factChoose')}`,
    }),
  );
  const refused = plan ? [...refusedIn(plan), ...closed] : [];
  const count = plan ? countOf(plan) : 0;
  /** What is wrong where, with the name of its column, unless it says that itself. */
  const inWords = ({ subject, why }: Refused): string => {
    const called = subject === null ? '' : told(calledIn(subject, fields));
    return called === '' || why.includes(called) ? why : `${called}: ${why}`;
  };
  const back = async (rows: Answer['rows']): Promise<void> => {
    const done = await takeBack({ body: { rows: rows.map(({ number, version }) => ({ number, version })) } });
    if (!done.data) return;
    const { back: now, refused: left } = done.data;
    if (now > 0) toast(say('views:pasteBack', { count: now }));
    if (left.length > 0) toast.error(say('views:pasteNotBack', { count: left.length }));
  };
  const put = async (): Promise<void> => {
    const { data } = await change({ body: { rows: [...meant.rows], apply: true } });
    if (!data) return;
    const changed = data.rows.filter((row) => row.changed.length > 0);
    toast(say('views:pasted', { count: countOf(data) }), {
      duration: 20_000,
      action: { label: say('views:pasteUndo'), onClick: () => void back(changed) },
    });
    close([...refusedIn(data), ...closed]);
  };
  const cells = meant.rows.reduce((sum, row) => sum + Object.keys(row.cells).length, meant.closed.length);
  const requests = new Set([...meant.rows, ...meant.closed].map(({ number }) => number)).size;
  return (
    <DialogFrame
      open
      onOpenChange={() => close([])}
      title={say('views:pasting', {
        cells: say('views:pasteCells', { count: cells }),
        requests: say('views:pasteRequests', { count: requests }),
      })}
    >
      <div className="mt-3" aria-live="polite">
        {plan ? (
          <p>{count === 0 ? say('views:pasteSame') : say('views:pasteChanges', { count })}</p>
        ) : unseen ? (
          <Trouble error={unseen} />
        ) : (
          <p className="text-soft">{say('views:pasteLooking')}</p>
        )}
        {meant.more ? <p className="mt-1 text-brass">{say('views:pasteMost', { count: MOST })}</p> : null}
        {refused.length > 0 ? (
          <>
            <p className="mt-3 text-brick">{say('views:pasteNot', { count: refused.length })}</p>
            <ul className="mt-1">
              {refused.slice(0, TOLD).map((each) => (
                <li
                  key={`${each.number} ${each.subject} ${each.why}`}
                  className="border-b border-rule py-1.5 text-[13px]"
                >
                  <span className="font-mono">{each.number}</span> {inWords(each)}
                </li>
              ))}
              {refused.length > TOLD ? <li className="py-1.5 text-soft">…</li> : null}
            </ul>
          </>
        ) : null}
      </div>
      {error ? <Trouble error={error} /> : null}
      <p className="mt-4 flex flex-wrap gap-3">
        {count > 0 ? (
          <Button autoFocus look="main" disabled={isLoading} onClick={() => void put()}>
            {say('views:pasteNow', { count })}
          </Button>
        ) : null}
        <Button onClick={() => close([])}>{say('common:cancel')}</Button>
      </p>
    </DialogFrame>
  );
}
