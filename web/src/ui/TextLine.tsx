import type { InputHTMLAttributes } from 'react';
import { Line } from './Line.tsx';

interface TextLineProps
  extends Pick<InputHTMLAttributes<HTMLInputElement>, 'type' | 'autoComplete' | 'inputMode' | 'required' | 'disabled'> {
  readonly id: string;
  readonly label: string;
  readonly hint?: string;
  /** What the server found, and the place of this input in it. */
  readonly error: unknown;
  readonly field: string;
  readonly value: string;
  readonly change: (typed: string) => void;
}

/** A line of text to type, with its label, a hint, and what is wrong with it. */
export const TextLine = ({ id, label, hint, error, field, value, change, ...rest }: TextLineProps) => (
  <Line {...{ id, label, error, field }} {...(hint === undefined ? {} : { hint })}>
    {(about) => (
      <input {...about} {...rest} className="input" value={value} onChange={(event) => change(event.target.value)} />
    )}
  </Line>
);
