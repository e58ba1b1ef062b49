import type { OptionColour } from '@tolvek/core/register';

/** The colour of an option as a small bar before its words; it says nothing by itself. */
export const ColourMark = ({ colour }: { colour: OptionColour | undefined }) =>
  colour ? (
    <span
      aria-hidden="true"
      className="mr-1.5 inline-block h-[0.85em] w-[5px] translate-y-[0.08em]"
      style={{ background: `var(--mark-${colour})` }}
    />
  ) : null;
