import { ColourMark } from '../ui/ColourMark.tsx';
import { say } from '../wire/words.ts';
import type { InputProps } from './input.ts';

/**
 * Several of a list: each option a line of its own, with its explanation beside it; where it may
 * be, something else in words.
 */
export function ChoicesInput(props: InputProps<'choices'>) {
  const chosen = Array.isArray(props.value) ? (props.value as readonly string[]) : [];
  const options = props.type.options.filter((option) => !option.retired || chosen.includes(option.key));
  const toggle = (key: string): void =>
    props.onChange(chosen.includes(key) ? chosen.filter((each) => each !== key) : [...chosen, key]);
  const listed = chosen.filter((key) => props.type.options.some((option) => option.key === key));
  const said = chosen.find((key) => !listed.includes(key));
  return (
    // biome-ignore lint/a11y/useSemanticElements: the question above it is its label, which a fieldset’s legend can’t be here
    <div
      role="group"
      aria-labelledby={`${props.id}-label`}
      aria-describedby={props.describedBy}
      className="flex flex-col gap-1"
    >
      {options.map((option, index) => (
        <label
          key={option.key}
          className={`flex min-h-8 cursor-pointer items-center gap-2.5 rounded-md border px-3 py-1 [.desk_&]:min-h-[46px] ${chosen.includes(option.key) ? 'border-green bg-green-wash' : 'border-edge bg-sheet'}`}
        >
          <input
            type="checkbox"
            className="size-4 accent-green"
            id={index === 0 ? props.id : undefined}
            checked={chosen.includes(option.key)}
            disabled={props.disabled}
            aria-invalid={props.invalid}
            onBlur={props.onBlur}
            onChange={() => toggle(option.key)}
          />
          <span>
            <ColourMark colour={option.colour} />
            {option.label}
            {option.help ? <span className="text-soft">: {option.help}</span> : null}
          </span>
        </label>
      ))}
      {props.type.other ? (
        <input
          className="input"
          aria-label={say('desk:otherOf', { label: props.label })}
          placeholder={say('desk:otherWhich')}
          value={said ?? ''}
          disabled={props.disabled}
          onBlur={props.onBlur}
          onChange={(event) => props.onChange(event.target.value === '' ? listed : [...listed, event.target.value])}
        />
      ) : null}
    </div>
  );
}
