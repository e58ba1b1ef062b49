import type { Action, FormRule } from '@tolvek/core/form';
import { useState } from 'react';
import { ConditionBuilder } from '../conditions/ConditionBuilder.tsx';
import { firstCondition } from '../conditions/firstCondition.ts';
import { Button } from '../ui/Button.tsx';
import { say, told } from '../wire/words.ts';
import { ActionLine } from './ActionLine.tsx';
import { useBinder } from './binder.ts';
import type { Editing } from './editing.ts';
import { editRule, freshAction, freshId, moveRule } from './edits.ts';
import { FindingLine } from './Findings.tsx';
import { MoveButtons } from './MoveButtons.tsx';
import { OverExisting } from './OverExisting.tsx';
import { Tried } from './Tried.tsx';
import { verdictInWords } from './verdictInWords.ts';

/** When … then … otherwise …: each rule as a sentence, tried while it is written. */
export function RulesPage() {
  const { editing } = useBinder();
  const { draft, change, proof } = editing;
  const { scope } = proof;
  const [fresh, setFresh] = useState<string | null>(null);
  const add = (): void => {
    const id = freshId(
      'rule',
      draft.rules.map((rule) => rule.id),
    );
    change((before) => ({
      ...before,
      rules: [
        ...before.rules,
        {
          id,
          name: say('workshop:newRule'),
          says: '',
          when: firstCondition(scope),
          then: [freshAction('show', before)],
          otherwise: [],
          on: true,
          runs: 'filling',
        },
      ],
    }));
    setFresh(id);
  };
  return (
    <>
      <div className="flex items-baseline justify-between gap-4">
        <p className="text-soft">{say('workshop:rulesIntro')}</p>
        <Button onClick={add}>{say('workshop:addRule')}</Button>
      </div>
      {draft.rules.length === 0 ? <p className="py-6 text-soft">{say('workshop:noRulesYet')}</p> : null}
      <ol className="mt-4">
        {draft.rules.map((rule, index) => (
          <RuleItem key={rule.id} rule={rule} index={index} isFresh={rule.id === fresh} />
        ))}
      </ol>
    </>
  );
}

function RuleItem({ rule, index, isFresh }: { rule: FormRule; index: number; isFresh: boolean }) {
  const { editing, form, keeping } = useBinder();
  const { findings } = keeping;
  const { key: formKey } = form;
  // Whether the draft is on the server as it stands here.
  const isKept = keeping.state === 'kept';
  const { draft, change, proof } = editing;
  const { scope } = proof;
  const [tried, setTried] = useState(isFresh);
  const edit = (next: Partial<FormRule>): void => change((before) => editRule(before, rule.id, next));
  const held = proof.completion.rules.find((each) => each.rule.id === rule.id)?.held;
  // What is wrong in the condition itself is said where it is written.
  const own = findings.filter(({ at, page, of }) => at === rule.id && page === 'rules' && of !== 'condition');
  return (
    <li id={`at-${rule.id}`} className="border-t border-rule-strong py-4">
      <div className="flex flex-wrap items-center gap-x-3 gap-y-2">
        <input
          aria-label={say('workshop:ruleName')}
          className="input min-w-48 flex-1 font-semibold"
          value={rule.name}
          onChange={(event) => edit({ name: event.target.value })}
        />
        <label className="flex items-center gap-2">
          <input
            type="checkbox"
            className="accent-green"
            checked={rule.on}
            onChange={(event) => edit({ on: event.target.checked })}
          />
          {say('workshop:ruleOn')}
        </label>
        <select
          aria-label={say('workshop:ruleRuns')}
          className="input w-auto"
          value={rule.runs}
          onChange={(event) => edit({ runs: event.target.value === 'saving' ? 'saving' : 'filling' })}
        >
          <option value="filling">{say('workshop:runs.filling')}</option>
          <option value="saving">{say('workshop:runs.saving')}</option>
        </select>
        <span className="flex gap-1">
          <MoveButtons
            index={index}
            of={draft.rules.length}
            words={[say('workshop:runEarlier', { rule: rule.name }), say('workshop:runLater', { rule: rule.name })]}
            move={(way) => change((before) => moveRule(before, rule.id, way))}
          />
        </span>
        <Button
          look="refuse"
          onClick={() => change((before) => ({ ...before, rules: before.rules.filter((each) => each.id !== rule.id) }))}
        >
          {say('workshop:removeRule')}
        </Button>
      </div>
      <input
        aria-label={say('workshop:whyRule', { rule: rule.name })}
        className="input mt-2 border-transparent bg-transparent px-0 text-soft"
        placeholder={say('workshop:whyRuleHint')}
        value={rule.says}
        onChange={(event) => edit({ says: event.target.value })}
      />
      <div className="mt-2 bg-green-wash px-3 py-2.5">
        <p className="mb-1.5 flex items-baseline gap-3 font-semibold">
          {say('workshop:when')}
          {rule.on ? (
            <span className="text-[12.5px] font-normal text-soft">
              {say('workshop:inProof', { verdict: verdictInWords(held ?? null) })}
            </span>
          ) : null}
        </p>
        <ConditionBuilder condition={rule.when} scope={scope} set={(when) => edit({ when })} />
        <Side does="then" actions={rule.then} editing={editing} set={(then) => edit({ then })} />
        <Side does="otherwise" actions={rule.otherwise} editing={editing} set={(otherwise) => edit({ otherwise })} />
        {tried ? <Tried formKey={formKey} condition={rule.when} proof={proof} /> : null}
        <div className="mt-2.5 flex flex-wrap gap-x-5 gap-y-1">
          {tried ? null : (
            <button type="button" className="text-green underline" onClick={() => setTried(true)}>
              {say('workshop:tryOnPast')}
            </button>
          )}
          <OverExisting formKey={formKey} rule={rule.id} isKept={isKept} />
        </div>
      </div>
      {own.map((finding) => (
        <FindingLine key={told(finding.message)} finding={finding} formKey={formKey} change={change} />
      ))}
    </li>
  );
}

/** What is done on one side of a rule. */
function Side({
  does,
  actions,
  editing,
  set,
}: {
  does: 'then' | 'otherwise';
  actions: readonly Action[];
  editing: Editing;
  set: (actions: readonly Action[]) => void;
}) {
  const { draft, proof } = editing;
  return (
    <div className="mt-2.5">
      <p className="mb-1 flex items-baseline gap-3">
        <b className="font-semibold">{say(does === 'then' ? 'workshop:then' : 'workshop:otherwise')}</b>
        <button
          type="button"
          className="text-green underline"
          onClick={() => set([...actions, freshAction(does === 'then' ? 'show' : 'hide', draft)])}
        >
          {actions.length > 0
            ? say('workshop:and')
            : say(does === 'then' ? 'workshop:addThen' : 'workshop:addOtherwise')}
        </button>
      </p>
      <div className="flex flex-col gap-2">
        {actions.map((action, index) => (
          <ActionLine
            // biome-ignore lint/suspicious/noArrayIndexKey: actions have no names; their place is what they are
            key={index}
            action={action}
            draft={draft}
            proof={proof}
            set={(next) => set(actions.map((each, at) => (at === index ? next : each)))}
            remove={() => set(actions.filter((_, at) => at !== index))}
          />
        ))}
      </div>
    </div>
  );
}
