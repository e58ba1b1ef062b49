interface ChipProps {
  readonly words: string;
  /** What the button that takes it off is called. */
  readonly dropLabel: string;
  readonly drop: () => void;
}

/** One of several that were chosen; it can be taken off. */
export const Chip = ({ words, dropLabel, drop }: ChipProps) => (
  <span className="border border-rule bg-paper px-2 py-1">
    {words}{' '}
    <button type="button" className="text-soft hover:text-brick" aria-label={dropLabel} onClick={drop}>
      ×
    </button>
  </span>
);
