import type { ReactNode } from 'react';
import { DayField } from './DateInput.tsx';

interface DayLineProps {
  readonly id: string;
  readonly label: string;
  readonly value: string;
  /** The day at the desk. */
  readonly today: string;
  readonly notBefore?: string | null;
  readonly set: (day: string) => void;
  /** What is wrong with it. */
  readonly children?: ReactNode;
}

/** A day with its label over it. */
export const DayLine = ({ id, label, value, today, notBefore = null, set, children }: DayLineProps) => (
  <div>
    <label htmlFor={id} className="block text-[13px] text-soft">
      {label}
    </label>
    <DayField {...{ id, value, today, notBefore }} withTime={false} onChange={set} />
    {children}
  </div>
);
