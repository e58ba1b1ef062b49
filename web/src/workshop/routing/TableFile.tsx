import { BUDGETS } from '@tolvek/core/budget';
import { type DmnGround, type DmnRead, type DmnTable, dmnOf, type RoutingTable, routingOf } from '@tolvek/core/routing';
import { useState } from 'react';
import { toast } from 'sonner';
import { Button } from '../../ui/Button.tsx';
import { DialogFrame } from '../../ui/DialogFrame.tsx';
import { saveFile } from '../../ui/saveFile.ts';
import { say, told } from '../../wire/words.ts';
import { useBinder } from '../binder.ts';
import { FilePick } from '../FilePick.tsx';

/** What a file came to: its tables by name, or why it is none. */
type Told =
  | { readonly tables: readonly { readonly name: string; readonly read: DmnRead }[] }
  | { readonly why: string };

async function readFile(
  file: File,
  ground: Omit<DmnGround, 'handlerIn' | 'deadlinesIn' | 'followersIn'>,
): Promise<Told> {
  if (file.size > BUDGETS.sheet.bytes) return { why: say('workshop:start.tooLarge', { most: BUDGETS.sheet.bytes }) };
  try {
    const { dmnTablesIn, ...inJson } = await import('./dmnFile.ts');
    const found = await dmnTablesIn(await file.text());
    const read = (some: readonly DmnTable[]): DmnRead => routingOf(some, { ...ground, ...inJson });
    const tables = found.map((dmn) => ({ name: dmn.name, read: read([dmn]) }));
    const together = found.length > 1 ? read(found) : null;
    // What each say something else can be one table, in which each thing is said for itself.
    if (together?.ok) tables.unshift({ name: say('workshop:dmnAll'), read: together });
    return tables.length > 0 ? { tables } : { why: say('workshop:dmnNoTable') };
  } catch {
    return { why: say('workshop:dmnUnreadable') };
  }
}

/** The routing table as a DMN file for other programs, and one of theirs in its place. */
export function TableFile({ put }: { put: (table: RoutingTable) => void }) {
  const { editing, form } = useBinder();
  const { draft, proof } = editing;
  const [open, setOpen] = useState(false);
  const [found, setFound] = useState<Told | null>(null);
  const [at, setAt] = useState(0);
  const save = async (): Promise<void> => {
    const { dmnFileOf } = await import('./dmnFile.ts');
    const xml = await dmnFileOf(draft.title, dmnOf(draft.routing, draft.title, proof.scope));
    saveFile(`${form.key}.dmn`, 'application/xml', xml);
  };
  const ground = {
    groups: form.groups.filter((group) => group.isTeam),
    fields: draft.fields,
    paths: draft.approval.paths,
    stages: form.stages,
    otherwise: draft.routing.otherwise,
  };
  const tables = found && 'tables' in found ? found.tables : [];
  const read = tables[at]?.read;
  return (
    <section className="mt-6 max-w-[46rem]">
      <h2 className="section-head">{say('workshop:dmnHead')}</h2>
      <p className="mt-2 text-soft">{say('workshop:dmnText')}</p>
      <div className="mt-2 flex flex-wrap gap-2">
        <Button onClick={() => void save()}>{say('workshop:dmnSave')}</Button>
        <DialogFrame
          open={open}
          onOpenChange={setOpen}
          reset={() => setFound(null)}
          trigger={<Button>{say('workshop:dmnTake')}</Button>}
          title={say('workshop:dmnTitle')}
        >
          <p className="mt-3 text-soft">{say('workshop:dmnHint')}</p>
          <p className="mt-3">
            <FilePick
              name={say('workshop:dmnFile')}
              accept=".dmn,.xml"
              onChoose={async (file) => {
                setAt(0);
                setFound(await readFile(file, ground));
              }}
            />
          </p>
          {found && 'why' in found ? (
            <p role="alert" className="mt-3 font-semibold text-brick">
              {found.why}
            </p>
          ) : null}
          {tables.length > 1 ? (
            <select
              aria-label={say('workshop:dmnWhich')}
              className="input mt-3"
              value={at}
              onChange={(event) => setAt(Number(event.target.value))}
            >
              {tables.map(({ name }, index) => (
                // biome-ignore lint/suspicious/noArrayIndexKey: tables of a file have no other order, and may share a name
                <option key={index} value={index}>
                  {name || say('workshop:dmnNoName', { n: index + 1 })}
                </option>
              ))}
            </select>
          ) : null}
          {read ? <Read read={read} /> : null}
          <div className="mt-5 flex gap-3">
            <Button
              look="main"
              disabled={!read?.ok}
              onClick={() => {
                if (!read?.ok) return;
                put(read.table);
                setOpen(false);
                toast(say('workshop:dmnTaken', { count: read.table.rows.length }));
              }}
            >
              {say('workshop:dmnReplace')}
            </Button>
            <Button onClick={() => setOpen(false)}>{say('common:cancel')}</Button>
          </div>
        </DialogFrame>
      </div>
    </section>
  );
}

/** What would stand in place of the table, and what of the file would not. */
function Read({ read }: { read: DmnRead }) {
  if (!read.ok)
    return (
      <p role="alert" className="mt-3 font-semibold text-brick">
        {told(read.why)}
      </p>
    );
  const { table, notes } = read;
  return (
    <div className="mt-3">
      <p>
        {say('workshop:dmnRead', { count: table.rows.length })}{' '}
        {table.columns.length > 0
          ? say('workshop:dmnColumns', { columns: table.columns.map(({ label }) => label) })
          : null}
      </p>
      <ul className="mt-2 border-l-[3px] border-brass-mark pl-3">
        {notes.map((note) => (
          <li key={told(note)} className="py-0.5">
            {told(note)}
          </li>
        ))}
      </ul>
    </div>
  );
}
