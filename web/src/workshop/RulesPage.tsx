import type { AnswerOf } from '@tolvek/contract';
import { checkExpression, expressionOfRows, firstRow, parseExpression, printExpression, type Scope, subjectsOf } from '@tolvek/core/expression';
import type { FormDesign, FormRule } from '@tolvek/core/form';
import { useState } from 'react';
import { ConditionBuilder } from '../conditions/ConditionBuilder.tsx';
import { Button } from '../ui/Button.tsx';
import { freshKey } from './edits.ts';
import { Tried } from './Tried.tsx';
import type { ProofState } from './useProof.ts';

interface RulesPageProps {
  readonly draft: FormDesign;
  readonly change: (edit: (draft: FormDesign) => FormDesign) => void;
  readonly findings: AnswerOf<'form'>['findings'];
  readonly form: AnswerOf<'form'>;
  readonly proof: ProofState;
}

/** When … then show …: each rule as a sentence, tried while it is written. */
export function RulesPage({ draft, change, findings, form, proof }: RulesPageProps) {
  const { scope } = proof;
  const [tried, setTried] = useState<string | null>(null);
  const edit = (id: string, rule: Partial<FormRule>): void =>
    change((before) => ({ ...before, rules: before.rules.map((each) => (each.id === id ? { ...each, ...rule } : each)) }));
  const add = (): void => {
    const subjects = subjectsOf(scope);
    const first = subjects.find((each) => each.type.kind === 'yes-no') ?? subjects[0];
    const id = freshKey('rule', new Set(draft.rules.map((rule) => rule.id)));
    change((before) => ({
      ...before,
      rules: [...before.rules, { id, name: 'New rule', when: first ? printExpression(expressionOfRows(firstRow(first.of, scope))) : 'true', show: [], on: true }],
    }));
    setTried(id);
  };
  return (
    <>
      <div className="flex items-baseline justify-between gap-4">
        <p className="text-soft">A question named in a rule stays away until its condition holds. The answer to a question that is away is not stored.</p>
        <Button onClick={add}>Add rule</Button>
      </div>
      {draft.rules.length === 0 ? <p className="py-6 text-soft">No rules: every question is always asked.</p> : null}
      <ol className="mt-4">
        {draft.rules.map((rule) => (
          <li key={rule.id} id={`at-${rule.id}`} className="border-t border-rule-strong py-4">
            <div className="flex items-center gap-3">
              <input aria-label="Name of the rule" className="input max-w-80 font-semibold" value={rule.name} onChange={(event) => edit(rule.id, { name: event.target.value })} />
              <label className="flex items-center gap-2">
                <input type="checkbox" className="accent-green" checked={rule.on} onChange={(event) => edit(rule.id, { on: event.target.checked })} />
                On
              </label>
              <Button look="refuse" className="ml-auto" onClick={() => change((before) => ({ ...before, rules: before.rules.filter((each) => each.id !== rule.id) }))}>
                Take away
              </Button>
            </div>
            <div className="mt-3 bg-green-wash px-3 py-2.5">
              <p className="mb-1.5 font-semibold">When</p>
              <ConditionBuilder condition={rule.when} scope={scope} set={(when) => edit(rule.id, { when })} />
              <p className="mt-1 font-semibold">then show</p>
              <div className="mt-1 flex flex-wrap gap-x-5 gap-y-1">
                {draft.questions.map((question) => {
                  const label = draft.fields.find((field) => field.key === question.field)?.label ?? question.field;
                  const shown = rule.show.includes(question.field);
                  return (
                    <label key={question.field} className={`flex min-h-7 items-center gap-2 ${shown ? 'font-semibold' : 'text-soft'}`}>
                      <input
                        type="checkbox"
                        className="accent-green"
                        checked={shown}
                        onChange={() => edit(rule.id, { show: shown ? rule.show.filter((each) => each !== question.field) : [...rule.show, question.field] })}
                      />
                      {label}
                    </label>
                  );
                })}
              </div>
              {tried === rule.id ? (
                <Tried formKey={form.key} condition={rule.when} proof={proof} />
              ) : (
                <p className="mt-2.5">
                  <button type="button" className="text-green underline" onClick={() => setTried(rule.id)}>
                    Try it on past requests
                  </button>
                </p>
              )}
            </div>
            {findings
              // What is wrong in the condition itself is said where it is written.
              .filter((finding) => finding.at === rule.id && !conditionFindings(rule.when, scope).some((message) => finding.message.endsWith(message)))
              .map((finding) => (
                <p key={finding.message} className={`mt-2 ${finding.severity === 'error' ? 'text-brick' : 'text-brass'}`}>
                  {finding.message}
                </p>
              ))}
          </li>
        ))}
      </ol>
    </>
  );
}

function conditionFindings(condition: string, scope: Scope): readonly string[] {
  const parsed = parseExpression(condition);
  return (parsed.ok ? checkExpression(parsed.value, scope, 'yes-no') : parsed.findings).map((finding) => finding.message);
}
