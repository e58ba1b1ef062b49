import { Dialog } from 'radix-ui';
import type { ReactElement, ReactNode } from 'react';

interface DialogFrameProps {
  readonly open: boolean;
  readonly onOpenChange: (open: boolean) => void;
  /** Forgets what was wrong the last time, whenever it opens or closes. */
  readonly reset?: () => void;
  /** What opens it, where it is not open from the first. */
  readonly trigger?: ReactElement;
  readonly title: string;
  readonly children: ReactNode;
  /** For what takes more room than words. */
  readonly isWide?: boolean;
}

/** A dialog over the page: what opens it, its title, and what stands in it. Escape and a press beside it close it. */
export function DialogFrame({ open, onOpenChange, reset, trigger, title, children, isWide }: DialogFrameProps) {
  const change = (now: boolean): void => {
    onOpenChange(now);
    reset?.();
  };
  return (
    <Dialog.Root open={open} onOpenChange={change}>
      {trigger ? <Dialog.Trigger asChild>{trigger}</Dialog.Trigger> : null}
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-20 bg-ink/25" />
        <Dialog.Content
          aria-describedby={undefined}
          className={`fixed top-[12vh] left-1/2 z-30 max-h-[76vh] ${isWide ? 'w-[58rem]' : 'w-[34rem]'} max-w-[calc(100vw-24px)] -translate-x-1/2 overflow-auto rounded-md border border-rule-strong bg-sheet p-6 shadow-lg`}
        >
          <Dialog.Title className="text-[21px]">{title}</Dialog.Title>
          {children}
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
