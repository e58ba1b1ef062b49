import {
  checkExpression,
  expressionOfRows,
  firstRow,
  parseExpression,
  printExpression,
  type Row,
  type RowGroup,
  rowsOf,
  type Scope,
  subjectsOf,
} from '@tolvek/core/expression';
import { lazy, type ReactNode, Suspense, useState } from 'react';
import { say } from '../wire/words.ts';
import { RowLine } from './RowLine.tsx';

const ConditionText = lazy(() => import('./ConditionText.tsx'));

interface ConditionBuilderProps {
  /** The condition as it is stored: fields by their keys. */
  readonly condition: string;
  readonly scope: Scope;
  readonly set: (condition: string) => void;
}

/**
 * A condition as rows, or as text. Both are views of the same expression: switching changes
 * nothing, and what rows can’t show stays text.
 */
export function ConditionBuilder({ condition, scope, set }: ConditionBuilderProps) {
  const parsed = parseExpression(condition, scope);
  const sound = parsed.ok && checkExpression(parsed.value, scope, 'yes-no').length === 0;
  const rows = sound ? rowsOf(parsed.value, scope) : null;
  const [asText, setAsText] = useState(rows === null);
  if (asText || !rows) {
    return (
      <div>
        <Suspense fallback={<p className="input font-mono text-[13px]">{condition}</p>}>
          <ConditionText
            name={say('workshop:conditionName')}
            text={parsed.ok ? printExpression(parsed.value, scope) : condition}
            scope={scope}
            dialect="expression"
            set={(text) => set(stored(text, scope))}
          />
        </Suspense>
        <p className="mt-1.5 text-soft">
          {rows ? (
            <button type="button" className="text-green underline" onClick={() => setAsText(false)}>
              {say('conditions:showAsRows')}
            </button>
          ) : sound ? (
            say('conditions:onlyText')
          ) : null}
        </p>
      </div>
    );
  }
  return (
    <div>
      <Group group={rows} scope={scope} set={(group) => set(printExpression(expressionOfRows(group)))} remove={null}>
        <button type="button" className="ml-auto text-green underline" onClick={() => setAsText(true)}>
          {say('conditions:showAsText')}
        </button>
      </Group>
    </div>
  );
}

/** What is typed is stored by keys as soon as it can be read; until then as it was typed. */
export function stored(text: string, scope: Scope): string {
  const parsed = parseExpression(text, scope);
  return parsed.ok ? printExpression(parsed.value) : text;
}

interface GroupProps {
  readonly group: RowGroup;
  readonly scope: Scope;
  readonly set: (group: RowGroup) => void;
  readonly remove: (() => void) | null;
  readonly children?: ReactNode;
}

function Group({ group, scope, set, remove, children }: GroupProps) {
  const put = (index: number, part: Row | RowGroup): void =>
    set({ ...group, parts: group.parts.map((each, at) => (at === index ? part : each)) });
  const drop = (index: number): void => set({ ...group, parts: group.parts.filter((_, at) => at !== index) });
  const fresh = firstRow(subjectsOf(scope)[0]?.of ?? '', scope);
  return (
    <fieldset className={remove ? 'border-l-2 border-green pl-3' : ''}>
      <legend className="sr-only">{say('conditions:joined')}</legend>
      {group.parts.length > 1 ? (
        <p className="mb-1.5 flex items-center gap-2 text-soft">
          <select
            aria-label={say('conditions:howJoined')}
            className="input w-auto py-0.5"
            value={group.join}
            onChange={(event) => set({ ...group, join: event.target.value === 'any' ? 'any' : 'all' })}
          >
            <option value="all">{say('conditions:allOf')}</option>
            <option value="any">{say('conditions:anyOf')}</option>
          </select>
          {group.join === 'all' ? say('conditions:mustBeTrue') : say('conditions:isEnough')}
        </p>
      ) : null}
      {group.parts.length === 0 ? <p className="text-soft">{say('conditions:always')}</p> : null}
      <div className="flex flex-col gap-2">
        {group.parts.map((part, index) =>
          part.kind === 'row' ? (
            // biome-ignore lint/suspicious/noArrayIndexKey: rows have no names; their place is what they are
            <RowLine key={index} row={part} scope={scope} set={(row) => put(index, row)} remove={() => drop(index)} />
          ) : (
            <Group
              // biome-ignore lint/suspicious/noArrayIndexKey: groups have no names; their place is what they are
              key={index}
              group={part}
              scope={scope}
              set={(inner) => put(index, inner)}
              remove={() => drop(index)}
            />
          ),
        )}
      </div>
      <p className="mt-2 flex gap-4">
        <button
          type="button"
          className="text-green underline"
          onClick={() => set({ ...group, parts: [...group.parts, fresh] })}
        >
          {say('conditions:addCondition')}
        </button>
        {group.parts.length > 0 && !remove ? (
          <button
            type="button"
            className="text-green underline"
            onClick={() =>
              set({
                ...group,
                parts: [
                  ...group.parts,
                  { kind: 'group', join: group.join === 'all' ? 'any' : 'all', parts: [fresh, fresh] },
                ],
              })
            }
          >
            {say('conditions:addGroup')}
          </button>
        ) : null}
        {remove ? (
          <button type="button" className="text-brick underline" onClick={remove}>
            {say('conditions:removeGroup')}
          </button>
        ) : null}
        {children}
      </p>
    </fieldset>
  );
}
