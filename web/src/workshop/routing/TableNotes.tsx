import type { Field } from '@tolvek/core/register';
import { OUTCOME_WORDS, type RoutingTable } from '@tolvek/core/routing';
import { useEffect, useState } from 'react';
import { say } from '../../wire/words.ts';
import type { NotesTold } from './tableNotes.worker.ts';

const SHOWN = 4;
const SETTLE = 200;

/**
 * What follows from the rows together: requests that two rows would take, and requests that are
 * left to the last row.
 */
export function TableNotes({ table, fields }: { table: RoutingTable; fields: readonly Field[] }) {
  const notes = useNotes(table, fields);
  if (!notes || (notes.overlaps.length === 0 && notes.leftOver === null && notes.notComparedFrom === null)) return null;
  return (
    <section className="mt-6 max-w-[46rem]">
      <h2 className="section-head">{say('workshop:tableNotes')}</h2>
      <ul className="mt-1">
        {notes.overlaps.slice(0, SHOWN).map(({ first, second, example, names }) => (
          <li key={`${first} ${second}`} className="border-b border-rule py-1.5">
            {names
              ? say('workshop:overlapEach', { first, second, what: names.map((name) => OUTCOME_WORDS[name]) })
              : say('workshop:overlap', { first, second, used: first })}
            <span className="block text-[13px] text-soft">{say('workshop:forExample', { example })}</span>
          </li>
        ))}
        {notes.overlaps.length > SHOWN ? (
          <li className="py-1.5 text-soft">{say('workshop:moreOverlaps', { n: notes.overlaps.length - SHOWN })}</li>
        ) : null}
        {notes.notComparedFrom === null ? null : (
          <li className="border-b border-rule py-1.5">{say('workshop:notCompared', { row: notes.notComparedFrom })}</li>
        )}
        {notes.leftOver ? (
          <li className="border-b border-rule py-1.5">
            {say('workshop:leftToLast')}
            <span className="block text-[13px] text-soft">
              {say('workshop:forExample', { example: notes.leftOver })}
            </span>
          </li>
        ) : null}
      </ul>
    </section>
  );
}

/**
 * Asks a worker a moment after the last change; the notes of before stay until the new ones are
 * here.
 */
function useNotes(table: RoutingTable, fields: readonly Field[]): NotesTold | null {
  const [notes, setNotes] = useState<NotesTold | null>(null);
  useEffect(() => {
    let worker: Worker | null = null;
    const waiting = setTimeout(() => {
      worker = new Worker(new URL('./tableNotes.worker.ts', import.meta.url), { type: 'module' });
      worker.onmessage = ({ data }: MessageEvent<NotesTold>) => setNotes(data);
      worker.postMessage({ table, fields });
    }, SETTLE);
    return () => {
      clearTimeout(waiting);
      worker?.terminate();
    };
  }, [table, fields]);
  return notes;
}
