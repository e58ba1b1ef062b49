import type { Scope } from '@tolvek/core/expression';
import type { FormDesign } from '@tolvek/core/form';
import type { Field, FilledField, Preset, RawAnswer } from '@tolvek/core/register';
import type { Key } from '@tolvek/words';
import { FormulaEditor } from '../conditions/FormulaEditor.tsx';
import { FieldInput } from '../fields/inputs.tsx';
import { say } from '../wire/words.ts';

type Way = Preset['from'] | 'none';

const WORDS = {
  none: 'workshop:preset.none',
  fixed: 'workshop:preset.fixed',
  today: 'workshop:preset.day',
  now: 'workshop:preset.now',
  me: 'workshop:preset.me',
  department: 'workshop:preset.department',
  field: 'workshop:preset.field',
  formula: 'workshop:preset.formula',
} as const satisfies Record<Way, Key>;

/** The ways that make sense for a kind. */
function waysFor({ type }: Field): readonly Way[] {
  const own: readonly Way[] =
    type.kind === 'date' || type.kind === 'date-time'
      ? ['today', ...(type.kind === 'date-time' ? (['now'] as const) : [])]
      : type.kind === 'person' || type.kind === 'people'
        ? ['me']
        : type.kind === 'text'
          ? ['department']
          : [];
  if (type.kind === 'reference' || type.kind === 'references') return ['none', 'field', 'formula'];
  return type.kind === 'line-items' || type.kind === 'files' || type.kind === 'running-number'
    ? ['none']
    : ['none', 'fixed', ...own, 'field', 'formula'];
}

function fresh(way: Preset['from'], others: readonly Field[]): Preset {
  switch (way) {
    case 'fixed':
      return { from: way, value: null };
    case 'today':
      return { from: way, plus: 0 };
    case 'field':
      return { from: way, field: others[0]?.key ?? '' };
    case 'formula':
      return { from: way, formula: 'null' };
    default:
      return { from: way };
  }
}

interface PresetEditorProps {
  readonly field: FilledField;
  readonly draft: FormDesign;
  readonly scope: Scope;
  readonly set: (preset: Preset | undefined) => void;
}

/**
 * What stands in a field before anybody answers; it applies where the question is hidden too, and
 * nobody can override it there.
 */
export function PresetEditor({ field, draft, scope, set }: PresetEditorProps) {
  const { preset } = field;
  const others = draft.fields.filter((each) => each.key !== field.key && each.type.kind === field.type.kind);
  const ways = waysFor(field).filter((way) => way !== 'field' || others.length > 0);
  const id = `default-${field.key}`;
  if (ways.length === 1) return null;
  return (
    <>
      <label htmlFor={id} className="self-start pt-1.5">
        {say('workshop:default')}
      </label>
      <div className="flex min-w-0 flex-wrap items-start gap-2">
        <select
          id={id}
          className="input w-auto"
          value={preset?.from ?? 'none'}
          onChange={(event) =>
            set(event.target.value === 'none' ? undefined : fresh(event.target.value as Preset['from'], others))
          }
        >
          {ways.map((way) => (
            <option key={way} value={way}>
              {say(WORDS[way])}
            </option>
          ))}
        </select>
        {preset?.from === 'fixed' ? (
          <span className="min-w-48 flex-1 text-ink">
            <span id={`${id}-value-label`} className="sr-only">
              {say('workshop:defaultOf', { label: field.label })}
            </span>
            <FieldInput
              id={`${id}-value`}
              field={field}
              value={preset.value}
              onChange={(value: RawAnswer) => set({ from: 'fixed', value })}
              describedBy={undefined}
              invalid={false}
            />
          </span>
        ) : null}
        {preset?.from === 'today' ? (
          <label className="flex items-center gap-2">
            {say('workshop:and1')}
            <input
              className="input w-20"
              type="number"
              value={preset.plus}
              onChange={(event) => set({ from: 'today', plus: Math.trunc(Number(event.target.value) || 0) })}
            />
            {say('workshop:days')}
          </label>
        ) : null}
        {preset?.from === 'field' ? (
          <select
            aria-label={say('workshop:defaultField', { label: field.label })}
            className="input w-auto"
            value={preset.field}
            onChange={(event) => set({ from: 'field', field: event.target.value })}
          >
            {others.map((other) => (
              <option key={other.key} value={other.key}>
                {other.label}
              </option>
            ))}
          </select>
        ) : null}
        {preset?.from === 'formula' ? (
          <FormulaEditor
            name={say('workshop:defaultOf', { label: field.label })}
            formula={preset.formula}
            scope={scope}
            set={(formula) => set({ from: 'formula', formula })}
          />
        ) : null}
      </div>
    </>
  );
}
