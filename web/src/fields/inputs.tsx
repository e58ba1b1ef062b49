import type { Kind, KindName } from '@tolvek/core/register';
import { type ComponentType, lazy, Suspense, useState } from 'react';
import { say } from '../wire/words.ts';
import { ChoicesInput } from './ChoicesInput.tsx';
import { DateInput, DateTimeInput } from './DateInput.tsx';
import { type FieldInputProps, type InputProps, typed } from './input.ts';
import { PeopleInput, PersonInput } from './PersonInput.tsx';
import { ReferenceInput, ReferencesInput } from './ReferenceInput.tsx';
import { TermInput, TermsInput } from './TermInput.tsx';

// What most forms do not ask for comes with those that do.
const FilesInput = lazy(() => import('./FilesInput.tsx').then((module) => ({ default: module.FilesInput })));
const LineItemsInput = lazy(() =>
  import('./LineItemsInput.tsx').then((module) => ({ default: module.LineItemsInput })),
);
const COMING = <div className="h-24" />;

const common = (props: Omit<InputProps, 'type'>) => ({
  id: props.id,
  className: 'input',
  disabled: props.disabled,
  'aria-describedby': props.describedBy,
  'aria-invalid': props.invalid,
  onBlur: props.onBlur,
});

const TextInput = (props: InputProps<'text'>) => (
  <input
    {...common(props)}
    type="text"
    value={typed(props.value)}
    onChange={(event) => props.onChange(event.target.value)}
  />
);

/** A line of text whose keyboard and autocompletion fit what is asked. */
const lineOf =
  <K extends 'email' | 'phone' | 'link' | 'duration'>(line: {
    readonly type: string;
    readonly inputMode?: 'tel' | 'email' | 'url';
    readonly autoComplete?: string;
    /** Said when it is shown: the texts may come later than this file. */
    readonly placeholder?: () => string;
    readonly className?: string;
  }) =>
  (props: InputProps<K>) => (
    <input
      {...common(props)}
      {...line}
      placeholder={line.placeholder?.()}
      className={line.className ?? 'input'}
      value={typed(props.value)}
      onChange={(event) => props.onChange(event.target.value)}
    />
  );

const EmailInput = lineOf<'email'>({ type: 'email', autoComplete: 'email' });
const PhoneInput = lineOf<'phone'>({ type: 'tel', autoComplete: 'tel', className: 'input max-w-72' });
const LinkInput = lineOf<'link'>({ type: 'text', inputMode: 'url', placeholder: () => 'https://' });
const DurationInput = lineOf<'duration'>({
  type: 'text',
  placeholder: () => say('desk:likeLength'),
  className: 'input max-w-48',
});

const LongTextInput = (props: InputProps<'long-text'>) => (
  <textarea
    {...common(props)}
    rows={3}
    value={typed(props.value)}
    onChange={(event) => props.onChange(event.target.value)}
  />
);

const NumberInput = (props: InputProps<'number'>) => (
  <span className="flex items-center gap-2">
    <input
      {...common(props)}
      type="text"
      inputMode="decimal"
      value={typed(props.value)}
      onChange={(event) => props.onChange(event.target.value)}
    />
    {props.type.unit ? <span className="text-soft">{props.type.unit}</span> : null}
  </span>
);

const MoneyInput = (props: InputProps<'money'>) => (
  <span className="flex items-center gap-2">
    <span className="text-soft">{props.type.currency}</span>
    <input
      {...common(props)}
      className="input max-w-48"
      type="text"
      inputMode="decimal"
      value={typed(props.value)}
      onChange={(event) => props.onChange(event.target.value)}
    />
  </span>
);

