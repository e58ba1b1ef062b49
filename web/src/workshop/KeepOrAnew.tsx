import type { ReactNode } from 'react';

interface KeepOrAnewProps {
  /** Tells the group of buttons apart from others. */
  readonly id: string;
  readonly legend: string;
  readonly says: string;
  /** Keeping what there is, and having it anew: what each is called, and what it means. */
  readonly ways: readonly [keep: readonly [string, string], anew: readonly [string, string]];
  readonly isAnew: boolean;
  readonly set: (isAnew: boolean) => void;
  readonly children?: ReactNode;
}

/** What becomes of what is there when something is released: it stays as it is, or has it anew. */
export const KeepOrAnew = ({ id, legend, says, ways, isAnew, set, children }: KeepOrAnewProps) => (
  <fieldset className="mt-4">
    <legend className="font-semibold">{legend}</legend>
    <p className="mt-1">{says}</p>
    {ways.map(([label, hint], place) => (
      <label key={label} className="mt-2 grid grid-cols-[22px_1fr] items-baseline">
        <input
          type="radio"
          name={id}
          className="accent-green"
          checked={isAnew === (place === 1)}
          onChange={() => set(place === 1)}
        />
        <span>
          {label}
          <span className="block text-[13px] text-soft">{hint}</span>
        </span>
      </label>
    ))}
    {children}
  </fieldset>
);
