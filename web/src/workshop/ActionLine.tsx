import { compile, parseExpression } from '@tolvek/core/expression';
import { type Action, type ActionName, END, FIRST_PAGE, type FormDesign, partKey, partName } from '@tolvek/core/form';
import { sayValue, valueFromExpression } from '@tolvek/core/register';
import type { Key } from '@tolvek/words';
import { FormulaEditor } from '../conditions/FormulaEditor.tsx';
import { say, told } from '../wire/words.ts';
import { freshAction } from './edits.ts';
import type { ProofState } from './useProof.ts';

const ACTION_LABELS = {
  show: 'workshop:does.show',
  hide: 'workshop:does.hide',
  require: 'workshop:does.require',
  lock: 'workshop:does.lock',
  set: 'workshop:does.set',
  clear: 'workshop:does.clear',
  limit: 'workshop:does.limit',
  warn: 'workshop:does.warn',
  refuse: 'workshop:does.refuse',
  jump: 'workshop:does.jump',
} as const satisfies Record<ActionName, Key>;

interface ActionLineProps {
  readonly action: Action;
  readonly draft: FormDesign;
  readonly proof: ProofState;
  readonly set: (action: Action) => void;
  readonly remove: () => void;
}

/** One thing a rule does, read from left to right as the rest of a sentence. */
export function ActionLine({ action, draft, proof, set, remove }: ActionLineProps) {
  return (
    <div className="flex flex-wrap items-start gap-2">
      <select
        aria-label={say('workshop:action.what')}
        className="input w-auto font-semibold"
        value={action.do}
        onChange={(event) => set(freshAction(event.target.value as ActionName, draft))}
      >
        {Object.entries(ACTION_LABELS).map(([name, label]) => (
          <option key={name} value={name}>
            {say(label)}
          </option>
        ))}
      </select>
      <ActionDetails action={action} draft={draft} proof={proof} set={set} />
      <button
        type="button"
        className="ml-auto inline-flex size-7 items-center justify-center text-brick"
        aria-label={say('workshop:action.remove')}
        onClick={remove}
      >
        ✕
      </button>
    </div>
  );
}

function ActionDetails({ action, draft, proof, set }: Omit<ActionLineProps, 'remove'>) {
  const fields = draft.fields.map((field) => ({ key: field.key, label: field.label }));
  switch (action.do) {
    case 'show':
    case 'hide':
      return (
        <Several
          name={say('workshop:partName')}
          of={draft.parts.map((part) => ({ key: partKey(part), label: labelOf(draft, partKey(part)) }))}
          chosen={action.parts}
          set={(parts) => set({ ...action, parts })}
        />
      );
    case 'require':
      return (
        <Several
          name={say('workshop:fieldName')}
          of={fields.filter((field) =>
            draft.parts.some((part) => part.part === 'question' && part.field === field.key),
          )}
          chosen={action.fields}
          set={(chosen) => set({ ...action, fields: chosen })}
        />
      );
    case 'lock':
    case 'clear':
      return (
        <Several
          name={say('workshop:fieldName')}
          of={fields}
          chosen={action.fields}
          set={(chosen) => set({ ...action, fields: chosen })}
        />
      );
    case 'set': {
      const field = draft.fields.find((each) => each.key === action.field);
      const parsed = parseExpression(action.value);
      const value =
        parsed.ok && field
          ? valueFromExpression(field, compile(parsed.value, proof.scope)(proof.slots, null))
          : undefined;
      return (
        <>
          <One
            name={say('workshop:fieldName')}
            of={draft.fields.filter((each) => each.source !== 'computed')}
            value={action.field}
            set={(key) => set({ ...action, field: key })}
          />
          <span className="pt-1.5">{say('workshop:action.to')}</span>
          <FormulaEditor
            name={say('workshop:valueName')}
            formula={action.value}
            scope={proof.scope}
            sample={
              field && value !== undefined
                ? told(sayValue(field, value, (id) => proof.facts.people.find((person) => person.id === id)?.name))
                : ''
            }
            set={(text) => set({ ...action, value: text })}
          />
        </>
      );
    }
    case 'limit': {
      const choices = draft.fields.filter((field) => field.type.kind === 'choice' || field.type.kind === 'choices');
      const type = draft.fields.find((field) => field.key === action.field)?.type;
      const options = type?.kind === 'choice' || type?.kind === 'choices' ? type.options : [];
      return (
        <>
          <One
            name={say('workshop:fieldName')}
            of={choices}
            value={action.field}
            set={(key) => set({ ...action, field: key, options: [] })}
          />
          <span className="pt-1.5">{say('workshop:action.to')}</span>
          <Several
            name={say('workshop:optionName')}
            of={options.filter((option) => !option.retired || action.options.includes(option.key))}
            chosen={action.options}
            set={(chosen) => set({ ...action, options: chosen })}
          />
        </>
      );
    }
    case 'warn':
    case 'refuse': {
      const at = [
        { key: 'form', label: say('workshop:action.aboveForm') },
        ...fields.map((field) => ({ key: field.key, label: say('workshop:action.atField', { field: field.label }) })),
      ];
      return (
        <>
          <One
            name={say('workshop:whereName')}
            of={at}
            value={action.field}
            set={(field) => set({ ...action, field })}
          />
          <input
            aria-label={say('workshop:action.text')}
            className="input min-w-60 flex-1"
            placeholder={say('workshop:action.textHint')}
            value={action.text}
            onChange={(event) => set({ ...action, text: event.target.value })}
          />
          {action.do === 'refuse' ? (
            <input
              aria-label={say('workshop:action.fix')}
              className="input min-w-60 flex-1"
              placeholder={say('workshop:action.fixHint')}
              value={action.fix}
              onChange={(event) => set({ ...action, fix: event.target.value })}
            />
          ) : null}
        </>
      );
    }
    case 'jump': {
      const pages = [
        { key: FIRST_PAGE, label: say('rules:firstPage') },
        ...draft.parts.flatMap((part) => (part.part === 'page' ? [{ key: part.id, label: part.title }] : [])),
      ];
      return (
        <>
          <span className="pt-1.5">{say('workshop:action.from')}</span>
          <One
            name={say('workshop:afterPage')}
            of={pages}
            value={action.after}
            set={(after) => set({ ...action, after })}
          />
          <span className="pt-1.5">{say('workshop:action.toPage')}</span>
          <One
            name={say('workshop:toPage')}
            of={[...pages.slice(1), { key: END, label: say('rules:end') }]}
            value={action.to}
            set={(to) => set({ ...action, to })}
          />
        </>
      );
    }
  }
}

