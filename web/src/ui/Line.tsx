import type { ReactNode } from 'react';
import { problemOf } from '../wire/problem.ts';
import { told } from '../wire/words.ts';

interface LineProps {
  readonly id: string;
  readonly label: string;
  readonly hint?: string;
  /** What the server found, and the place of this input in it. */
  readonly error: unknown;
  readonly field: string;
  readonly children: (about: {
    readonly id: string;
    readonly 'aria-invalid': boolean;
    readonly 'aria-describedby': string | undefined;
  }) => ReactNode;
}

/** An input with its label over it, a hint, and what is wrong with it under it. */
export function Line({ id, label, hint, error, field, children }: LineProps) {
  const found = error === undefined ? [] : (problemOf(error).problems ?? []).filter((each) => each.field === field);
  const told_ = [hint ? `${id}-hint` : '', found.length > 0 ? `${id}-problem` : ''].filter(Boolean).join(' ');
  return (
    <div className="mt-4">
      <label id={`${id}-label`} htmlFor={id} className="block font-semibold">
        {label}
      </label>
      {hint ? (
        <p id={`${id}-hint`} className="text-soft">
          {hint}
        </p>
      ) : null}
      <div className="mt-1.5">
        {children({ id, 'aria-invalid': found.length > 0, 'aria-describedby': told_ || undefined })}
      </div>
      {found.length > 0 ? (
        <p id={`${id}-problem`} role="alert" className="mt-1 text-brick">
          {found.map((each) => `${told(each.message)} ${told(each.fix)}`).join(' ')}
        </p>
      ) : null}
    </div>
  );
}
