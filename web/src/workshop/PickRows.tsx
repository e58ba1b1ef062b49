import { useState } from 'react';
import { FilePick } from './FilePick.tsx';
import { readStartFile, type StartFile } from './startFrom.ts';

interface PickRowsProps {
  /** What is chosen, as it is read out. */
  readonly name: string;
  /** What is said of a file that is a form. */
  readonly isForm: string;
  readonly onRead: (file: StartFile) => void;
}

/** Chooses a CSV or XLSX file and reads its rows; what can’t be read is said, with the reason. */
export function PickRows({ name, isForm, onRead }: PickRowsProps) {
  const [reading, setReading] = useState('');
  const [refused, setRefused] = useState('');
  return (
    <>
      <p className="mt-3">
        <FilePick
          name={name}
          accept=".csv,.xlsx"
          onChoose={async (chosen) => {
            const read = await readStartFile(chosen, setReading);
            setReading('');
            setRefused(read.kind === 'form' ? isForm : read.kind === 'unreadable' ? read.why : '');
            onRead(read);
          }}
        />
      </p>
      {reading ? (
        <p role="status" className="mt-3 text-soft">
          {reading}
        </p>
      ) : null}
      {refused ? (
        <p role="alert" className="mt-3 border-l-[3px] border-brick bg-brick-wash px-3 py-2">
          {refused}
        </p>
      ) : null}
    </>
  );
}
