import type { VisibleColumn } from '@tolvek/core/access';
import { type ItemColumn, type RawRow, type RawSingle, ROW_ID } from '@tolvek/core/register';
import type { Words } from '@tolvek/words';
import { type ComponentType, lazy, Suspense } from 'react';
import { Button } from '../ui/Button.tsx';
import { say, told } from '../wire/words.ts';
import { cellId } from './cellId.ts';
import type { FieldInputProps, InputProps } from './input.ts';
import { ProblemLine } from './ProblemLine.tsx';
import { useItemsShown } from './useItemsShown.ts';

// Whoever asks is told no reasons: what floats is loaded for staff.
const Why = lazy(() => import('../ui/Why.tsx').then((module) => ({ default: module.Why })));

type LineItemsProps = InputProps<'line-items'> & { readonly Cell: ComponentType<FieldInputProps> };

/**
 * Lines of a few fields each: on a phone one under the other, where there is room side by side.
 * Cells copied from a spreadsheet can be pasted into any of them.
 */
export function LineItemsInput({
  id,
  label,
  type,
  value,
  onChange,
  onBlur,
  describedBy,
  disabled,
  cells = [],
  lines: may,
  Cell,
}: LineItemsProps) {
  const typedLines = Array.isArray(value) ? (value as readonly RawRow[]) : [];
  const lines = typedLines.length > 0 ? typedLines : [{}];
  const locked = (may?.columns ?? []).filter(
    ({ key, writable }) =>
      !writable && type.columns.some((column) => column.key === key && column.formula === undefined),
  );
  const isLocked = ({ key }: ItemColumn): boolean => locked.some((each) => each.key === key);
  const { cells: computed, sums } = useItemsShown(
    type,
    lines,
    locked.map(({ key }) => key),
  );
  const unlocked = type.columns.filter((column) => !isLocked(column));
  const most = type.most ?? 200;
  const put = (row: number, column: string, cell: RawSingle): void =>
    onChange(lines.map((line, index) => (index === row ? { ...line, [column]: cell } : line)));
  const remove = (row: number): void => onChange(lines.filter((_, index) => index !== row));
  const add = (): void => {
    onChange([...lines, {}]);
    const first = unlocked.find((column) => column.formula === undefined);
    if (first) requestAnimationFrame(() => document.getElementById(cellId(id, lines.length, first.key))?.focus());
  };
  const paste = (event: React.ClipboardEvent, row: number, column: string): void => {
    const copied = event.clipboardData.getData('text/plain');
    // One cell is text like any other.
    if (!/[\t\n]/.test(copied.trim())) return;
    event.preventDefault();
    void import('./pasted.ts').then(({ cellsOf, pasteInto }) =>
      onChange(
        pasteInto(lines, unlocked, { row, column }, cellsOf(copied), may?.mayAdd === false ? lines.length : most),
      ),
    );
  };
  const room = type.columns.length <= 6;
  return (
    // biome-ignore lint/a11y/useSemanticElements: the question above it is its label, which a fieldset’s legend can’t be here
    <div role="group" aria-labelledby={`${id}-label`} aria-describedby={describedBy} className="@container">
      <ol className="border-t border-rule-strong">
        {lines.map((line, row) => (
          <li key={typeof line[ROW_ID] === 'string' ? line[ROW_ID] : row} className="border-b border-rule py-2.5">
            {/* biome-ignore lint/a11y/useSemanticElements: a line is a group of fields in a list */}
            <div
              role="group"
              aria-label={say('desk:lineOf', { row: row + 1, label })}
              className={
                room
                  ? 'flex flex-col gap-x-3 gap-y-2 @xl:flex-row @xl:items-start'
                  : 'grid gap-x-3 gap-y-2 @md:grid-cols-2 @2xl:grid-cols-3'
              }
            >
              {type.columns.map((column) => {
                const cell = cellId(id, row, column.key);
                const problem = cells.find((each) => each.place?.row === row && each.place.column === column.key);
                return (
                  <div
                    key={column.key}
                    className={`min-w-0 ${room ? shareOf(column) : ''}`}
                    onPaste={(event) => paste(event, row, column.key)}
                  >
                    {column.formula === undefined && !isLocked(column) ? (
                      <>
                        <label
                          htmlFor={cell}
                          id={`${cell}-label`}
                          className={`mb-0.5 block text-[0.88em] text-soft ${row > 0 && room ? '@xl:sr-only' : ''}`}
                        >
                          {column.label}
                          {column.required ? '' : ` ${say('desk:optional')}`}
                        </label>
                        <Cell
                          id={cell}
                          field={column}
                          value={line[column.key] ?? null}
                          onChange={(next) => put(row, column.key, next as RawSingle)}
                          {...(onBlur ? { onBlur } : {})}
                          describedBy={problem ? `${cell}-problem` : undefined}
                          invalid={problem !== undefined}
                          disabled={disabled}
                        />
                        {problem ? (
                          <ProblemLine
                            id={`${cell}-problem`}
                            problem={{ message: withoutPlace(problem.message), fix: problem.fix }}
                          />
                        ) : null}
                      </>
                    ) : (
                      <div className={`flex items-baseline justify-between gap-3 ${room ? '@xl:block' : ''}`}>
                        <span
                          className={`block text-[0.88em] text-soft ${room ? '@xl:mb-0.5 @xl:text-right' : ''} ${row > 0 && room ? '@xl:sr-only' : ''}`}
                        >
                          {column.label}
                          {row === 0 ? <WhyLocked column={column} locked={locked} /> : null}
                        </span>
                        <output className={`block tabular-nums ${room ? '@xl:py-2 @xl:text-right' : ''}`}>
                          {told(computed[row]?.[column.key] ?? '—')}
                        </output>
                      </div>
                    )}
                  </div>
                );
              })}
              {may?.mayRemove !== false && (lines.length > 1 || typedLines.length > 0) ? (
                <button
                  type="button"
                  className={`self-start py-1 text-[13.5px] text-brick underline ${row === 0 && room ? '@xl:mt-5' : ''}`}
                  disabled={disabled}
                  aria-label={say('desk:removeLineNo', { row: row + 1 })}
                  onClick={() => remove(row)}
                >
                  <span aria-hidden="true" className={room ? '@xl:hidden' : ''}>
                    {say('desk:removeLine')}
                  </span>
                  <span aria-hidden="true" className={room ? 'hidden @xl:inline' : 'hidden'}>
                    ✕
                  </span>
                </button>
              ) : null}
            </div>
          </li>
        ))}
      </ol>
      {Object.keys(sums).length > 0 ? (
        <dl className="flex flex-wrap justify-end gap-x-6 gap-y-1 border-b border-rule-strong py-2 tabular-nums">
          {type.columns
            .filter((column) => sums[column.key] !== undefined)
            .map((column) => (
              <div key={column.key} className="flex gap-2">
                <dt className="text-soft">{say('desk:allLines', { label: column.label })}</dt>
                <dd className="font-semibold">{told(sums[column.key] ?? '')}</dd>
              </div>
            ))}
        </dl>
      ) : null}
      <p className="mt-2.5 flex flex-wrap items-center gap-x-4 gap-y-1">
        {may?.mayAdd === false ? null : (
          <Button disabled={disabled || lines.length >= most} onClick={add}>
            {say('desk:addLine')}
          </Button>
        )}
        <span className="text-[0.88em] text-soft">
          {may && !may.mayRemove ? say(may.mayAdd ? 'desk:linesStay' : 'desk:linesAsTheyAre') : say('desk:pasteLines')}
        </span>
      </p>
    </div>
  );
}

/** That a column can only be read, with the reason where that is known. */
function WhyLocked({ column, locked }: { column: ItemColumn; locked: readonly VisibleColumn[] }) {
  const found = locked.find(({ key }) => key === column.key);
  if (!found) return null;
  return (
    <span className="ml-1 text-[0.93em]">
      {say('desk:onlyRead')}{' '}
      {found.why ? (
        <Suspense>
          <Why about={column.label}>{told(found.why)}</Why>
        </Suspense>
      ) : null}
    </span>
  );
}

/** “Line 2, Price: …” says no more than the words, where it stands in its cell. */
const withoutPlace = (message: Words): Words => {
  if (typeof message === 'string' || message.say !== 'answers:inLine') return message;
  return (message.with?.message as Words | undefined) ?? message;
};

/** How much of a line a column takes: words need room, figures little. */
function shareOf({ type }: ItemColumn): string {
  switch (type.kind) {
    case 'text':
    case 'long-text':
    case 'email':
    case 'link':
      return '@xl:flex-[3]';
    case 'number':
    case 'duration':
    case 'yes-no':
      return '@xl:flex-[1.2]';
    default:
      return '@xl:flex-[1.7]';
  }
}
