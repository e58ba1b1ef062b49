import {
  cellInWords,
  cellOfRow,
  firstRow,
  parseTests,
  printTests,
  type Row,
  rowOfCell,
  type Scope,
  testsFor,
  typeOfSubject,
} from '@tolvek/core/expression';
import { Popover } from 'radix-ui';
import { lazy, Suspense, useState } from 'react';
import { say, told } from '../wire/words.ts';
import { RowLine } from './RowLine.tsx';

const ConditionText = lazy(() => import('./ConditionText.tsx'));

interface CellEditorProps {
  readonly name: string;
  /** What the column is about, as an expression. */
  readonly of: string;
  /** The tests of the cell as they are stored. */
  readonly tests: string;
  readonly scope: Scope;
  readonly set: (tests: string) => void;
}

/**
 * A cell of a table: its test in words; pressed, the test and its values, or the text behind them.
 */
export function CellEditor({ name, of, tests, scope, set }: CellEditorProps) {
  const parsed = parseTests(tests);
  const type = typeOfSubject(of, scope);
  const isAny = parsed.ok && parsed.value.every((test) => test.kind === 'any');
  const row = parsed.ok && !isAny ? rowOfCell(parsed.value, of, scope) : null;
  const [asText, setAsText] = useState(false);
  const words = told((parsed.ok && cellInWords(parsed.value, of, scope)) || tests);
  const put = (next: Row): void => set(printTests(cellOfRow(next)));
  const textOnly = (!isAny && !row) || testsFor(type).length === 0;
  return (
    <Popover.Root onOpenChange={(open) => open || setAsText(false)}>
      <Popover.Trigger
        aria-label={`${name}: ${words}`}
        className={`block min-h-[30px] w-full rounded-sm border border-transparent px-1.5 py-1 text-left hover:border-edge ${isAny ? 'text-soft' : row ? '' : 'font-mono text-[12.5px]'} ${parsed.ok ? '' : 'text-brick'}`}
      >
        {words}
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          sideOffset={4}
          align="start"
          collisionPadding={12}
          aria-label={name}
          className="z-20 w-[30rem] max-w-[calc(100vw-24px)] rounded-md border border-rule-strong bg-sheet p-4 shadow-lg"
        >
          <p className="mb-2 font-semibold">{name}</p>
          {asText || textOnly ? (
            <Suspense fallback={<p className="font-mono">{tests}</p>}>
              <ConditionText
                name={say('conditions:asText', { name })}
                text={parsed.ok ? printTests(parsed.value, scope) : tests}
                scope={scope}
                dialect="unaryTests"
                column={type}
                set={(text) => set(storedTests(text, scope))}
              />
            </Suspense>
          ) : row ? (
            <RowLine row={row} scope={scope} set={put} remove={null} fixed />
          ) : (
            <p className="text-soft">{say('conditions:anyValue')}</p>
          )}
          <p className="mt-3 flex gap-4">
            {isAny && !asText && !textOnly ? (
              <button type="button" className="text-green underline" onClick={() => put(firstRow(of, scope))}>
                {say('conditions:addCondition')}
              </button>
            ) : null}
            {isAny ? null : (
              <button
                type="button"
                className="text-green underline"
                onClick={() => {
                  setAsText(false);
                  set('');
                }}
              >
                {say('conditions:acceptAny')}
              </button>
            )}
            {textOnly ? (
              <span className="text-soft">{isAny ? '' : say('conditions:onlyText')}</span>
            ) : (
              <button type="button" className="ml-auto text-green underline" onClick={() => setAsText(!asText)}>
                {asText ? say('conditions:showAsRow') : say('conditions:showAsText')}
              </button>
            )}
          </p>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

function storedTests(text: string, scope: Scope): string {
  const parsed = parseTests(text, scope);
  return parsed.ok && text.trim() !== '' ? printTests(parsed.value) : text;
}
