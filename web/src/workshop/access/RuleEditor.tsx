import type { AccessRule } from '@tolvek/core/access';
import { fieldKeyOf } from '@tolvek/core/register';
import { useId } from 'react';
import { DayField } from '../../fields/DateInput.tsx';
import { Button } from '../../ui/Button.tsx';
import { ProblemsAt } from '../../ui/ProblemsAt.tsx';
import { meApi } from '../../wire/me.ts';
import { say } from '../../wire/words.ts';
import { workshopApi } from '../endpoints.ts';
import { AudienceFields } from './AudienceFields.tsx';
import { Exceptions } from './Exceptions.tsx';
import { Meets } from './Meets.tsx';
import { hides, nameable, withField } from './planEdits.ts';
import { profileScopeOf, scopeOf } from './ruleWords.ts';
import type { Plan } from './usePlan.ts';

interface RuleEditorProps {
  readonly rule: AccessRule;
  readonly plan: Plan;
  readonly change: (next: (rule: AccessRule) => AccessRule) => void;
  readonly close: () => void;
  readonly found: unknown;
}

const DAY = /^\d{4}-\d\d-\d\d$/;
const LEVELS = ['hidden', 'read', 'write'] as const;

/** One rule as a sentence to be filled in: for these people, these fields are hidden, readable or writable. */
export function RuleEditor({ rule, plan, change, close, found }: RuleEditorProps) {
  const id = useId();
  const { audience } = rule;
  const { data: ground } = workshopApi.useGroundQuery();
  const groups = ground?.groups ?? [];
  const scope = scopeOf(plan, ground);
  const profile = profileScopeOf(ground);
  const { data: me } = meApi.useMeQuery();
  const today = (me?.desk.now ?? '').slice(0, 10);
  const at = (field: string): string => `rules ${rule.id} ${field}`;
  const set = (next: Partial<AccessRule>): void => change((before) => ({ ...before, ...next }));
  const setFields = (fields: AccessRule['fields']): void => set({ fields });
  const offered = rule.fields === 'all' ? [] : nameable(plan.fields, rule.fields);
  return (
    <div className="border-l-[3px] border-green bg-sheet px-4 py-3">
      <div className="grid grid-cols-[9rem_1fr] items-start gap-x-4 gap-y-3">
        <label htmlFor={`${id}-name`} className="pt-1.5 text-soft">
          {say('accessPlan:name')}
        </label>
        <span>
          <input
            id={`${id}-name`}
            className="input"
            value={rule.name}
            maxLength={200}
            placeholder={say('accessPlan:nameHint')}
            onChange={(event) => set({ name: event.target.value })}
          />
          <ProblemsAt error={found} field={at('name')} />
        </span>
        <label htmlFor={`${id}-about`} className="pt-1.5 text-soft">
          {say('accessPlan:about')}
        </label>
        <input
          id={`${id}-about`}
          className="input"
          maxLength={500}
          value={rule.about ?? ''}
          onChange={(event) =>
            change(({ about: _, ...before }) =>
              event.target.value === '' ? before : { ...before, about: event.target.value },
            )
          }
        />
        <span className="text-soft">{say('accessPlan:fields')}</span>
        <fieldset>
          <legend className="sr-only">{say('accessPlan:fields')}</legend>
          <label className="flex min-h-6 items-center gap-2">
            <input
              type="checkbox"
              className="accent-green"
              checked={rule.fields === 'all'}
              onChange={() => setFields(rule.fields === 'all' ? [] : 'all')}
            />
            {say('accessPlan:allFields')}
          </label>
          {rule.fields === 'all' ? null : (
            <span className="mt-1 grid grid-cols-2 gap-x-5 gap-y-1 xl:grid-cols-3">
              {offered.map((field) => (
                <label
                  key={field.key}
                  className={`flex min-h-6 items-center gap-2 ${fieldKeyOf(field.key) === field.key ? '' : 'pl-5'}`}
                >
                  <input
                    type="checkbox"
                    className="accent-green"
                    checked={rule.fields.includes(field.key)}
                    onChange={() => setFields(withField(rule.fields as readonly string[], field.key))}
                  />
                  {field.label}
                </label>
              ))}
            </span>
          )}
          <ProblemsAt error={found} field={at('fields')} />
        </fieldset>
        <label htmlFor={`${id}-level`} className="pt-1.5 text-soft">
          {say('accessPlan:is')}
        </label>
        <span>
          <select
            id={`${id}-level`}
            className="input w-auto"
            value={rule.level}
            onChange={(event) => set({ level: event.target.value as AccessRule['level'] })}
          >
            {LEVELS.map((level) => (
              <option key={level} value={level}>
                {say(`accessPlan:level.${level}`)}
              </option>
            ))}
          </select>
        </span>
        <span className="pt-1.5 text-soft">{say('accessPlan:butWhere')}</span>
        <fieldset>
          <legend className="sr-only">{say('accessPlan:butWhere')}</legend>
          <Exceptions
            {...{ plan, found }}
            rule={rule.id}
            exceptions={rule.exceptions ?? []}
            scope={scope}
            set={(exceptions) =>
              change(({ exceptions: _, ...before }) => (exceptions.length > 0 ? { ...before, exceptions } : before))
            }
          />
        </fieldset>
        {hides(rule) ? (
          <>
            <span />
            <Mark
              label={say('accessPlan:looksEmpty')}
              hint={say('accessPlan:looksEmptyHint')}
              isOn={rule.looksEmpty ?? false}
              set={(isOn) =>
                change(({ looksEmpty: _, ...before }) => (isOn ? { ...before, looksEmpty: true } : before))
              }
            />
          </>
        ) : null}
        {rule.level !== 'write' ? (
          <>
            <span />
            <Mark
              label={say('accessPlan:asking')}
              hint={say(`accessPlan:askingHint.${rule.level}`)}
              isOn={rule.asking ?? false}
              set={(isOn) => change(({ asking: _, ...before }) => (isOn ? { ...before, asking: true } : before))}
            />
          </>
        ) : null}
        <AudienceFields
          {...{ id, audience, groups, found }}
          people={plan.people}
          profile={profile}
          field={at('audience')}
          change={(next) => change((before) => ({ ...before, audience: next(before.audience) }))}
        />
        <span className="pt-1.5 text-soft">{say('accessPlan:days')}</span>
        <fieldset>
          <legend className="sr-only">{say('accessPlan:days')}</legend>
          <span className="flex flex-wrap items-center gap-2">
            {(['from', 'until'] as const).map((which) => (
              <label key={which} htmlFor={`${id}-${which}`} className="flex items-center gap-2">
                {say(`accessPlan:${which}`)}
                <DayField
                  id={`${id}-${which}`}
                  value={rule[which] ?? ''}
                  today={today}
                  notBefore={null}
                  withTime={false}
                  onChange={(day) =>
                    change(({ [which]: _, ...before }) => (DAY.test(day) ? { ...before, [which]: day } : before))
                  }
                />
              </label>
            ))}
          </span>
          <ProblemsAt error={found} field={at('days')} />
        </fieldset>
        <span className="text-soft">{say('accessPlan:meets')}</span>
        <Meets told={plan.told[rule.id]} />
        <span />
        <label className="flex items-start gap-2">
          <input
            type="checkbox"
            className="mt-1 accent-green"
            checked={rule.overriding ?? false}
            onChange={(event) =>
              change(({ overriding: _, ...before }) =>
                event.target.checked ? { ...before, overriding: true } : before,
              )
            }
          />
          <span>
            {say('accessPlan:overriding')}
            <span className="block text-[13px] text-soft">{say('accessPlan:overridingHint')}</span>
          </span>
        </label>
      </div>
      <p className="mt-3">
        <Button onClick={close}>{say('accessPlan:done')}</Button>
      </p>
    </div>
  );
}

interface MarkProps {
  readonly label: string;
  readonly hint: string;
  readonly isOn: boolean;
  readonly set: (isOn: boolean) => void;
}

/** Something that a rule does or does not, with what that means. */
const Mark = ({ label, hint, isOn, set }: MarkProps) => (
  <label className="flex items-start gap-2">
    <input
      type="checkbox"
      className="mt-1 accent-green"
      checked={isOn}
      onChange={(event) => set(event.target.checked)}
    />
    <span>
      {label}
      <span className="block text-[13px] text-soft">{hint}</span>
    </span>
  </label>
);
