import { X } from 'lucide-react';
import type { ReactNode } from 'react';
import { say } from '../wire/words.ts';

interface ChosenProps {
  readonly items: readonly { readonly key: string; readonly label: string }[];
  readonly disabled: boolean | undefined;
  readonly drop: (key: string) => void;
}

/** What was chosen where several can be: each can be taken away again. */
export function Chosen({ items, disabled, drop }: ChosenProps) {
  if (items.length === 0) return null;
  return (
    <ul className="mb-2 flex flex-wrap gap-2">
      {items.map(({ key, label }) => (
        <li
          key={key}
          className="flex max-w-full items-center gap-1 rounded-md border border-green bg-green-wash py-0.5 pr-1 pl-3"
        >
          <span className="min-w-0 truncate">{label}</span>
          <button
            type="button"
            className="inline-flex size-7 shrink-0 items-center justify-center text-brick"
            disabled={disabled}
            aria-label={say('desk:removeOne', { label })}
            onClick={() => drop(key)}
          >
            <X size={14} />
          </button>
        </li>
      ))}
    </ul>
  );
}

interface SeveralProps {
  readonly id: string;
  readonly value: unknown;
  readonly disabled: boolean | undefined;
  readonly labelOf: (key: string) => string;
  readonly put: (chosen: readonly string[]) => void;
  /** What one more is picked with. */
  readonly picker: (chosen: readonly string[], add: (key: string) => void) => ReactNode;
}

const NONE: readonly string[] = [];

/** Several that were chosen, and a picker for one more. */
export function Several({ id, value, disabled, labelOf, put, picker }: SeveralProps) {
  const chosen = Array.isArray(value) ? (value as readonly string[]) : NONE;
  return (
    // biome-ignore lint/a11y/useSemanticElements: the question above it is its label, which a fieldset’s legend can’t be here
    <div role="group" aria-labelledby={`${id}-label`}>
      <Chosen
        items={chosen.map((key) => ({ key, label: labelOf(key) }))}
        disabled={disabled}
        drop={(key) => put(chosen.filter((each) => each !== key))}
      />
      {picker(chosen, (key) => (key === '' || chosen.includes(key) ? undefined : put([...chosen, key])))}
    </div>
  );
}