function YesNoInput(props: InputProps<'yes-no'>) {
  const options = [
    { value: true, label: say('common:yes') },
    { value: false, label: say('common:no') },
  ];
  return (
    <span
      className="flex gap-2"
      role="radiogroup"
      aria-labelledby={`${props.id}-label`}
      aria-describedby={props.describedBy}
      aria-invalid={props.invalid}
    >
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

/** What the line for something else is called in a list; no option can have this key. */
const SOMETHING_ELSE = '…';

function ChoiceInput(props: InputProps<'choice'>) {
  const value = typed(props.value);
  const isOption = value === '' || props.type.options.some((option) => option.key === value);
  const [saying, setSaying] = useState(!isOption);
  const says = props.type.other && (saying || !isOption);
  return (
    <>
      <select
        {...common(props)}
        value={says ? SOMETHING_ELSE : value}
        onChange={(event) => {
          setSaying(event.target.value === SOMETHING_ELSE);
          props.onChange(event.target.value === SOMETHING_ELSE ? '' : event.target.value);
        }}
      >
        <option value="">{say('desk:choose')}</option>
        {props.type.options
          .filter((option) => !option.retired || option.key === value)
          .map((option) => (
            <option key={option.key} value={option.key}>
              {option.help ? `${option.label}: ${option.help}` : option.label}
            </option>
          ))}
        {props.type.other ? <option value={SOMETHING_ELSE}>{say('desk:otherChoice')}</option> : null}
      </select>
      {says ? (
        <input
          className="input mt-1.5"
          aria-label={say('desk:otherOf', { label: props.label })}
          placeholder={say('desk:describeOther')}
          value={value}
          disabled={props.disabled}
          aria-describedby={props.describedBy}
          aria-invalid={props.invalid}
          onBlur={props.onBlur}
          onChange={(event) => props.onChange(event.target.value)}
        />
      ) : null}
    </>
  );
}

/** A step of a scale, from the lowest to the highest. */
const LevelInput = (props: InputProps<'level'>) => (
  <select
    {...common(props)}
    value={typed(props.value)}
    onChange={(event) => props.onChange(event.target.value === '' ? '' : Number(event.target.value))}
  >
    <option value="">{say('desk:choose')}</option>
    {props.type.levels
      .filter((level) => !level.retired || level.worth === Number(props.value))
      .map((level) => (
        <option key={level.worth} value={level.worth}>
          {level.help ? `${level.label}: ${level.help}` : level.label}
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
  'date-time': DateTimeInput,
  'yes-no': YesNoInput,
  choice: ChoiceInput,
  choices: ChoicesInput,
  level: LevelInput,
  email: EmailInput,
  phone: PhoneInput,
  link: LinkInput,
  duration: DurationInput,
  person: PersonInput,
  people: PeopleInput,
  term: TermInput,
  terms: TermsInput,
  reference: ReferenceInput,
  references: ReferencesInput,
  'running-number': () => null,
  files: (props) => (
    <Suspense fallback={COMING}>
      <FilesInput {...props} />
    </Suspense>
  ),
  'line-items': (props) => (
    <Suspense fallback={COMING}>
      <LineItemsInput {...props} Cell={FieldInput} />
    </Suspense>
  ),
};

/** Kinds whose input is several controls, so that their question names them together. */
const GROUPED: ReadonlySet<KindName> = new Set([
  'yes-no',
  'choices',
  'people',
  'terms',
  'references',
  'files',
  'line-items',
]);
export const isGrouped = (type: Kind): boolean =>
  GROUPED.has(type.kind) || (type.kind === 'reference' && type.cards !== undefined);

/**
 * The input for a field's kind, the same on the Front desk, in the proof and on the request sheet.
 */
export function FieldInput(props: FieldInputProps) {
  const { field, offers, ...rest } = props;
  const { type } = field;
  const offered =
    offers && (type.kind === 'choice' || type.kind === 'choices')
      ? { ...type, options: type.options.filter((option) => offers.includes(option.key)) }
      : type;
  const Input = INPUTS[type.kind] as unknown as ComponentType<InputProps>;
  return <Input {...rest} label={field.label} fieldKey={field.key ?? ''} type={offered} />;
}
