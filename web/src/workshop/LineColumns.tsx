import { freshKey } from '@tolvek/core/form';
import { type ItemColumn, itemScope, type Kind, type SingleKind, type Vocabulary } from '@tolvek/core/register';
import { FormulaEditor } from '../conditions/FormulaEditor.tsx';
import { Button } from '../ui/Button.tsx';
import { say } from '../wire/words.ts';
import { COLUMN_KINDS, freshType, kindLabel, moved } from './edits.ts';
import { LimitInput, without } from './LimitInput.tsx';
import { MoveButtons } from './MoveButtons.tsx';
import { OptionsEditor } from './OptionsEditor.tsx';
import { TermDetails } from './TermDetails.tsx';

type LineItems = Extract<Kind, { kind: 'line-items' }>;

/** The columns of line items: asked in each line, or computed from the others of the line. */
export function LineColumns({
  type,
  vocabularies,
  set,
}: {
  type: LineItems;
  vocabularies: readonly Vocabulary[];
  set: (type: LineItems) => void;
}) {
  const { columns } = type;
  const scope = itemScope(type);
  const put = (index: number, column: ItemColumn): void =>
    set({ ...type, columns: columns.map((each, at) => (at === index ? column : each)) });
  const add = (formula?: string): void => {
    const label = formula === undefined ? say('workshop:newColumn') : say('workshop:sum');
    const key = freshKey(label, new Set(columns.map((column) => column.key)));
    set({
      ...type,
      columns: [
        ...columns,
        {
          key,
          label,
          type: formula === undefined ? { kind: 'text' } : { kind: 'number', places: 2 },
          required: false,
          ...(formula === undefined ? {} : { formula }),
        },
      ],
    });
  };
  return (
    <div>
      <ol>
        {columns.map((column, index) => (
          <li key={column.key} className="mb-2 border-l-2 border-rule pl-2.5">
            <div className="flex flex-wrap items-center gap-1.5">
              <input
                aria-label={say('workshop:columnNo', { label: column.label })}
                className="input min-w-32 flex-1"
                value={column.label}
                onChange={(event) => put(index, { ...column, label: event.target.value })}
              />
              <select
                aria-label={say('workshop:kindOf', { label: column.label })}
                className="input w-auto"
                value={column.type.kind}
                onChange={(event) =>
                  put(index, { ...column, type: freshType(event.target.value as SingleKind['kind']) })
                }
              >
                {COLUMN_KINDS.map((kind) => (
                  <option key={kind} value={kind}>
                    {kindLabel(kind)}
                  </option>
                ))}
              </select>
              {column.formula === undefined ? (
                <label className="flex items-center gap-1.5 text-ink">
                  <input
                    type="checkbox"
                    className="accent-green"
                    checked={column.required}
                    onChange={(event) => put(index, { ...column, required: event.target.checked })}
                  />
                  {say('workshop:required')}
                </label>
              ) : (
                <span className="text-[13px]">{say('workshop:computed')}</span>
              )}
              <MoveButtons
                index={index}
                of={columns.length}
                words={[
                  say('workshop:moveLeft', { label: column.label }),
                  say('workshop:moveRight', { label: column.label }),
                ]}
                move={(way) => set({ ...type, columns: moved(columns, index, way) })}
              />
              <button
                type="button"
                className="inline-flex size-6 shrink-0 items-center justify-center text-brick"
                aria-label={say('workshop:removeColumn', { label: column.label })}
                onClick={() => set({ ...type, columns: columns.filter((_, at) => at !== index) })}
              >
                ✕
              </button>
            </div>
            <ColumnLimits
              column={column}
              vocabularies={vocabularies}
              set={(next) => put(index, { ...column, type: next })}
            />
            {column.formula === undefined ? null : (
              <div className="mt-1">
                <FormulaEditor
                  name={say('workshop:formulaOf', { label: column.label })}
                  formula={column.formula}
                  scope={scope}
                  set={(formula) => put(index, { ...column, formula })}
                />
              </div>
            )}
          </li>
        ))}
      </ol>
      <div className="flex flex-wrap items-center gap-3">
        <Button onClick={() => add()}>{say('workshop:addColumn')}</Button>
        <Button onClick={() => add('0')}>{say('workshop:addComputedColumn')}</Button>
        <LimitInput
          label={say('workshop:linesAtLeast')}
          width="w-14"
          value={type.least}
          set={(least) => set(without({ ...type, least }) as LineItems)}
        />
        <LimitInput
          label={say('workshop:atMost')}
          width="w-14"
          value={type.most}
          set={(most) => set(without({ ...type, most }) as LineItems)}
        />
      </div>
    </div>
  );
}

/** The few settings a column’s kind has. */
function ColumnLimits({
  column,
  vocabularies,
  set,
}: {
  column: ItemColumn;
  vocabularies: readonly Vocabulary[];
  set: (type: SingleKind) => void;
}) {
  const { type } = column;
  if (type.kind === 'choice') {
    return (
      <div className="mt-1">
        <OptionsEditor options={type.options} set={(options) => set({ ...type, options })} />
      </div>
    );
  }
  if (type.kind === 'term') {
    return (
      <div className="mt-1">
        <TermDetails
          id={`terms-${column.key}`}
          type={type}
          vocabularies={vocabularies}
          set={(next) => set(next as SingleKind)}
        />
      </div>
    );
  }
  if (type.kind === 'number') {
    return (
      <div className="mt-1 flex flex-wrap gap-3">
        <LimitInput
          label={say('workshop:decimals')}
          width="w-14"
          value={type.places}
          set={(places = 0) => set({ ...type, places: Math.min(6, Math.max(0, Math.trunc(places))) })}
        />
        <LimitInput
          label={say('workshop:lowest')}
          width="w-16"
          value={type.least}
          set={(least) => set(without({ ...type, least }) as SingleKind)}
        />
        <LimitInput
          label={say('workshop:highest')}
          width="w-16"
          value={type.most}
          set={(most) => set(without({ ...type, most }) as SingleKind)}
        />
      </div>
    );
  }
  return null;
}
