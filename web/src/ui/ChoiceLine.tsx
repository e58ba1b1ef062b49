import { Line } from './Line.tsx';

interface ChoiceLineProps<T extends string> {
  readonly id: string;
  readonly label: string;
  readonly hint?: string;
  /** What the server found, and the place of this choice in it. */
  readonly error: unknown;
  readonly field: string;
  readonly options: readonly { readonly key: T; readonly label: string }[];
  readonly value: T;
  readonly choose: (key: T) => void;
  readonly disabled?: boolean;
}

/** One of a few, chosen from a list, with its label, a hint, and what is wrong with it. */
export const ChoiceLine = <T extends string>(props: ChoiceLineProps<T>) => {
  const { id, label, hint, error, field, options, value, choose, disabled } = props;
  return (
    <Line {...{ id, label, error, field }} {...(hint === undefined ? {} : { hint })}>
      {(about) => (
        <select
          {...about}
          className="input"
          disabled={disabled}
          value={value}
          onChange={({ target }) => {
            const chosen = options.find(({ key }) => key === target.value);
            if (chosen) choose(chosen.key);
          }}
        >
          {options.map((option) => (
            <option key={option.key} value={option.key}>
              {option.label}
            </option>
          ))}
        </select>
      )}
    </Line>
  );
};
