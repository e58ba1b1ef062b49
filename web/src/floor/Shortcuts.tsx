import { Dialog } from 'radix-ui';
import { useEffect, useState } from 'react';

const KEYS = [
  ['J or ↓', 'next request'],
  ['K or ↑', 'previous request'],
  ['Ctrl K', 'find by number or requester'],
  ['?', 'this list'],
] as const;

/** `?` lists the shortcuts. */
export function Shortcuts() {
  const [shown, setShown] = useState(false);
  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      if (event.key === '?' && !(event.target as HTMLElement).closest('input, textarea, select')) setShown(true);
    };
    addEventListener('keydown', onKey);
    return () => removeEventListener('keydown', onKey);
  }, []);
  return (
    <Dialog.Root open={shown} onOpenChange={setShown}>
      <Dialog.Trigger className="mt-6 text-[12.5px] text-soft underline decoration-dotted underline-offset-4">
        Shortcuts
      </Dialog.Trigger>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-20 bg-ink/25" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed top-1/3 left-1/2 z-30 w-80 -translate-x-1/2 -translate-y-1/3 rounded-md border border-rule-strong bg-sheet p-6 shadow-lg"
        >
          <Dialog.Title className="mb-3">Shortcuts</Dialog.Title>
          <dl className="grid grid-cols-[7rem_1fr] gap-y-2">
            {KEYS.map(([key, does]) => (
              <div key={key} className="contents">
                <dt>
                  <kbd className="rounded-md border border-b-2 border-rule-strong px-1.5 font-mono text-[12px]">
                    {key}
                  </kbd>
                </dt>
                <dd>{does}</dd>
              </div>
            ))}
          </dl>
          <Dialog.Close className="mt-5 text-green underline">Close</Dialog.Close>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
