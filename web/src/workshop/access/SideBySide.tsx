import type { AnswerOf } from '@tolvek/contract';
import { useState } from 'react';
import { say, told } from '../../wire/words.ts';
import { besideEachOther } from './besideEachOther.ts';
import { Because, LOOKS } from './WhoReads.tsx';

type Seen = AnswerOf<'seeAs'>;
type SeenField = Seen['fields'][number];

/** Two requests through the same eyes: field by field, with what is seen otherwise in the one marked. */
export function SideBySide({ seen, isDraft }: { seen: readonly [Seen, Seen]; isDraft: boolean }) {
  const [onlyOther, setOnlyOther] = useState(false);
  const [one, other] = seen;
  const rows = besideEachOther(one.fields, other.fields);
  const apart = rows.filter(({ isAlike }) => !isAlike).length;
  const numbers = [one.number, other.number].join(', ');
  return (
    <div className="mt-3 border border-brass-mark bg-sheet" aria-live="polite">
      <p className="bg-brass-wash px-3 py-2">
        <strong className="first-letter:uppercase">
          {say(isDraft ? 'accessPlan:pairByDraft' : 'accessPlan:pairBy', { who: told(one.who), numbers })}
        </strong>{' '}
        {say('accessPlan:seenOnly')}
      </p>
      <div className="overflow-x-auto px-3 pb-3">
        <p className="mt-3 flex flex-wrap items-center gap-x-4">
          {rows.length > 0 ? say('accessPlan:pairApart', { count: apart }) : null}
          {apart > 0 ? (
            <label className="flex min-h-6 items-center gap-2">
              <input
                type="checkbox"
                className="accent-green"
                checked={onlyOther}
                onChange={(event) => setOnlyOther(event.target.checked)}
              />
              {say('accessPlan:pairOnlyApart')}
            </label>
          ) : null}
        </p>
        <table className="mt-2 w-full border-collapse">
          <thead>
            <tr className="border-b border-rule-strong text-left align-bottom">
              <th scope="col" className="py-1.5 pr-4 text-[13px] font-semibold text-soft">
                {rows.length > 0 ? say('accessPlan:pairField') : null}
              </th>
              {seen.map((each) => (
                <th key={each.number} scope="col" className="py-1.5 pr-4 font-normal">
                  <span className="font-mono text-[13px]">{each.number}</span> · {each.stage}
                  {each.edition === null ? null : (
                    <span className="block text-[13px] text-soft">
                      {say('accessPlan:inEdition', { edition: each.edition })}
                    </span>
                  )}
                  {each.sees === 'nothing' ? (
                    <span className="block text-[13px] text-brick">{say('accessPlan:seesNothing')}</span>
                  ) : null}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {rows.map(({ key, label, sides, isAlike }) =>
              onlyOther && isAlike ? null : (
                <tr key={key} className="border-b border-rule align-top">
                  <th
                    scope="row"
                    className={`py-1.5 pr-4 pl-2 text-left font-normal text-soft ${isAlike ? 'border-l-[3px] border-l-transparent' : 'border-l-[3px] border-l-brass-mark'}`}
                  >
                    {label}
                    {isAlike ? null : <span className="sr-only"> ({say('accessPlan:pairDiffers')})</span>}
                  </th>
                  {sides.map((field, place) => (
                    <td key={seen[place]?.number} className="max-w-72 py-1.5 pr-4">
                      <Side field={field} />
                    </td>
                  ))}
                </tr>
              ),
            )}
          </tbody>
        </table>
      </div>
    </div>
  );
}

/** A field as it is seen in one of them. */
function Side({ field }: { field: SeenField | undefined }) {
  if (!field) return <span className="text-soft">{say('accessPlan:pairNotThere')}</span>;
  const { level, isMasked, shown, rule, layout } = field;
  if (level === 'hidden' && !isMasked)
    return (
      <>
        <span className="font-semibold text-brick">{say('accessPlan:cell.hidden')}</span>
        <span className="block text-[13px]">
          <Because rule={rule} isAlone />
        </span>
      </>
    );
  return (
    <>
      <span className="block whitespace-pre-line">
        {isMasked ? (
          <span className="text-soft italic">{say('accessPlan:masked')}</span>
        ) : (
          told(shown) || <span className="text-soft">–</span>
        )}
      </span>
      <span className="block text-[13px]">
        {level === 'hidden' ? null : <span className={LOOKS[level]}>{say(`accessPlan:cell.${level}`)}</span>}
        <Because rule={rule} isAlone={level === 'hidden'} />
        {layout === null ? null : <span className="block text-soft">{say(`accessPlan:layout.${layout}`)}</span>}
      </span>
    </>
  );
}
