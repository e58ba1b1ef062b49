import type { ButtonHTMLAttributes } from 'react';

const LOOKS = {
  main: 'bg-green text-on-green border-green disabled:opacity-60',
  plain: 'bg-sheet text-ink border-edge disabled:text-soft disabled:border-rule-strong',
  refuse: 'bg-sheet text-brick border-brick disabled:opacity-60',
} as const;

/** A button says what it does with a verb. */
export function Button({
  look = 'plain',
  className = '',
  type = 'button',
  ...rest
}: ButtonHTMLAttributes<HTMLButtonElement> & { look?: keyof typeof LOOKS }) {
  return (
    <button
      type={type}
      className={`rounded-md border px-[13px] py-1.5 text-[13.5px] font-semibold whitespace-nowrap [.desk_&]:whitespace-normal ${LOOKS[look]} ${className}`}
      {...rest}
    />
  );
}
