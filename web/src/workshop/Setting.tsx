import type { ReactNode } from 'react';

/** What a setting means, below it. */
export const Hint = ({ children }: { children: ReactNode }) => (
  <span className="mt-1 block text-[13px] text-soft">{children}</span>
);

interface TickProps {
  readonly label: string;
  readonly hint: string;
  readonly isOn: boolean;
  readonly put: (isOn: boolean) => void;
}

/** A setting that is on or off. */
export const Tick = ({ label, hint, isOn, put }: TickProps) => (
  <label className="flex items-start gap-2">
    <input
      type="checkbox"
      className="mt-1 accent-green"
      checked={isOn}
      onChange={({ target: { checked } }) => put(checked)}
    />
    <span>
      {label}
      <Hint>{hint}</Hint>
    </span>
  </label>
);

interface ChooseProps<Key extends string> {
  readonly id: string;
  readonly label: string;
  /** What stands for nothing said. */
  readonly none: string;
  readonly options: readonly { readonly key: Key; readonly label: string }[];
  readonly value: Key | undefined;
  readonly choose: (key: Key | undefined) => void;
}

/** A setting that is one of a few things, or not said. */
export const Choose = <Key extends string>({ id, label, none, options, value, choose }: ChooseProps<Key>) => (
  <span>
    <label htmlFor={id} className="block text-[13px] text-soft">
      {label}
    </label>
    <select
      id={id}
      className="input w-auto"
      value={value ?? ''}
      onChange={({ target }) => choose(options.find(({ key }) => key === target.value)?.key)}
    >
      <option value="">{none}</option>
      {options.map((option) => (
        <option key={option.key} value={option.key}>
          {option.label}
        </option>
      ))}
    </select>
  </span>
);
