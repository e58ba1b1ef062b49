import { type DeadlineLength, MOST_WORKING_DAYS } from '@tolvek/core/deadline';
import { FormulaEditor } from '../../conditions/FormulaEditor.tsx';
import { say } from '../../wire/words.ts';
import { useBinder } from '../binder.ts';
import { HOUR } from '../hours.ts';

interface LengthProps {
  readonly length: DeadlineLength;
  readonly set: (length: DeadlineLength) => void;
  readonly dated: readonly { readonly key: string; readonly label: string }[];
  readonly name: string;
}

const whole = (typed: string, most: number): number => Math.min(most, Math.max(0, Math.round(Number(typed)) || 0));

/** What is said of a length besides its kind: how many, by which formula, how far from which date. */
export function LengthDetails({ length, set, dated, name }: LengthProps) {
  const { editing } = useBinder();
  switch (length.by) {
    case 'routing':
      return null;
    case 'days':
      return (
        <span className="flex items-center gap-2">
          <input
            type="number"
            className="input w-20"
            min={0}
            max={MOST_WORKING_DAYS}
            aria-label={say('workshop:daysOf', { name })}
            value={length.days}
            onChange={(event) => set({ ...length, days: whole(event.target.value, MOST_WORKING_DAYS) })}
          />
          {say('workshop:workingDays')}
        </span>
      );
    case 'time':
      return (
        <span className="flex items-center gap-2">
          <input
            type="number"
            className="input w-20"
            min={0}
            step={0.5}
            aria-label={say('workshop:hoursOf', { name })}
            value={length.time / HOUR}
            onChange={(event) =>
              set({ ...length, time: Math.round(Math.max(0, Number(event.target.value) || 0) * HOUR) })
            }
          />
          {say('workshop:hoursOfWork')}
        </span>
      );
    case 'formula':
      return (
        <>
          <select
            className="input w-auto"
            aria-label={say('workshop:unitOf', { name })}
            value={length.unit}
            onChange={(event) => set({ ...length, unit: event.target.value === 'hours' ? 'hours' : 'days' })}
          >
            <option value="days">{say('workshop:workingDays')}</option>
            <option value="hours">{say('workshop:hoursOfWork')}</option>
          </select>
          <FormulaEditor
            name={say('workshop:lengthFormula', { name })}
            formula={length.formula}
            scope={editing.proof.scope}
            set={(formula) => set({ ...length, formula })}
          />
        </>
      );
    case 'field':
      return <ByDate {...{ length, set, dated, name }} />;
  }
}

type DatedLength = Extract<DeadlineLength, { by: 'field' }>;

/** A date in the request, and how far from it. */
function ByDate({ length, set, dated, name }: LengthProps & { length: DatedLength }) {
  const { days, counted, field } = length;
  const side = days < 0 ? 'before' : days > 0 ? 'after' : 'on';
  const move = (next: { readonly side: string; readonly days: number }): void =>
    set({ ...length, days: next.side === 'on' ? 0 : next.side === 'before' ? 0 - next.days : next.days });
  const many = Math.max(1, Math.abs(days));
  return (
    <span className="flex flex-wrap items-center gap-2">
      {side === 'on' ? null : (
        <>
          <input
            type="number"
            className="input w-20"
            min={1}
            max={MOST_WORKING_DAYS}
            aria-label={say('workshop:daysAway', { name })}
            value={many}
            onChange={(event) => move({ side, days: Math.max(1, whole(event.target.value, MOST_WORKING_DAYS)) })}
          />
          <select
            className="input w-auto"
            aria-label={say('workshop:whichDays', { name })}
            value={counted}
            onChange={(event) => set({ ...length, counted: event.target.value === 'working' ? 'working' : 'any' })}
          >
            <option value="any">{say('workshop:anyDays')}</option>
            <option value="working">{say('workshop:workingDays')}</option>
          </select>
        </>
      )}
      <select
        className="input w-auto"
        aria-label={say('workshop:sideOf', { name })}
        value={side}
        onChange={(event) => move({ side: event.target.value, days: many })}
      >
        <option value="on">{say('workshop:side.on')}</option>
        <option value="before">{say('workshop:side.before')}</option>
        <option value="after">{say('workshop:side.after')}</option>
      </select>
      <select
        className="input w-auto"
        aria-label={say('workshop:dateOf', { name })}
        value={field}
        onChange={(event) => set({ ...length, field: event.target.value })}
      >
        {dated.map(({ key, label }) => (
          <option key={key} value={key}>
            {label}
          </option>
        ))}
        {dated.some(({ key }) => key === field) ? null : <option value={field}>{say('workshop:fieldGone')}</option>}
      </select>
    </span>
  );
}
