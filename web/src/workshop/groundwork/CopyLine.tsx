import { say } from '../../wire/words.ts';
import { CopyButton } from '../CopyButton.tsx';

/** A text that is taken elsewhere, with the press that copies it. */
export function CopyLine({ text, name }: { text: string; name: string }) {
  return (
    <p className="mt-1.5 flex items-stretch gap-2">
      <input
        className="input min-w-0 font-mono text-[13px]"
        aria-label={name}
        readOnly
        value={text}
        onFocus={({ target }) => target.select()}
      />
      <CopyButton text={text} label={say('directory:copy')} />
    </p>
  );
}
