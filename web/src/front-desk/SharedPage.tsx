import type { AnswerOf } from '@tolvek/contract';
import { useEffect, useState } from 'react';
import { useParams } from 'react-router';
import { Button } from '../ui/Button.tsx';
import { Column } from '../ui/Column.tsx';
import { ToSignIn } from '../ui/ToSignIn.tsx';
import { Trouble } from '../ui/Trouble.tsx';
import { useTitle } from '../ui/useTitle.ts';
import { meApi } from '../wire/me.ts';
import { say, told } from '../wire/words.ts';
import { frontDeskApi } from './endpoints.ts';

type Page = AnswerOf<'sharedResult'>;

/** A shared result, for one of the staff it is for. */
export function SharedPage() {
  const { id = '' } = useParams();
  const { data: me } = meApi.useMeQuery();
  const [after, setAfter] = useState('');
  const { data, error, refetch } = frontDeskApi.useSharedResultQuery({ id, query: after === '' ? {} : { after } });
  if (me && !me.person) return <ToSignIn />;
  return (
    <Shared page={data} error={error} again={refetch} more={setAfter} file={`/api/shared-results/${id}/rows.csv`} />
  );
}

/** A shared result, for whoever has its link. */
export function SharedByLink() {
  const { token = '' } = useParams();
  const [after, setAfter] = useState('');
  const { data, error, refetch } = frontDeskApi.useSharedByLinkQuery({ token, query: after === '' ? {} : { after } });
  return <Shared page={data} error={error} again={refetch} more={setAfter} file={`/api/shared/${token}/rows.csv`} />;
}

interface SharedProps {
  readonly page: Page | undefined;
  readonly error: unknown;
  readonly again: () => void;
  readonly more: (after: string) => void;
  readonly file: string;
}

/** The requests of a shared result: on a phone one under the other, where there is room as a table. */
function Shared({ page, error, again, more, file }: SharedProps) {
  useTitle(page?.name ?? '');
  const [before, setBefore] = useState<readonly Page['rows'][number][]>([]);
  const [shown, setShown] = useState<Page | null>(null);
  useEffect(() => {
    if (page) setShown(page);
  }, [page]);
  if (error)
    return (
      <Column>
        <Trouble error={error} again={again} />
      </Column>
    );
  if (!shown) return null;
  const { name, by, until, facts, columns, rows, total, more: isMore, next, takesOut } = shown;
  const heads = [...facts.map((fact) => say(`sharedPage:fact.${fact}`)), ...columns.map(({ label }) => label)];
  const all = [...before, ...rows];
  return (
    <main className="mx-auto max-w-5xl px-4 pt-6 pb-16 sm:px-6">
      <h1>{name}</h1>
      <p className="mt-1 text-soft">{say('sharedPage:sharedBy', { name: by, day: until })}</p>
      <p className="mt-3 flex flex-wrap items-baseline gap-x-6 gap-y-1">
        <span>{say(isMore ? 'sharedPage:moreThan' : 'sharedPage:matches', { count: total })}</span>
        {takesOut ? (
          <a href={file} download>
            {say('sharedPage:takeFile')}
          </a>
        ) : null}
      </p>
      {all.length === 0 ? (
        <p className="mt-6">{say('sharedPage:empty')}</p>
      ) : (
        <div className="mt-4 border-t border-rule-strong sm:overflow-x-auto">
          <table className="block w-full border-collapse sm:table">
            <thead className="sr-only sm:not-sr-only sm:table-header-group">
              <tr className="border-b border-rule-strong text-left text-[13px] text-soft">
                {heads.map((head) => (
                  <th key={head} scope="col" className="py-2 pr-4 align-bottom font-semibold">
                    {head}
                  </th>
                ))}
              </tr>
            </thead>
            <tbody className="block sm:table-row-group">
              {all.map(({ facts: told_, cells }, index) => (
                // biome-ignore lint/suspicious/noArrayIndexKey: rows only ever join at the end
                <tr key={index} className="block border-b border-rule py-3 sm:table-row sm:py-0">
                  {[...told_, ...cells].map((words, place) => (
                    <td
                      key={heads[place]}
                      className={`grid grid-cols-[8.5rem_1fr] gap-x-3 py-0.5 align-top sm:table-cell sm:py-2 sm:pr-4 ${place < facts.length ? 'sm:whitespace-nowrap' : ''}`}
                    >
                      <span className="text-[13px] text-soft sm:hidden" aria-hidden="true">
                        {heads[place]}
                      </span>
                      <span className="min-w-0 break-words whitespace-pre-line">{told(words) || '—'}</span>
                    </td>
                  ))}
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
      {next === null ? null : (
        <p className="mt-5">
          <Button
            onClick={() => {
              setBefore(all);
              setShown({ ...shown, rows: [], next: null });
              more(next);
            }}
          >
            {say('sharedPage:more')}
          </Button>
        </p>
      )}
    </main>
  );
}
