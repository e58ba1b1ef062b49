import { Popover } from 'radix-ui';
import type { ReactNode } from 'react';

interface PartProps {
  /** What the sentence says here. */
  readonly words: string;
  /** Whether it says nothing yet, and this is how one begins. */
  readonly isFaint?: boolean;
  /** What is changed here. */
  readonly label: string;
  readonly children: ReactNode;
}

/** A part of a view’s sentence: pressed, it is changed. */
export const Part = ({ words, isFaint = false, label, children }: PartProps) => (
  <Popover.Root>
    <Popover.Trigger
      aria-label={`${label}: ${words}`}
      className={
        isFaint
          ? 'border-b border-dotted border-rule-strong text-soft hover:text-ink'
          : 'border-b-[1.5px] border-green font-semibold text-green'
      }
    >
      {words}
    </Popover.Trigger>
    <Popover.Portal>
      <Popover.Content
        align="start"
        sideOffset={6}
        collisionPadding={12}
        className="z-30 max-h-(--radix-popover-content-available-height) w-[34rem] max-w-[calc(100vw-24px)] overflow-auto border border-rule-strong bg-sheet p-4 shadow-lg"
      >
        <h2 className="mb-2 font-sans text-[13px] font-semibold">{label}</h2>
        {children}
      </Popover.Content>
    </Popover.Portal>
  </Popover.Root>
);
