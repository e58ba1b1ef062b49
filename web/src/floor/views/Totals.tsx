import type { AnswerOf } from '@tolvek/contract';
import type { Field } from '@tolvek/core/register';
import { calledIn, canDate, conditionFor, type TotalsShape, totalSaid, VIEW_LOOKS_AT } from '@tolvek/core/view';
import { say, told } from '../../wire/words.ts';

type Looked = AnswerOf<'lookAtTotals'>;
type Line = Looked['lines'][number];

interface TotalsProps {
  readonly shape: TotalsShape;
  readonly fields: readonly Field[];
  readonly looked: Looked;
  readonly rowsOf: (conditions: readonly string[]) => void;
}

const HEAD = 'border-b border-rule-strong py-1 text-[12px] font-semibold text-soft';

/** A view as totals: what is added up for each value of a thing, with all of it below. A number of rows opens them. */
export function Totals({ shape, fields, looked, rowsOf }: TotalsProps) {
  const isTime = canDate(shape.by, fields);
  if (looked.more)
    return <p className="px-[22px] py-6 text-soft">{say('views:tooManyForChart', { count: looked.total })}</p>;
  if (looked.total === 0) return <p className="px-[22px] py-6 text-soft">{say('views:empty')}</p>;
  const valueAt = ({ step, part }: Line): Looked['steps'][number] | undefined =>
    part === null ? looked.steps[step ?? -1] : looked.parts[part];
  const called = (line: Line): string => {
    if (line.step === null) return say('views:all');
    const found = valueAt(line);
    if (found && isTime && line.part === null) return say(`views:stretch.${shape.each}`, { day: String(found.value) });
    return told(found?.label ?? '') || say('views:noValue');
  };
  const conditions = ({ step, part }: Line): readonly string[] => [
    ...(step === null ? [] : [conditionFor(shape.by, looked.steps[step]?.value ?? null, fields, shape.each)]),
    ...(part === null || shape.parts === null
      ? []
      : [conditionFor(shape.parts, looked.parts[part]?.value ?? null, fields)]),
  ];
  return (
    <div className="mt-2 min-h-0 flex-1 overflow-auto px-[22px] pb-6 contain-content">
      <table className="border-separate border-spacing-0 tabular-nums">
        <caption className="sr-only">{say('views:shape.totals', { by: told(calledIn(shape.by, fields)) })}</caption>
        <thead className="sticky top-0 z-10 bg-paper">
          <tr>
            <th scope="col" className={`${HEAD} pr-6 text-left`}>
              {told(calledIn(shape.by, fields))}
            </th>
            {shape.totals.map((total, place) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: a total is known by its place
              <th key={place} scope="col" className={`${HEAD} max-w-44 pl-7 text-right`}>
                {told(totalSaid(total, fields))}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {looked.lines.map((line) => {
            const isAll = line.step === null;
            const isHead = !isAll && line.part === null && looked.parts.length > 0;
            const name = called(line);
            return (
              <tr
                key={`${line.step} ${line.part}`}
                className={`${isAll ? 'font-semibold [&>*]:border-t [&>*]:border-t-ink [&>*]:border-b-0' : ''} ${isHead ? 'font-semibold [&>*]:pt-3' : ''}`}
              >
                <th
                  scope="row"
                  className={`border-b border-rule py-1 pr-6 text-left ${isHead ? 'subject text-[15.5px]' : isAll ? '' : 'font-normal'} ${line.part === null ? '' : 'pl-5 text-soft'}`}
                >
                  {name}
                </th>
                {shape.totals.map((total, place) => {
                  const words = told(line.totals[place]?.said ?? '') || '–';
                  return (
                    // biome-ignore lint/suspicious/noArrayIndexKey: a total is known by its place
                    <td key={place} className="border-b border-rule py-1 pl-7 text-right whitespace-nowrap">
                      {total.is === 'count' && line.count > 0 ? (
                        <button
                          type="button"
                          className="min-h-6 text-green underline decoration-dotted underline-offset-3"
                          aria-label={say('views:rowsBehind', { figure: words, what: name })}
                          onClick={() => rowsOf(conditions(line))}
                        >
                          {words}
                        </button>
                      ) : (
                        <span className={words === '–' || line.count === 0 ? 'text-soft' : ''}>{words}</span>
                      )}
                    </td>
                  );
                })}
              </tr>
            );
          })}
        </tbody>
      </table>
      {looked.isAll ? null : (
        <p className="mt-2 text-[13px] text-soft">{say('views:notAll', { count: VIEW_LOOKS_AT })}</p>
      )}
    </div>
  );
}
