import {
  firstRow,
  picksOf,
  type Row,
  type RowTest,
  type Scope,
  type ScopeType,
  subjectsOf,
  testInWords,
  testsFor,
  valuesOf,
} from '@tolvek/core/expression';
import { say, told } from '../wire/words.ts';
import { ValueEditor } from './ValueEditor.tsx';

interface RowLineProps {
  readonly row: Row;
  readonly scope: Scope;
  readonly set: (row: Row) => void;
  readonly remove: (() => void) | null;
  /** In a table cell the field is the column’s, so only test and value are chosen. */
  readonly fixed?: boolean;
}

/** One row of a condition: field, test, value, read from left to right as a sentence. */
export function RowLine({ row, scope, set, remove, fixed = false }: RowLineProps) {
  const subjects = subjectsOf(scope);
  const subject = subjects.find((each) => each.of === row.of);
  const type: ScopeType | null = subject?.type ?? null;
  const label = told(subject?.label ?? row.of);
  const takes = valuesOf(row.test);
  const put = (index: number, value: Row['values'][number]): void =>
    set({ ...row, values: row.values.map((each, at) => (at === index ? value : each)) });
  return (
    <div className="flex flex-wrap items-center gap-x-2 gap-y-1.5">
      {fixed ? null : (
        <select
          aria-label={say('conditions:field')}
          className="input w-auto max-w-64 font-semibold"
          value={row.of}
          onChange={(event) => set(firstRow(event.target.value, scope))}
        >
          {subjects.map((each) => (
            <option key={each.of} value={each.of}>
              {told(each.label)}
            </option>
          ))}
        </select>
      )}
      <select
        aria-label={say('conditions:testOf', { label })}
        className="input w-auto"
        value={row.test}
        onChange={(event) => {
          const test = event.target.value as RowTest;
          // Values stay where the new test can use them.
          set(sameValues(row.test, test) ? { ...row, test } : firstRow(row.of, scope, test));
        }}
      >
        {testsFor(type).map((test) => (
          <option key={test} value={test}>
            {told(testInWords(test, type))}
          </option>
        ))}
      </select>
      {row.values.map((value, index) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: the place of a value is all that tells it from the others
        <span key={index} className="flex items-center gap-1.5">
          {index > 0 ? (
            <span className="text-soft">
              {say(
                takes === 2
                  ? 'conditions:joinAnd'
                  : row.test === 'none of'
                    ? 'conditions:joinNor'
                    : 'conditions:joinOr',
              )}
            </span>
          ) : null}
          <ValueEditor
            hasMe={scope.find('me') !== undefined}
            name={say('conditions:valueFor', { label, n: index + 1 })}
            type={type}
            test={row.test}
            value={value}
            set={(next) => put(index, next)}
          />
          {takes === 'many' && row.values.length > 1 ? (
            <button
              type="button"
              className="inline-flex size-6 items-center justify-center text-brick"
              aria-label={say('conditions:removeValue', { n: index + 1 })}
              onClick={() => set({ ...row, values: row.values.filter((_, at) => at !== index) })}
            >
              ✕
            </button>
          ) : null}
        </span>
      ))}
      {takes === 'many' ? (
        <button
          type="button"
          className="text-green underline"
          onClick={() => set({ ...row, values: [...row.values, ...nextValue(row, type)] })}
        >
          {say('conditions:or')}
        </button>
      ) : null}
      {remove ? (
        <button
          type="button"
          className="ml-auto inline-flex size-7 items-center justify-center text-brick"
          aria-label={say('conditions:removeTest', { label })}
          onClick={remove}
        >
          ✕
        </button>
      ) : null}
    </div>
  );
}

const DAYS: readonly RowTest[] = ['in the last days', 'in the next days'];
const sameValues = (before: RowTest, after: RowTest): boolean =>
  (valuesOf(before) === valuesOf(after) && DAYS.includes(before) === DAYS.includes(after)) ||
  (valuesOf(before) === 1 && valuesOf(after) === 'many');

/** An option that is not chosen yet. */
function nextValue(row: Row, type: ScopeType | null): Row['values'] {
  const taken = new Set(row.values.map((value) => (value.kind === 'plain' ? value.value : null)));
  const free = picksOf(type).find((pick) => !taken.has(pick.key));
  return [{ kind: 'plain', value: free?.key ?? (type?.kind === 'number' ? 0 : '') }];
}
