import type { AnswerOf } from '@tolvek/contract';
import type { FormDesign, FormRule } from '@tolvek/core/form';
import type { Field } from '@tolvek/core/register';
import { useState } from 'react';
import { Button } from '../ui/Button.tsx';
import { firstValue, type PlainCondition, readCondition, testsFor, writeCondition } from './condition.ts';
import { freshKey } from './edits.ts';

interface RulesPageProps {
  readonly draft: FormDesign;
  readonly change: (edit: (draft: FormDesign) => FormDesign) => void;
  readonly findings: AnswerOf<'form'>['findings'];
}

/** When … then show …: each rule as a sentence. */
export function RulesPage({ draft, change, findings }: RulesPageProps) {
  const edit = (id: string, rule: Partial<FormRule>): void =>
    change((before) => ({ ...before, rules: before.rules.map((each) => (each.id === id ? { ...each, ...rule } : each)) }));
  const first = draft.fields.find((field) => field.source === 'asked' && field.type.kind === 'yes-no') ?? draft.fields[0];
  const add = (): void =>
    change((before) => ({
      ...before,
      rules: [
        ...before.rules,
        {
          id: freshKey('rule', new Set(before.rules.map((rule) => rule.id))),
          name: 'New rule',
          when: first ? writeCondition({ field: first.key, test: '=', value: firstValue(first) }) : 'true',
          show: [],
          on: true,
        },
      ],
    }));
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
              <Condition when={rule.when} fields={draft.fields.filter((field) => field.source === 'asked')} set={(when) => edit(rule.id, { when })} />
              <p className="mt-2.5">
                then <b>show</b>
              </p>
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
            </div>
            {findings
              .filter((finding) => finding.at === rule.id)
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

/** The condition as field – test – value; or as text, where it says more than a row can. */
function Condition({ when, fields, set }: { when: string; fields: readonly Field[]; set: (when: string) => void }) {
  const plain = readCondition(when, fields);
  const [asText, setAsText] = useState(plain === null);
  const field = plain ? fields.find((each) => each.key === plain.field) : undefined;
  if (asText || !plain || !field) {
    return (
      <div className="flex items-center gap-2">
        <span>When</span>
        <input aria-label="Condition" className="input font-mono text-[13px]" value={when} onChange={(event) => set(event.target.value)} />
        {plain ? (
          <button type="button" className="whitespace-nowrap text-green underline" onClick={() => setAsText(false)}>
            as a row
          </button>
        ) : (
          <span className="whitespace-nowrap text-soft">as text</span>
        )}
      </div>
    );
  }
  const put = (edit: Partial<PlainCondition>): void => set(writeCondition({ ...plain, ...edit }));
  return (
    <div className="flex flex-wrap items-center gap-2">
      <span>When</span>
      <select
        aria-label="Field"
        className="input w-auto"
        value={plain.field}
        onChange={(event) => {
          const chosen = fields.find((each) => each.key === event.target.value);
          if (chosen) set(writeCondition({ field: chosen.key, test: '=', value: firstValue(chosen) }));
        }}
      >
        {fields.map((each) => (
          <option key={each.key} value={each.key}>
            {each.label}
          </option>
        ))}
      </select>
      <select aria-label="Test" className="input w-auto" value={plain.test} onChange={(event) => put({ test: event.target.value as PlainCondition['test'] })}>
        {testsFor(field).map(({ test, words }) => (
          <option key={test} value={test}>
            {words}
          </option>
        ))}
      </select>
      <ValueEditor field={field} value={plain.value} set={(value) => put({ value })} />
      <button type="button" className="ml-auto text-green underline" onClick={() => setAsText(true)}>
        as text
      </button>
    </div>
  );
}

function ValueEditor({ field, value, set }: { field: Field; value: string; set: (value: string) => void }) {
  const { type } = field;
  if (type.kind === 'yes-no')
    return (
      <select aria-label="Value" className="input w-auto" value={value} onChange={(event) => set(event.target.value)}>
        <option value="true">yes</option>
        <option value="false">no</option>
      </select>
    );
  if (type.kind === 'choice') {
    return (
      <select aria-label="Value" className="input w-auto" value={value} onChange={(event) => set(event.target.value)}>
        {type.options.map((option) => (
          <option key={option.key} value={JSON.stringify(option.key)}>
            {option.label}
          </option>
        ))}
      </select>
    );
  }
  if (type.kind === 'date')
    return (
      <input
        aria-label="Value"
        type="date"
        className="input w-auto"
        value={/\d{4}-\d\d-\d\d/.exec(value)?.[0] ?? ''}
        onChange={(event) => event.target.value && set(`date("${event.target.value}")`)}
      />
    );
  if (type.kind === 'number' || type.kind === 'money')
    return (
      <input
        aria-label="Value"
        inputMode="decimal"
        className="input w-28"
        value={value}
        onChange={(event) => /^-?\d*\.?\d*$/.test(event.target.value) && set(event.target.value || '0')}
      />
    );
  return <input aria-label="Value" className="input w-48" value={value.replace(/^"|"$/g, '')} onChange={(event) => set(JSON.stringify(event.target.value))} />;
}
