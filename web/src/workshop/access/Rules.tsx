import type { AccessRule, PlanRules } from '@tolvek/core/access';
import { partsOf } from '@tolvek/core/register';
import { useState } from 'react';
import { Button } from '../../ui/Button.tsx';
import { ProblemsAt } from '../../ui/ProblemsAt.tsx';
import { say, told } from '../../wire/words.ts';
import { workshopApi } from '../endpoints.ts';
import type { Keeping } from '../useEditing.ts';
import { Meets } from './Meets.tsx';
import { changeRule, RECIPES, type Recipe, removeRule, switchRule } from './planEdits.ts';
import { RuleEditor } from './RuleEditor.tsx';
import { exceptionsInWords, scopeOf } from './ruleWords.ts';
import type { Plan } from './usePlan.ts';

interface RulesProps {
  readonly plan: Plan;
  readonly editing: Keeping<PlanRules>;
  /** The id of the rule that is open. */
  readonly open: string | null;
  readonly setOpen: (id: string | null) => void;
  readonly add: (recipe: Recipe) => void;
}

/** The rules of a plan, each as a sentence that is pressed to change it; those that are switched off come last. */
export function Rules({ plan, editing, open, setOpen, add }: RulesProps) {
  const { content, change } = editing;
  const found = { status: 422, data: { title: '', problems: plan.problems } };
  return (
    <>
      <h2 className="section-head mt-6">{say('accessPlan:rules')}</h2>
      {content.rules.length === 0 ? <p className="py-2.5">{say('accessPlan:noRules')}</p> : null}
      <ul>
        {[...content.rules, ...content.resting].map((rule) => (
          <li key={rule.id} className="border-b border-rule py-2.5">
            <RuleLine
              {...{ rule, plan, found }}
              isOn={content.rules.includes(rule)}
              isOpen={open === rule.id}
              toggle={() => setOpen(open === rule.id ? null : rule.id)}
              edit={change}
            />
          </li>
        ))}
      </ul>
      <ProblemsAt error={found} field="access" />
      <p className="mt-3 flex flex-wrap items-center gap-x-4 gap-y-2">
        <Button onClick={() => add('empty')}>{say('accessPlan:newRule')}</Button>
        <span className="text-soft">{say('accessPlan:startFrom')}</span>
        {RECIPES.map((recipe) => (
          <button key={recipe} type="button" className="text-green underline" onClick={() => add(recipe)}>
            {say(`accessPlan:recipe.${recipe}`)}
          </button>
        ))}
      </p>
    </>
  );
}

interface RuleLineProps {
  readonly rule: AccessRule;
  readonly plan: Plan;
  readonly found: unknown;
  readonly isOn: boolean;
  readonly isOpen: boolean;
  readonly toggle: () => void;
  readonly edit: Keeping<PlanRules>['change'];
}

function RuleLine({ rule, plan, found, isOn, isOpen, toggle, edit }: RuleLineProps) {
  const [sure, setSure] = useState(false);
  const { data: ground } = workshopApi.useGroundQuery();
  const scope = scopeOf(plan, ground);
  const labels =
    rule.fields === 'all'
      ? [say('accessPlan:everyField')]
      : rule.fields.map((key) => partsOf(plan.fields).find((field) => field.key === key)?.label ?? key);
  const who = plan.told[rule.id]?.who;
  const name = rule.name || say('accessPlan:unnamed');
  return (
    <>
      <div className={`grid grid-cols-[1fr_auto] items-start gap-x-4 ${isOn ? '' : 'text-soft'}`}>
        <div>
          <span className="text-[15.5px]">{name}</span>
          {isOn ? null : <span className="ml-3 text-[12.5px]">{say('accessPlan:isOff')}</span>}
          {rule.overriding ? <span className="ml-3 text-[12.5px] text-soft">{say('accessPlan:setsAside')}</span> : null}
          {labels.length > 0 && who ? (
            <p className={isOn ? '' : 'text-soft'}>
              {say(`workshop:access.is.${rule.level}`, { fields: labels, who: told(who) })}
            </p>
          ) : null}
          {exceptionsInWords(rule, plan, scope).map((sentence) => (
            <p key={sentence} className={isOn ? '' : 'text-soft'}>
              {sentence}
            </p>
          ))}
          {rule.about ? <p className="text-soft">{rule.about}</p> : null}
          {isOpen ? null : (
            <p className="text-[13px] text-soft">
              <Meets told={plan.told[rule.id]} short />
            </p>
          )}
        </div>
        <span className="flex items-center gap-4">
          <Button aria-expanded={isOpen} onClick={toggle} aria-label={say('accessPlan:changeRule', { name })}>
            {say('accessPlan:change')}
          </Button>
          <button type="button" className="text-green underline" onClick={() => edit(switchRule(rule.id, !isOn))}>
            {say(isOn ? 'accessPlan:switchOff' : 'accessPlan:switchOn')}
          </button>
          {sure ? (
            <Button look="refuse" onClick={() => edit(removeRule(rule.id))}>
              {say('accessPlan:reallyDelete')}
            </Button>
          ) : (
            <button type="button" className="text-green underline" onClick={() => setSure(true)}>
              {say('accessPlan:delete')}
            </button>
          )}
        </span>
      </div>
      {isOpen ? (
        <div className="mt-2">
          <RuleEditor {...{ rule, plan, found }} change={(next) => edit(changeRule(rule.id, next))} close={toggle} />
        </div>
      ) : null}
    </>
  );
}
