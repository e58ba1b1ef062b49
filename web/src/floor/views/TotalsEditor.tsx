import type { AnswerOf } from '@tolvek/contract';
import type { Scope } from '@tolvek/core/expression';
import { MEASURES, MOST_OF_VIEW, type Total, type TotalsShape } from '@tolvek/core/view';
import { useId } from 'react';
import { ConditionBuilder } from '../../conditions/ConditionBuilder.tsx';
import { firstCondition } from '../../conditions/firstCondition.ts';
import { say } from '../../wire/words.ts';
import { GoesBy } from './ShapeParts.tsx';
import { SubjectChoice } from './SubjectChoice.tsx';
import { firstTotal } from './totals.ts';
import { subjectsFor } from './viewDraft.ts';

interface TotalsEditorProps {
  readonly shape: TotalsShape;
  readonly nameable: AnswerOf<'nameable'>;
  readonly scope: Scope;
  readonly set: (shape: TotalsShape) => void;
}

const KINDS = [...MEASURES, 'rate', 'share'] as const;

/** For what totals are taken, and which. */
export function TotalsEditor({ shape, nameable, scope, set }: TotalsEditorProps) {
  const { fields } = nameable;
  const put = (place: number, total: Total | null): void =>
    set({
      ...shape,
      totals: [...shape.totals.slice(0, place), ...(total ? [total] : []), ...shape.totals.slice(place + 1)],
    });
  return (
    <>
      <GoesBy
        going={shape}
        within={say('views:within')}
        set={(going) => set({ ...shape, ...going })}
        {...{ nameable }}
      />
      <span className="self-start pt-1.5 text-soft">{say('views:totals')}</span>
      <ul className="grid gap-2 [&_select]:w-36">
        {shape.totals.map((total, place) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: a total is known by its place
          <li key={place} className="border-b border-rule pb-2">
            <OneTotal
              {...{ total, fields, scope, place }}
              set={(changed) => put(place, changed)}
              remove={shape.totals.length > 1 ? () => put(place, null) : null}
            />
          </li>
        ))}
        {shape.totals.length < MOST_OF_VIEW.totals ? (
          <li>
            <button
              type="button"
              className="min-h-6 text-green underline"
              onClick={() =>
                put(shape.totals.length, firstTotal('sum', fields, scope) ?? firstTotal('count', fields, scope))
              }
            >
              {say('views:addTotal')}
            </button>
          </li>
        ) : null}
      </ul>
    </>
  );
}

interface OneTotalProps {
  readonly total: Total;
  readonly fields: AnswerOf<'nameable'>['fields'];
  readonly scope: Scope;
  readonly place: number;
  readonly set: (total: Total) => void;
  readonly remove: (() => void) | null;
}

function OneTotal({ total, fields, scope, place, set, remove }: OneTotalProps) {
  const id = useId();
  const sums = subjectsFor('sums', fields);
  const said = say('views:nthTotal', { place: place + 1 });
  const choice = (part: 'of' | 'per', value: string, choose: (subject: string) => void) => (
    <>
      <label htmlFor={`${id}-${part}`} className={part === 'of' ? 'sr-only' : 'text-soft'}>
        {say(part === 'of' ? 'views:measureOf' : 'views:forEachOf')}
      </label>
      <SubjectChoice id={`${id}-${part}`} among={sums} none={null} {...{ value, fields, choose }} />
    </>
  );
  return (
    <>
      <span className="flex flex-wrap items-center gap-2">
        <select
          // What it is of stands beside; how many there are is of nothing.
          className={`input ${total.is === 'count' ? 'w-48!' : ''}`}
          aria-label={said}
          value={total.is}
          onChange={({ target }) => {
            const other = firstTotal(target.value as Total['is'], fields, scope, total);
            if (other) set(other);
          }}
        >
          {KINDS.filter((each) => firstTotal(each, fields, scope) !== null).map((each) => (
            <option key={each} value={each}>
              {say(`views:is.${each}`)}
            </option>
          ))}
        </select>
        {total.is === 'share' ? (
          <>
            <label htmlFor={`${id}-word`} className="text-soft">
              {say('views:calledSo')}
            </label>
            <input
              id={`${id}-word`}
              className="input w-28"
              maxLength={60}
              value={total.word}
              onChange={({ target }) => set({ ...total, word: target.value })}
            />
          </>
        ) : total.of === null ? null : (
          <>
            {choice('of', total.of, (of) => set({ ...total, of }))}
            {total.is === 'rate' ? choice('per', total.per, (per) => set({ ...total, per })) : null}
          </>
        )}
        {remove ? (
          <button
            type="button"
            className="size-[24px] flex-none text-soft hover:text-brick"
            aria-label={say('views:removeTotal', { total: said })}
            onClick={remove}
          >
            ×
          </button>
        ) : null}
      </span>
      {total.is === 'share' ? (
        <div className="mt-1.5">
          <ConditionBuilder
            condition={total.when || firstCondition(scope)}
            scope={scope}
            set={(when) => set({ ...total, when })}
          />
        </div>
      ) : null}
    </>
  );
}
