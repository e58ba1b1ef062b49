import { type KnownFile, WITH_MESSAGE } from '@tolvek/core/register';
import { useMemo } from 'react';
import { say } from '../wire/words.ts';
import { FilesInput } from './FilesInput.tsx';
import { AroundFieldsProvider, NOTHING_KNOWN } from './input.ts';
import { uploadFile } from './uploadFile.ts';
import type { useOnTheWay } from './useOnTheWay.ts';

interface MessageFilesProps {
  readonly id: string;
  /** Where files are sent to. */
  readonly address: string;
  readonly files: readonly KnownFile[];
  readonly set: (change: (before: readonly KnownFile[]) => readonly KnownFile[]) => void;
  readonly follow: ReturnType<typeof useOnTheWay>['follow'];
}

/** Files to send with a message, each sent off as it is chosen. */
export function MessageFiles({ id, address, files, set, follow }: MessageFilesProps) {
  const around = useMemo(
    () => ({
      ...NOTHING_KNOWN,
      files,
      upload: async (field: string, file: File, told: (part: number) => void) => {
        const known = await follow(uploadFile(address, field, file, told));
        set((before) => [...before, known]);
        return known;
      },
    }),
    [address, files, set, follow],
  );
  return (
    <div className="mt-2">
      <span id={`${id}-label`} className="text-[14px] text-soft">
        {say('common:filesWithIt')}
      </span>
      <AroundFieldsProvider value={around}>
        <FilesInput
          id={id}
          fieldKey={WITH_MESSAGE}
          type={{ kind: 'files', only: 'any' }}
          label={say('common:filesWithIt')}
          value={files.map(({ ref }) => ref)}
          onChange={(refs) =>
            set((before) =>
              before.filter(({ ref }) => Array.isArray(refs) && (refs as readonly string[]).includes(ref)),
            )
          }
          describedBy={undefined}
          invalid={false}
          disabled={false}
        />
      </AroundFieldsProvider>
    </div>
  );
}

/** What was sent with a message, to be saved. */
export const SentFiles = ({
  files,
  fileAt,
}: {
  readonly files: readonly { readonly id: string; readonly name: string }[];
  readonly fileAt: (id: string) => string;
}) =>
  files.length === 0 ? null : (
    <ul className="mt-1">
      {files.map(({ id, name }) => (
        <li key={id} className="min-w-0 truncate">
          <a href={fileAt(id)} download={name}>
            {name}
          </a>
        </li>
      ))}
    </ul>
  );
