import { X } from 'lucide-react';

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
        <li key={key} className="flex max-w-full items-center gap-1 rounded-md border border-green bg-green-wash py-0.5 pr-1 pl-3">
          <span className="min-w-0 truncate">{label}</span>
          <button
            type="button"
            className="inline-flex size-7 shrink-0 items-center justify-center text-brick"
            disabled={disabled}
            aria-label={`Take ${label} away`}
            onClick={() => drop(key)}
          >
            <X size={14} />
          </button>
        </li>
      ))}
    </ul>
  );
}
