import { type DeadlineRule, deadlineName, FINISH, lengthInWords, type RowSpan } from '@tolvek/core/deadline';
import { Button } from '../../ui/Button.tsx';
import { say, told } from '../../wire/words.ts';
import { useBinder } from '../binder.ts';
import { firstLength } from '../deadlines/deadlineEdits.ts';
import { useRingNames } from '../deadlines/deadlineSentences.ts';
import { LengthDetails } from '../deadlines/LengthDetails.tsx';
import { lastingFor, type RowSaid } from './rowEdits.ts';

/** How a row says how long a deadline is. */
const WAYS = ['itself', 'days', 'time', 'formula', 'none'] as const;
type Way = (typeof WAYS)[number];

interface RowDeadlinesProps {
  readonly name: string;
  readonly row: RowSaid;
  /** Whether it can leave something to later rows. */
  readonly mayLeave: boolean;
  readonly set: (row: RowSaid) => void;
}

/** How long the deadlines besides the finish are for what a row takes, where that is not as they say themselves. */
export function RowDeadlines({ name, row, mayLeave, set }: RowDeadlinesProps) {
  const { draft } = useBinder().editing;
  const rules = draft.deadline.deadlines.filter(({ key }) => key !== FINISH);
  const { deadlines = [] } = row.outcome;
  const gone = deadlines.filter(({ deadline }) => !rules.some(({ key }) => key === deadline));
  const put = (deadline: string, length: RowSpan | null | undefined): void =>
    set({ ...row, outcome: lastingFor(row.outcome, deadline, length) });
  if (rules.length === 0 && gone.length === 0)
    return <p className="text-[13px] text-soft">{say('workshop:rowDeadlinesNone')}</p>;
  return (
    <>
      {rules.map((rule) => (
        <RowDeadline
          key={rule.key}
          {...{ name, rule }}
          said={deadlines.find(({ deadline }) => deadline === rule.key)?.length}
          put={(length) => put(rule.key, length)}
        />
      ))}
      {gone.map(({ deadline }) => (
        <p key={deadline} className="mt-1 flex items-center gap-2 text-error">
          {say('workshop:rowLengthGone')}
          <Button onClick={() => put(deadline, undefined)}>{say('workshop:removeDeadline')}</Button>
        </p>
      ))}
      <p className="mt-1 text-[13px] text-soft">
        {say(mayLeave ? 'workshop:rowDeadlinesHintEach' : 'workshop:rowDeadlinesHint')}
      </p>
    </>
  );
}

interface RowDeadlineProps {
  readonly name: string;
  readonly rule: DeadlineRule;
  /** What the row says of it; nothing where it says nothing. */
  readonly said: RowSpan | null | undefined;
  readonly put: (length: RowSpan | null | undefined) => void;
}

function RowDeadline({ name, rule, said, put }: RowDeadlineProps) {
  const names = useRingNames();
  const called = told(deadlineName(rule));
  const way: Way = said === undefined ? 'itself' : said === null ? 'none' : said.by;
  const choose = (next: Way): void => put(next === 'itself' ? undefined : next === 'none' ? null : firstLength(next));
  return (
    <div className="mb-1.5 flex flex-wrap items-center gap-2">
      <span className="min-w-32">{called}</span>
      <select
        className="input w-auto max-w-full py-1"
        aria-label={say('workshop:rowLength', { name: called })}
        value={way}
        onChange={({ target }) => choose(target.value as Way)}
      >
        {WAYS.map((each) => (
          <option key={each} value={each}>
            {each === 'itself'
              ? say('workshop:rowLengthBy.itself', { length: lengthInWords(rule, names.field) })
              : say(`workshop:rowLengthBy.${each}`)}
          </option>
        ))}
      </select>
      {said ? (
        <LengthDetails
          length={said}
          dated={[]}
          name={`${name}, ${called}`}
          set={(length) => {
            if (length.by === 'days' || length.by === 'time' || length.by === 'formula') put(length);
          }}
        />
      ) : null}
    </div>
  );
}