const labelOf = (draft: FormDesign, key: string): string => {
  const part = draft.parts.find((each) => partKey(each) === key);
  const name = partName(draft, key);
  return part?.part === 'section' || part?.part === 'page' ? say(`workshop:partOf.${part.part}`, { name }) : name;
};

type Option = { readonly key: string; readonly label: string };

function One({
  name,
  of,
  value,
  set,
}: {
  name: string;
  of: readonly Option[];
  value: string;
  set: (key: string) => void;
}) {
  return (
    <select
      aria-label={name}
      className="input w-auto max-w-64"
      value={value}
      onChange={(event) => set(event.target.value)}
    >
      {of.some((each) => each.key === value) ? null : <option value={value}>{say('desk:choose')}</option>}
      {of.map((each) => (
        <option key={each.key} value={each.key}>
          {each.label}
        </option>
      ))}
    </select>
  );
}

/** Several of a list: those chosen in a row, one more from a picker. */
function Several({
  name,
  of,
  chosen,
  set,
}: {
  name: string;
  of: readonly Option[];
  chosen: readonly string[];
  set: (keys: readonly string[]) => void;
}) {
  return (
    <span className="flex min-w-0 flex-1 flex-wrap items-center gap-1.5">
      {chosen.map((key) => {
        const label = of.find((each) => each.key === key)?.label ?? key;
        return (
          <span key={key} className="flex items-center rounded-md border border-green bg-sheet pl-2">
            {label}
            <button
              type="button"
              className="inline-flex size-6 items-center justify-center text-brick"
              aria-label={say('workshop:action.leaveOut', { name: label })}
              onClick={() => set(chosen.filter((each) => each !== key))}
            >
              ✕
            </button>
          </span>
        );
      })}
      <select
        aria-label={say('workshop:action.addTo', { name })}
        className="input w-auto max-w-56"
        value=""
        onChange={(event) => set([...chosen, event.target.value])}
      >
        <option value="">{chosen.length === 0 ? say('desk:choose') : say('workshop:and')}</option>
        {of
          .filter((each) => !chosen.includes(each.key))
          .map((each) => (
            <option key={each.key} value={each.key}>
              {each.label}
            </option>
          ))}
      </select>
    </span>
  );
}
