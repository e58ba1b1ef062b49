import { toast } from 'sonner';
import { Button } from '../ui/Button.tsx';
import { say } from '../wire/words.ts';

/** A button that copies a text. */
export const CopyButton = ({ text, label }: { text: string; label: string }) => (
  <Button
    onClick={() =>
      void navigator.clipboard.writeText(text).then(
        () => toast(say('directory:copied')),
        () => toast.error(say('directory:notCopied')),
      )
    }
  >
    {label}
  </Button>
);
