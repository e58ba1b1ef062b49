import { Popover } from 'radix-ui';
import type { ReactNode } from 'react';
import { say } from '../wire/words.ts';

/** Everything computed has one: a small “why?” that opens the reason in plain words. */
export function Why({ about, children }: { about: string; children: ReactNode }) {
  return (
    <Popover.Root>
      <Popover.Trigger
        className="text-[13px] text-green underline decoration-dotted underline-offset-[3px]"
        aria-label={say('common:whyAbout', { about })}
      >
        {say('common:why')}
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          sideOffset={6}
          collisionPadding={12}
          className="z-20 max-h-(--radix-popover-content-available-height) w-[22rem] max-w-[calc(100vw-24px)] overflow-auto rounded-md border border-rule-strong bg-sheet p-4 shadow-lg"
        >
          <p className="mb-2 font-semibold">{about}</p>
          {children}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
