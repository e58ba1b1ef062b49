import type { AnswerOf } from '@tolvek/contract';
import type { Field } from '@tolvek/core/register';
import { calledIn, kindIn, VIEW_LOOKS_AT, type ViewDesign } from '@tolvek/core/view';
import { Fragment, useEffect, useRef } from 'react';
import { Link, useNavigate } from 'react-router';
import { Button } from '../../ui/Button.tsx';
import { ColourMark } from '../../ui/ColourMark.tsx';
import { say, told } from '../../wire/words.ts';
import { useRowKeys } from '../useRowKeys.ts';
import { cellIn } from './cells.tsx';
import { originOf } from './viewDraft.ts';

type Looked = AnswerOf<'lookThrough'>;
type Row = Looked['rows'][number];

interface ViewTableProps {
  readonly view: ViewDesign;
  readonly fields: readonly Field[];
  readonly pages: readonly Looked[];
  readonly open: string | undefined;
  readonly to: (number: string) => string;
  readonly more: (() => void) | null;
  readonly isLoading: boolean;
}

/** Kinds that stand at the right of their columns, so that figures can be compared. */
const FIGURES: ReadonlySet<string> = new Set(['number', 'money', 'duration']);

/** The rows of a view, in its groups. Arrow keys or J and K go through them; Enter opens. */
export function ViewTable({ view, fields, pages, open, to, more, isLoading }: ViewTableProps) {
  const navigate = useNavigate();
  const body = useRef<HTMLTableSectionElement>(null);
  const rows = pages.flatMap((page) => page.rows);
  useRowKeys(rows, open, (number) => void navigate(to(number)));
  useEffect(() => {
    if (open) body.current?.querySelector('[aria-current]')?.scrollIntoView({ block: 'nearest' });
  }, [open]);
  const [first] = pages;
  if (!first) return null;
  const groups = new Map(first.groups.map((group) => [group.id, group]));
  const isFigure = (subject: string): boolean => FIGURES.has(kindIn(subject, fields) ?? '');
  return (
    <div className="mt-2 min-h-0 flex-1 overflow-auto px-[22px] pb-6 contain-content">
      <table className="w-full border-separate border-spacing-0" aria-label={say('views:rowsLabel')}>
        <thead>
          <tr>
            {view.columns.map(({ of, width }, place) => {
              const origin = originOf(of, fields);
              return (
                <th
                  key={of}
                  scope="col"
                  style={width === undefined ? undefined : { width }}
                  className={`sticky top-0 border-b border-rule-strong bg-paper px-2 py-1.5 text-[12px] font-semibold whitespace-nowrap text-soft ${place === 0 ? 'left-0 z-20' : 'z-10'} ${isFigure(of) ? 'text-right' : 'text-left'}`}
                >
                  {told(calledIn(of, fields))}
                  {origin === 'fact' || origin === 'asked' ? null : (
                    <i className="subject ml-1.5 text-[12px] font-normal text-brass italic">
                      {say(`views:origin.${origin}`)}
                    </i>
                  )}
                </th>
              );
            })}
          </tr>
        </thead>
        <tbody ref={body}>
          {rows.map((row, at) => {
            const group = rows[at - 1]?.group === row.group ? undefined : groups.get(row.group);
            return (
              <Fragment key={row.number}>
                {group ? <GroupHead group={group} view={view} fields={fields} /> : null}
                <ViewRow row={row} view={view} fields={fields} here={row.number === open} to={to(row.number)} />
              </Fragment>
            );
          })}
        </tbody>
        {first.sums.length > 0 && rows.length > 0 ? (
          <tfoot>
            <tr>
              {view.columns.map(({ of }, place) => {
                const sum = first.sums.find(({ column }) => column === place)?.sum;
                return (
                  <td
                    key={of}
                    className={`sticky bottom-0 border-t border-rule-strong bg-paper px-2 py-1.5 font-semibold ${isFigure(of) ? 'text-right tabular-nums' : ''}`}
                  >
                    {sum === undefined ? (
                      place === 0 ? (
                        say('views:all')
                      ) : null
                    ) : (
                      <span title={say('views:sumOf', { what: told(calledIn(of, fields)) })}>{told(sum)}</span>
                    )}
                  </td>
                );
              })}
            </tr>
          </tfoot>
        ) : null}
      </table>
      {rows.length === 0 && !isLoading && first.findings.length === 0 ? (
        <p className="px-2 py-6 text-soft">{say('views:empty')}</p>
      ) : null}
      {rows.length > 0 ? (
        <p className="flex flex-wrap items-center gap-4 px-2 py-3 text-soft">
          {countOf(rows.length, first)}
          {first.isAll ? null : <span>{say('views:notAll', { count: VIEW_LOOKS_AT })}</span>}
          {first.more && view.groups.length > 0 ? <span>{say('views:noGroups')}</span> : null}
          {!first.more && first.moreGroups ? (
            <span>{say('views:fewGroups', { count: first.groups.length })}</span>
          ) : null}
          {more ? (
            <Button disabled={isLoading} onClick={more}>
              {say('views:more')}
            </Button>
          ) : null}
        </p>
      ) : null}
    </div>
  );
}

