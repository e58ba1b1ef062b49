import FeelEditor from '@bpmn-io/feel-editor';
import { autocompletion, type CompletionContext } from '@codemirror/autocomplete';
import { linter } from '@codemirror/lint';
import {
  BUILT_INS,
  checkExpression,
  checkTests,
  type ExpressionFinding,
  parseExpression,
  parseTests,
  type Rewriting,
  rewritten,
  type Scope,
  type ScopeType,
} from '@tolvek/core/expression';
import { useEffect, useRef, useState } from 'react';
import { say, told } from '../wire/words.ts';
import { suggest } from './suggest.ts';

interface ConditionTextProps {
  readonly name: string;
  readonly text: string;
  readonly scope: Scope;
  readonly dialect: 'expression' | 'unaryTests';
  /** What an expression has to give; yes or no unless something else is said. */
  readonly gives?: 'yes-no' | 'anything';
  /** For the tests of a cell: the type of its column. */
  readonly column?: ScopeType | null;
  readonly set: (text: string) => void;
}

function findingsIn(
  text: string,
  {
    dialect,
    scope,
    column = null,
    gives = 'yes-no',
  }: Pick<ConditionTextProps, 'dialect' | 'scope' | 'column' | 'gives'>,
): readonly ExpressionFinding[] {
  if (dialect === 'unaryTests') {
    const parsed = parseTests(text, scope);
    return parsed.ok ? checkTests(parsed.value, column, scope) : parsed.findings;
  }
  const parsed = parseExpression(text, scope);
  return parsed.ok ? checkExpression(parsed.value, scope, gives === 'anything' ? undefined : gives) : parsed.findings;
}

/** How what was written out of habit is written here, when something is wrong with it. */
function habitIn(text: string, { dialect, scope, column, gives }: ConditionTextProps): Rewriting | null {
  if (text.trim() === '') return null;
  const cell = dialect === 'unaryTests' ? { cell: { column: column ?? null } } : {};
  return rewritten(text, { scope, wants: gives === 'anything' ? undefined : 'yes-no', ...cell });
}

/** Names the editor’s own grammar must know; what is offered comes from `suggest`. */
const FUNCTIONS = [...BUILT_INS.keys()].map((name) => ({ name, type: 'function', params: [] }));

function completions(context: CompletionContext, scope: Scope) {
  const found = suggest(context.state.sliceDoc(0, context.pos), scope, context.explicit);
  return (
    found && {
      from: found.from,
      filter: false,
      options: found.options.map(({ label, says, text }) => ({ label, detail: says, apply: text })),
    }
  );
}

/**
 * A condition as text, with completion of names and functions; what is wrong is underlined and said
 * below.
 */
export default function ConditionText(props: ConditionTextProps) {
  const { name, text, scope, dialect, column, gives, set } = props;
  const place = useRef<HTMLDivElement>(null);
  const latest = useRef({ set, column, gives, scope });
  latest.current = { set, column, gives, scope };
  // A scope is made anew at every change of the form; the editor only when names do, or whoever
  // types would lose their place.
  const names = scope.written.join('|');
  const [typed, setTyped] = useState(text);
  // Written anew by a press: the editor is made again around it.
  const [begun, setBegun] = useState({ text, turn: 0 });

  // The editor keeps its own text while it is open: what is stored may be written in other words
  // than what was typed.
  // biome-ignore lint/correctness/useExhaustiveDependencies: made once for the names it knows and a dialect
  useEffect(() => {
    const container = place.current;
    if (!container) return;
    new FeelEditor({
      container,
      dialect,
      value: begun.text,
      builtins: FUNCTIONS,
      variables: scope.written.map((written) => ({ name: written })),
      contentAttributes: { 'aria-label': name, role: 'textbox', 'aria-multiline': 'false' },
      extensions: [
        autocompletion({ icons: false, override: [(context) => completions(context, latest.current.scope)] }),
        linter((view) =>
          findingsIn(view.state.doc.toString(), {
            dialect,
            ...latest.current,
            column: latest.current.column ?? null,
          }).map((finding) => ({
            from: Math.min(finding.from, view.state.doc.length),
            to: Math.min(Math.max(finding.to, finding.from + 1), view.state.doc.length),
            severity: finding.severity === 'error' ? 'error' : 'warning',
            message: told(finding.message),
          })),
        ),
      ],
      onChange: (next: string) => {
        setTyped(next);
        latest.current.set(next);
      },
    });
    return () => container.replaceChildren();
  }, [names, dialect, begun.turn]);

  const writeAs = (next: string): void => {
    setTyped(next);
    setBegun({ text: next, turn: begun.turn + 1 });
    set(next);
  };
  const habit = habitIn(typed, props);
  const findings = findingsIn(typed, { dialect, scope, column: column ?? null, ...(gives ? { gives } : {}) });
  return (
    <div>
      <div ref={place} className="input condition-text font-mono text-[13px]" />
      <div aria-live="polite">
        {findings.map((finding) => (
          <p key={`${finding.from} ${told(finding.message)}`} className="mt-1 text-brick">
            {told(finding.message)}
          </p>
        ))}
        {habit ? (
          <p className="mt-1">
            <button type="button" className="text-left text-green underline" onClick={() => writeAs(habit.text)}>
              {say('conditions:write')} <code className="font-mono">{habit.text}</code>
            </button>
            <span className="block text-[12.5px] text-soft">{habit.says.map(told).join(' ')}</span>
          </p>
        ) : null}
      </div>
    </div>
  );
}
