import { useRef, useState } from 'react';
import { Button } from '../ui/Button.tsx';
import { say } from '../wire/words.ts';

interface FilePickProps {
  /** What is chosen, as it is read out. */
  readonly name: string;
  /** Kinds of files, as the attribute `accept` lists them. */
  readonly accept: string;
  readonly onChoose: (file: File) => Promise<void>;
}

/** Chooses one file, in the language that is read: a browser’s own button speaks the browser’s. */
export function FilePick({ name, accept, onChoose }: FilePickProps) {
  const picker = useRef<HTMLInputElement>(null);
  const [chosen, setChosen] = useState('');
  return (
    <span className="inline-flex flex-wrap items-center gap-x-3 gap-y-1">
      <input
        ref={picker}
        type="file"
        className="sr-only"
        tabIndex={-1}
        aria-label={name}
        accept={accept}
        onChange={(event) => {
          const file = event.target.files?.[0];
          // The same file may be chosen again after it was corrected.
          event.target.value = '';
          if (!file) return;
          setChosen(file.name);
          void onChoose(file);
        }}
      />
      <Button onClick={() => picker.current?.click()}>{say('workshop:chooseFile')}</Button>
      <span className="text-soft [overflow-wrap:anywhere]">{chosen || say('workshop:noFile')}</span>
    </span>
  );
}
