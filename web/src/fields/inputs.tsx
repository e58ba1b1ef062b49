import type { Field, Kind, KindName, RawAnswer } from '@tolvek/core/register';
import type { ComponentType } from 'react';

export interface InputProps<K extends KindName = KindName> {
  readonly id: string;
  readonly type: Extract<Kind, { kind: K }>;
  readonly value: RawAnswer;
  readonly onChange: (value: RawAnswer) => void;
  readonly onBlur?: () => void;
  readonly describedBy: string | undefined;
  readonly invalid: boolean;
  readonly disabled?: boolean | undefined;
}

const common = (props: Omit<InputProps, 'type'>) => ({
  id: props.id,
  className: 'input',
  disabled: props.disabled,
  'aria-describedby': props.describedBy,
  'aria-invalid': props.invalid,
  onBlur: props.onBlur,
});

const typed = (value: RawAnswer): string => (value === null ? '' : String(value));

const TextInput = (props: InputProps<'text'>) => <input {...common(props)} type="text" value={typed(props.value)} onChange={(event) => props.onChange(event.target.value)} />;

/** A line of text whose keyboard and autocompletion fit what is asked. */
const lineOf =
  <K extends 'email' | 'phone' | 'link' | 'duration'>(line: {
    readonly type: string;
    readonly inputMode?: 'tel' | 'email' | 'url';
    readonly autoComplete?: string;
    readonly placeholder?: string;
    readonly className?: string;
  }) =>
  (props: InputProps<K>) => (
    <input {...common(props)} {...line} className={line.className ?? 'input'} value={typed(props.value)} onChange={(event) => props.onChange(event.target.value)} />
  );

const EmailInput = lineOf<'email'>({ type: 'email', autoComplete: 'email' });
const PhoneInput = lineOf<'phone'>({ type: 'tel', autoComplete: 'tel', className: 'input max-w-72' });
const LinkInput = lineOf<'link'>({ type: 'text', inputMode: 'url', placeholder: 'https://' });
const DurationInput = lineOf<'duration'>({ type: 'text', placeholder: '1 h 30 min', className: 'input max-w-48' });

const LongTextInput = (props: InputProps<'long-text'>) => (
  <textarea {...common(props)} rows={3} value={typed(props.value)} onChange={(event) => props.onChange(event.target.value)} />
);

const NumberInput = (props: InputProps<'number'>) => (
  <span className="flex items-center gap-2">
    <input {...common(props)} type="text" inputMode="decimal" value={typed(props.value)} onChange={(event) => props.onChange(event.target.value)} />
    {props.type.unit ? <span className="text-soft">{props.type.unit}</span> : null}
  </span>
);

const MoneyInput = (props: InputProps<'money'>) => (
  <span className="flex items-center gap-2">
    <span className="text-soft">{props.type.currency}</span>
    <input {...common(props)} className="input max-w-48" type="text" inputMode="decimal" value={typed(props.value)} onChange={(event) => props.onChange(event.target.value)} />
  </span>
);

const DateInput = (props: InputProps<'date'>) => (
  <input {...common(props)} className="input max-w-56" type="date" value={typed(props.value)} onChange={(event) => props.onChange(event.target.value)} />
);

function YesNoInput(props: InputProps<'yes-no'>) {
  const options = [
    { value: true, label: 'Yes' },
    { value: false, label: 'No' },
  ];
  return (
    <span className="flex gap-2" role="radiogroup" aria-labelledby={`${props.id}-label`} aria-describedby={props.describedBy} aria-invalid={props.invalid}>
      {options.map((option, index) => (
        <label
          key={option.label}
          className={`flex min-h-[34px] min-w-20 cursor-pointer items-center gap-2 rounded-md border px-3 [.desk_&]:min-h-[46px] [.desk_&]:min-w-28 ${props.value === option.value ? 'border-green bg-green-wash font-semibold' : 'border-edge bg-sheet'}`}
        >
          <input
            type="radio"
            className="accent-green"
            id={index === 0 ? props.id : undefined}
            name={props.id}
            checked={props.value === option.value}
            disabled={props.disabled}
            onBlur={props.onBlur}
            onChange={() => props.onChange(option.value)}
          />
          {option.label}
        </label>
      ))}
    </span>
  );
}

const ChoiceInput = (props: InputProps<'choice'>) => (
  <select {...common(props)} value={typed(props.value)} onChange={(event) => props.onChange(event.target.value)}>
    <option value="">Choose …</option>
    {props.type.options
      .filter((option) => !option.retired || option.key === props.value)
      .map((option) => (
        <option key={option.key} value={option.key}>
          {option.help ? `${option.label}: ${option.help}` : option.label}
        </option>
      ))}
  </select>
);

const INPUTS: { readonly [K in KindName]: ComponentType<InputProps<K>> } = {
  text: TextInput,
  'long-text': LongTextInput,
  number: NumberInput,
  money: MoneyInput,
  date: DateInput,
  'yes-no': YesNoInput,
  choice: ChoiceInput,
  email: EmailInput,
  phone: PhoneInput,
  link: LinkInput,
  duration: DurationInput,
};

/** The input for a field's kind, the same on the Front desk, in the proof and on the request sheet. */
export function FieldInput(props: Omit<InputProps, 'type'> & { field: Field }) {
  const { field, ...rest } = props;
  const Input = INPUTS[field.type.kind] as ComponentType<InputProps>;
  return <Input {...rest} type={field.type} />;
}
