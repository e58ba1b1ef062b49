import { parseExpression, printExpression, type Scope } from '@tolvek/core/expression';
import { lazy, Suspense } from 'react';
import { say } from '../wire/words.ts';
import { stored } from './ConditionBuilder.tsx';

const ConditionText = lazy(() => import('./ConditionText.tsx'));

interface FormulaEditorProps {
  readonly name: string;
  /** As it is stored: fields by their keys. */
  readonly formula: string;
  readonly scope: Scope;
  readonly set: (formula: string) => void;
  /** What it gives with the answers in the proof, in words. */
  readonly sample?: string;
}

/** A formula as text, with fields by their names, and what it gives at this moment. */
export function FormulaEditor({ name, formula, scope, set, sample }: FormulaEditorProps) {
  const parsed = parseExpression(formula, scope);
  return (
    <div className="min-w-0 flex-1">
      <Suspense fallback={<p className="input font-mono text-[13px]">{formula}</p>}>
        <ConditionText
          name={name}
          text={parsed.ok ? printExpression(parsed.value, scope) : formula}
          scope={scope}
          dialect="expression"
          gives="anything"
          set={(text) => set(stored(text, scope))}
        />
      </Suspense>
      {sample === undefined ? null : (
        <p className="mt-1 text-[12.5px] text-soft" aria-live="polite">
          {say('conditions:withProof')} <b className="text-ink tabular-nums">{sample || say('reasons:empty')}</b>
        </p>
      )}
    </div>
  );
}
