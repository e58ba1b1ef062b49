import { bytesInWords, FILE_LIMITS, fileName } from '@tolvek/core/register';
import { Paperclip, X } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import { Button } from '../ui/Button.tsx';
import { say } from '../wire/words.ts';
import { type InputProps, useAroundFields } from './input.ts';

interface Going {
  readonly name: string;
  readonly part: number;
}

const ACCEPTED = {
  any: undefined,
  pictures: 'image/jpeg,image/png,image/webp,image/gif',
  documents: '.pdf,.docx,.xlsx,.odt,.ods,.txt,.csv',
} as const;

/** Files to send along: each goes off as soon as it is chosen, with how much of it has gone. */
export function FilesInput(props: InputProps<'files'>) {
  const { files, upload } = useAroundFields();
  const [going, setGoing] = useState<readonly Going[]>([]);
  const [refused, setRefused] = useState<readonly string[]>([]);
  const [previews, setPreviews] = useState<Readonly<Record<string, string>>>({});
  const shown = useRef(previews);
  shown.current = previews;
  useEffect(() => () => Object.values(shown.current).forEach((preview) => void URL.revokeObjectURL(preview)), []);
  const picker = useRef<HTMLInputElement>(null);
  const chosen = Array.isArray(props.value) ? (props.value as readonly string[]) : [];
  const latest = useRef(chosen);
  latest.current = chosen;
  const { most = FILE_LIMITS.files, mostBytes = FILE_LIMITS.bytes } = props.type;
  const full = chosen.length + going.length >= most;

  const send = async (list: readonly File[]): Promise<void> => {
    setRefused([]);
    for (const file of list.slice(0, most - chosen.length)) {
      const told = (part: number): void =>
        setGoing((now) => [...now.filter((each) => each.name !== file.name), { name: file.name, part }]);
      told(0);
      try {
        const known = await upload?.(props.fieldKey, file, told);
        if (known && file.type.startsWith('image/'))
          setPreviews((now) => ({ ...now, [known.ref]: URL.createObjectURL(file) }));
        if (known) props.onChange([...latest.current, known.ref]);
      } catch (error) {
        setRefused((now) => [
          ...now,
          error instanceof Error ? error.message : say('desk:fileNotAdded', { name: file.name }),
        ]);
      }
      setGoing((now) => now.filter((each) => each.name !== file.name));
    }
    props.onBlur?.();
  };
  return (
    // biome-ignore lint/a11y/useSemanticElements: the question above it is its label, which a fieldset’s legend can’t be here
    <div role="group" aria-labelledby={`${props.id}-label`} aria-describedby={props.describedBy}>
      {chosen.length > 0 ? (
        <ul className="mb-2 border-t border-rule">
          {chosen.map((ref) => {
            const known = files.find((file) => file.ref === ref);
            return (
              <li key={ref} className="flex items-center gap-2 border-b border-rule py-1">
                {previews[ref] ? (
                  <img src={previews[ref]} alt="" className="size-12 shrink-0 border border-rule object-cover" />
                ) : (
                  <Paperclip size={15} aria-hidden="true" className="shrink-0 text-soft" />
                )}
                <span className="min-w-0 truncate">{fileName(ref)}</span>
                {known ? <span className="shrink-0 text-[0.88em] text-soft">{bytesInWords(known.bytes)}</span> : null}
                <button
                  type="button"
                  className="ml-auto inline-flex size-8 shrink-0 items-center justify-center text-brick"
                  disabled={props.disabled}
                  aria-label={say('desk:removeOne', { label: fileName(ref) })}
                  onClick={() => props.onChange(chosen.filter((each) => each !== ref))}
                >
                  <X size={15} />
                </button>
              </li>
            );
          })}
        </ul>
      ) : null}
      {going.map((each) => (
        <p key={each.name} className="mb-2" aria-live="polite">
          <span className="block text-[0.93em]">
            {say('desk:fileSent', { name: each.name, percent: Math.round(each.part * 100) })}
          </span>
          <progress
            className="block h-1.5 w-full"
            value={each.part}
            aria-label={say('desk:fileProgress', { name: each.name })}
          />
        </p>
      ))}
      {refused.map((why) => (
        <p key={why} role="alert" className="mb-2 font-semibold text-brick">
          <span aria-hidden="true">▲ </span>
          {why}
        </p>
      ))}
      <input
        ref={picker}
        id={props.id}
        type="file"
        className="sr-only"
        tabIndex={-1}
        aria-labelledby={`${props.id}-label`}
        accept={ACCEPTED[props.type.only]}
        multiple={most > 1}
        disabled={props.disabled || full || !upload}
        onChange={(event) => {
          void send([...(event.target.files ?? [])]);
          event.target.value = '';
        }}
      />
      <p className="flex flex-wrap items-center gap-x-3 gap-y-1">
        <Button
          disabled={props.disabled || full || !upload}
          aria-describedby={`${props.id}-limits`}
          onClick={() => picker.current?.click()}
        >
          {props.type.only === 'pictures' ? say('desk:addPicture') : say('desk:addFile')}
        </Button>
        <span id={`${props.id}-limits`} className="text-[0.88em] text-soft">
          {upload ? say('desk:filesAtMost', { count: most, size: mostBytes }) : say('desk:filesElsewhere')}
        </span>
      </p>
    </div>
  );
}
