import type { AnswerOf } from '@tolvek/contract';
import type { Field } from '@tolvek/core/register';
import { calledIn, kindIn, VIEW_LOOKS_AT, type ViewDesign } from '@tolvek/core/view';
import { say, told } from '../../wire/words.ts';
import { FIGURES } from './grid.ts';

type Looked = AnswerOf<'lookThrough'>;

/** What a group is called. */
export const groupSaid = ({ path }: Pick<Looked['groups'][number], 'path'>): string =>
  path.map((label) => told(label) || say('views:noValue')).join(' · ');

/** What columns add up to, each with its name; of nothing, nothing is said. */
export const sumsSaid = (
  sums: Looked['sums'],
  { view, fields }: { readonly view: ViewDesign; readonly fields: readonly Field[] },
): readonly string[] =>
  sums
    .filter(({ sum }) => sum !== '')
    .map(({ column, sum }) => `${told(calledIn(view.columns[column]?.of ?? '', fields))} ${told(sum)}`);

/** What the figures of all rows add up to, at the foot of a table. */
export function Sums({ view, fields, first }: { view: ViewDesign; fields: readonly Field[]; first: Looked }) {
  const sumOf = (place: number) => first.sums.find(({ column }) => column === place)?.sum;
  const isFigure = (subject: string): boolean => FIGURES.has(kindIn(subject, fields) ?? '');
  return (
    <tfoot>
      <tr>
        {view.columns.map(({ of }, place) => (
          <td
            key={of}
            className={`sticky bottom-0 z-10 truncate border-t border-rule-strong bg-paper px-2 py-1.5 font-semibold ${isFigure(of) ? 'text-right tabular-nums' : ''}`}
          >
            {sumOf(place) === undefined ? (
              place === 0 ? (
                say('views:all')
              ) : null
            ) : (
              <span title={say('views:sumOf', { what: told(calledIn(of, fields)) })}>{told(sumOf(place) ?? '')}</span>
            )}
          </td>
        ))}
      </tr>
    </tfoot>
  );
}

/** How many rows there are, and how many of them are there so far. */
export function HowMany({
  view,
  first,
  shown,
  isLoading,
  isAddingUp,
}: {
  view: ViewDesign;
  first: Looked;
  shown: number;
  isLoading: boolean;
  isAddingUp: boolean;
}) {
  return (
    <>
      {shown === 0 && !isLoading && first.findings.length === 0 ? (
        <p className="px-2 py-6 text-soft">{say('views:empty')}</p>
      ) : null}
      {shown > 0 ? (
        <p className="flex flex-wrap items-center gap-4 px-2 py-3 text-soft">
          {countOf(shown, first)}
          {first.isAll ? null : <span>{say('views:notAll', { count: VIEW_LOOKS_AT })}</span>}
          {first.more && (isAddingUp || view.groups.length > 0) ? (
            <span>{say(isAddingUp ? 'views:addingUp' : 'views:noGroups')}</span>
          ) : null}
          {!first.more && first.moreGroups ? (
            <span>{say('views:fewGroups', { count: first.groups.length })}</span>
          ) : null}
        </p>
      ) : null}
    </>
  );
}

function countOf(shown: number, { total, more }: Looked): string {
  if (more) return say('views:moreThan', { count: total });
  return shown < total ? say('views:rowsOf', { shown, count: total }) : say('views:rows', { count: total });
}
