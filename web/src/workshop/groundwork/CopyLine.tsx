import { toast } from 'sonner';
import { Button } from '../../ui/Button.tsx';
import { say } from '../../wire/words.ts';

/** A text that is taken elsewhere, with the press that copies it. */
export function CopyLine({ text, name }: { text: string; name: string }) {
  const copy = (): void =>
    void navigator.clipboard.writeText(text).then(
      () => toast(say('directory:copied')),
      () => toast.error(say('directory:notCopied')),
    );
  return (
    <p className="mt-1.5 flex items-stretch gap-2">
      <input
        className="input min-w-0 font-mono text-[13px]"
        aria-label={name}
        readOnly
        value={text}
        onFocus={({ target }) => target.select()}
      />
      <Button onClick={copy}>{say('directory:copy')}</Button>
    </p>
  );
}
