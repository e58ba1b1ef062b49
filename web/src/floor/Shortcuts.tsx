import { Dialog } from 'radix-ui';
import { useEffect, useState } from 'react';
import { DialogFrame } from '../ui/DialogFrame.tsx';
import { say } from '../wire/words.ts';

const KEYS = [
  ['floor:key.next', 'floor:key.nextDoes'],
  ['floor:key.previous', 'floor:key.previousDoes'],
  ['common:findKeys', 'floor:key.findDoes'],
  ['floor:key.cell', 'floor:key.cellDoes'],
  ['?', 'floor:key.helpDoes'],
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
    <DialogFrame
      open={shown}
      onOpenChange={setShown}
      trigger={
        <button type="button" className="mt-6 text-[12.5px] text-soft underline decoration-dotted underline-offset-4">
          {say('floor:shortcuts')}
        </button>
      }
      title={say('floor:shortcuts')}
    >
      <dl className="mt-3 grid grid-cols-[7rem_1fr] gap-y-2">
        {KEYS.map(([key, does]) => (
          <div key={key} className="contents">
            <dt>
              <kbd className="rounded-md border border-b-2 border-rule-strong px-1.5 font-mono text-[12px]">
                {key === '?' ? key : say(key)}
              </kbd>
            </dt>
            <dd>{say(does)}</dd>
          </div>
        ))}
      </dl>
      <Dialog.Close className="mt-5 text-green underline">{say('common:close')}</Dialog.Close>
    </DialogFrame>
  );
}
