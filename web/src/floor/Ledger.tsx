import type { AnswerOf, TrayKey } from '@tolvek/contract';
import { memo, useEffect, useRef } from 'react';
import { Link } from 'react-router';
import { Button } from '../ui/Button.tsx';
import { Fuse } from '../ui/Fuse.tsx';
import { StageMark } from '../ui/StageMark.tsx';
import { Trouble } from '../ui/Trouble.tsx';
import { say, told, useLanguage } from '../wire/words.ts';
import { floorApi } from './endpoints.ts';
import { useRowKeys } from './useRowKeys.ts';

interface LedgerProps {
  readonly tray: TrayKey;
  readonly find: string;
  readonly open: string | undefined;
  readonly suffix: string;
  readonly empty: string;
  readonly onOpen: (number: string) => void;
  /** Those that are chosen, with their versions; null where none can be. */
  readonly chosen: ReadonlyMap<string, number> | null;
  readonly choose: (rows: readonly ChosenRow[], isIn: boolean) => void;
}

/** A row as far as it is chosen: on its version. */
export type ChosenRow = Pick<AnswerOf<'ledger'>['rows'][number], 'number' | 'version'>;

/** The ledger of a tray. Arrow keys or J and K go through it; Enter opens. */
export function Ledger({ tray, find, open, suffix, empty, onOpen, chosen, choose }: LedgerProps) {
  const { data, error, isFetching, hasNextPage, fetchNextPage, refetch } = floorApi.useLedgerInfiniteQuery({
    tray,
    find,
  });
  const rows = data?.pages.flatMap((page) => page.rows) ?? [];
  const body = useRef<HTMLTableSectionElement>(null);
  useRowKeys(rows, open, onOpen);
  useEffect(() => {
    if (open) body.current?.querySelector('[aria-current]')?.scrollIntoView({ block: 'nearest' });
  }, [open]);
  if (error)
    return (
      <div className="px-[22px] pt-4">
        <Trouble error={error} again={refetch} />
      </div>
    );
  const total = data?.pages[0]?.total ?? 0;
  const narrow = open !== undefined;
  return (
    <div className="mt-3 min-h-0 flex-1 overflow-auto px-[22px] pb-6 contain-content">
      <table className="w-full table-fixed border-separate border-spacing-0">
        <thead>
          <tr>
            {chosen ? (
              <th scope="col" className="sticky top-0 w-9 border-b border-rule-strong bg-paper px-2 py-1.5 text-left">
                <input
                  type="checkbox"
                  className="accent-green"
                  aria-label={say('floor:chooseAll')}
                  checked={rows.length > 0 && rows.every((row) => chosen.has(row.number))}
                  onChange={({ target }) => choose(rows, target.checked)}
                />
              </th>
            ) : null}
            {[
              say(tray === 'things' ? 'floor:col.thing' : 'floor:col.what'),
              say('floor:col.stage'),
              ...(narrow ? [] : [tray === 'things' ? say('floor:col.team') : say('floor:col.teamHandler')]),
              tray === 'things' ? say('floor:col.form') : say('floor:col.due'),
            ].map((head, index) => (
              <th
                key={head}
                scope="col"
                className={`sticky top-0 border-b border-rule-strong bg-paper px-2 py-1.5 text-left text-[11.5px] font-semibold text-soft ${index === 0 ? '' : narrow ? 'w-[142px]' : 'w-[172px]'}`}
              >
                {head}
              </th>
            ))}
          </tr>
        </thead>
        <tbody ref={body}>
          {rows.map((row) => (
            <Row
              key={row.number}
              row={row}
              here={row.number === open}
              narrow={narrow}
              to={`/floor/${tray}/${row.number}${suffix}`}
              isChosen={chosen ? chosen.has(row.number) : null}
              choose={choose}
            />
          ))}
        </tbody>
      </table>
      {rows.length === 0 && !isFetching ? (
        <p className="px-2 py-6 text-soft">{find ? say('floor:noneFound', { find }) : empty}</p>
      ) : null}
      {rows.length > 0 ? (
        <p className="flex items-center gap-4 px-2 py-3 text-soft">
          {countOf(tray, rows.length, total)}
          {data?.pages[0]?.newest ? ` ${say('floor:newestOnly')}` : null}
          {hasNextPage ? (
            <Button disabled={isFetching} onClick={() => fetchNextPage()}>
              {say('floor:showMore')}
            </Button>
          ) : null}
        </p>
      ) : null}
    </div>
  );
}

function countOf(tray: TrayKey, shown: number, count: number): string {
  if (tray === 'things')
    return shown < count ? say('floor:thingsOf', { shown, count }) : say('floor:things', { count });
  return shown < count ? say('floor:requestsOf', { shown, count }) : say('floor:requests', { count });
}

const Row = memo(function Row({
  row,
  here,
  narrow,
  to,
  isChosen,
  choose,
}: {
  row: AnswerOf<'ledger'>['rows'][number];
  here: boolean;
  narrow: boolean;
  to: string;
  isChosen: boolean | null;
  choose: LedgerProps['choose'];
}) {
  useLanguage();
  const cell = `h-[50px] border-b px-2 py-1.5 align-middle truncate ${here ? 'border-green bg-sheet' : 'border-rule'}`;
  return (
    <tr aria-current={here ? 'true' : undefined} className="group">
      {isChosen === null ? null : (
        <td className={cell}>
          <input
            type="checkbox"
            className="accent-green"
            aria-label={say('floor:chooseOne', { number: row.number })}
            checked={isChosen}
            onChange={({ target }) => choose([row], target.checked)}
          />
        </td>
      )}
      <td className={`${cell} ${here ? 'shadow-[inset_3px_0_var(--green)]' : ''}`}>
        <Link to={to} className="subject block truncate text-[16px] text-ink no-underline group-hover:underline">
          {told(row.subject)}
        </Link>
        <small className="block truncate text-[12.5px] text-soft">
          <span className="mr-2 font-mono">{row.number}</span>
          {row.requester}
          {row.priority === 'high' ? (
            <span className="ml-2 font-semibold text-brass">{say('floor:highPriority')}</span>
          ) : null}
        </small>
      </td>
      <td className={cell}>
        <StageMark phase={row.stage.phase} role={row.stage.role} />
        {row.stage.label}
      </td>
      {narrow ? null : (
        <td className={cell}>
          {row.team}
          {row.thing ? null : (
            <small className="block truncate text-[12.5px] text-soft">{row.handler ?? say('floor:noHandler')}</small>
          )}
        </td>
      )}
      <td className={cell}>
        {row.thing ? (
          <span className="text-soft">{row.form}</span>
        ) : row.fuse ? (
          <Fuse fuse={row.fuse} for={row.dueFor} />
        ) : null}
      </td>
    </tr>
  );
});