function countOf(shown: number, { total, more }: Looked): string {
  if (more) return say('views:moreThan', { count: total });
  return shown < total ? say('views:rowsOf', { shown, count: total }) : say('views:rows', { count: total });
}

function GroupHead({
  group,
  view,
  fields,
}: {
  group: Looked['groups'][number];
  view: ViewDesign;
  fields: readonly Field[];
}) {
  const sums = group.sums.filter(({ sum }) => sum !== '');
  return (
    <tr>
      <th
        scope="rowgroup"
        colSpan={view.columns.length}
        className="border-b border-rule-strong px-2 pt-4 pb-1 text-left font-normal"
      >
        <span className="subject text-[16px]">
          {group.path.map((each) => told(each) || say('views:noValue')).join(' · ')}
        </span>
        <small className="ml-2 text-[13px] text-soft">
          {[
            say('views:groupRows', { count: group.count }),
            ...sums.map(({ column, sum }) => {
              const subject = view.columns[column]?.of ?? '';
              return `${told(calledIn(subject, fields))} ${told(sum)}`;
            }),
          ].join(' · ')}
        </small>
      </th>
    </tr>
  );
}

function ViewRow({
  row,
  view,
  fields,
  here,
  to,
}: {
  row: Row;
  view: ViewDesign;
  fields: readonly Field[];
  here: boolean;
  to: string;
}) {
  const mark = row.mark === null ? undefined : view.marks[row.mark];
  return (
    <tr
      aria-current={here ? 'true' : undefined}
      className="group"
      style={mark ? { background: `color-mix(in srgb, var(--mark-${mark.colour}) 13%, transparent)` } : undefined}
    >
      {view.columns.map(({ of }, place) => {
        const isFigure = FIGURES.has(kindIn(of, fields) ?? '');
        const content = cellIn(row, of, view);
        return (
          <td
            key={of}
            className={`h-8 max-w-[22rem] truncate border-b px-2 py-1 align-middle ${here ? 'border-green bg-sheet' : 'border-rule'} ${isFigure ? 'text-right tabular-nums' : ''} ${place === 0 && here ? 'shadow-[inset_3px_0_var(--green)]' : ''}`}
          >
            {place === 0 ? (
              <Link to={to} className="text-ink no-underline group-hover:underline">
                {mark ? (
                  <span className="mr-2 text-[12.5px] font-semibold">
                    <ColourMark colour={mark.colour} />
                    {mark.word}
                  </span>
                ) : null}
                {content || row.number}
              </Link>
            ) : (
              content
            )}
          </td>
        );
      })}
    </tr>
  );
}
