import type { AnswerOf } from '@tolvek/contract';
import { type ReactNode, useEffect, useState } from 'react';
import { toast } from 'sonner';
import { Button } from '../../ui/Button.tsx';
import { Trouble } from '../../ui/Trouble.tsx';
import { say, told } from '../../wire/words.ts';
import { groundApi } from './endpoints.ts';

type Look = AnswerOf<'lookAtPeople'>;
type Row = Look['rows'][number] & { readonly place: number };

interface ImportLookProps {
  readonly kind: 'staff' | 'contact';
  readonly rows: readonly Readonly<Record<string, string>>[];
  /** What the file is called. */
  readonly file: string;
  /** What a column is called, by what it is. */
  readonly labelOf: (column: string) => string;
  readonly done: () => void;
}

/** What an import would come to, looked at anew with each decision, and the import itself. */
export function ImportLook({ kind, rows, file, labelOf, done }: ImportLookProps) {
  const [decided, setDecided] = useState<Readonly<Record<string, string>>>({});
  const [gone, setGone] = useState(false);
  const [key] = useState(() => crypto.randomUUID());
  const [look, { data, error }] = groundApi.useLookAtPeopleMutation();
  const [take, { isLoading, error: refused }] = groundApi.useImportPeopleMutation();
  // biome-ignore lint/correctness/useExhaustiveDependencies: the rows are those this was opened with
  useEffect(() => {
    void look({ body: { kind, rows: [...rows], decided: { ...decided } } });
  }, [decided, kind, look]);
  if (error) return <Trouble error={error} />;
  if (!data) return <p className="mt-4 text-soft">{say('workshop:checking')}</p>;
  const all = data.rows.map((row, place): Row => ({ ...row, place }));
  const of = (is: Row['is']): readonly Row[] => all.filter((row) => row.is === is);
  const [added, changed, doubtful, wrong] = [of('new'), of('changed'), of('doubtful'), of('wrong')] as const;
  const leaving = gone ? data.gone.length : 0;
  const bring = async (): Promise<void> => {
    const body = { kind, rows: [...rows], decided: { ...decided }, file, gone, seen: data.seen };
    const answer = await take({ once: `${key}-${data.seen}`, body });
    if ('error' in answer) return;
    const { added: came = 0, changed: became = 0, gone: left = 0 } = answer.data ?? {};
    toast(say('ground:importedPeople', { added: came, changed: became, gone: left }));
    done();
  };
  return (
    <div className="mt-5 border-t border-rule-strong pt-3">
      <p aria-live="polite" className="font-semibold">
        {say('ground:importWould', {
          ...{ added: added.length, changed: changed.length, same: of('same').length },
          ...{ doubtful: doubtful.length, wrong: wrong.length },
        })}
      </p>
      <Part title={say('ground:part.doubtful', { count: doubtful.length })} rows={doubtful} open>
        {(row) => (
          <Doubt
            row={row}
            value={decided[row.place] ?? ''}
            decide={(value) => setDecided({ ...decided, [row.place]: value })}
          />
        )}
      </Part>
      <DecidedRows
        rows={all.filter(({ place, is }) => is !== 'doubtful' && (decided[place] ?? '') !== '')}
        undo={(place) => setDecided(Object.fromEntries(Object.entries(decided).filter(([at]) => at !== String(place))))}
      />
      <Part title={say('ground:part.wrong', { count: wrong.length })} rows={wrong} open>
        {(row) =>
          row.problems.map((problem) => (
            <span key={`${problem.field} ${told(problem.message)}`} className="block text-brick">
              {labelOf(problem.field)}: {told(problem.message)} {told(problem.fix)}
            </span>
          ))
        }
      </Part>
      <Part title={say('ground:part.changed', { count: changed.length })} rows={changed}>
        {(row) => <Changes row={row} />}
      </Part>
      <Part title={say('ground:part.new', { count: added.length })} rows={added}>
        {(row) => <Changes row={row} />}
      </Part>
      {data.gone.length > 0 ? (
        <details className="mt-3">
          <summary className="cursor-pointer">{say('ground:part.gone', { count: data.gone.length })}</summary>
          <ul className="mt-1 max-h-72 overflow-auto">
            {data.gone.map(({ id, name, email }) => (
              <li key={id} className="border-b border-rule py-1">
                {name} <span className="text-soft">{email}</span>
              </li>
            ))}
          </ul>
        </details>
      ) : null}
      {data.gone.length > 0 ? (
        <label className="mt-2 flex items-center gap-2">
          <input
            type="checkbox"
            className="accent-green"
            checked={gone}
            onChange={(event) => setGone(event.target.checked)}
          />
          {say('ground:makeGone', { count: data.gone.length })}
        </label>
      ) : null}
      {refused ? (
        <div className="mt-3">
          <Trouble error={refused} />
        </div>
      ) : null}
      <p className="mt-4 flex flex-wrap items-center gap-3">
        <Button
          look="main"
          disabled={isLoading || added.length + changed.length + leaving === 0}
          onClick={() => void bring()}
        >
          {isLoading
            ? say('ground:importing')
            : say('ground:importNow', { added: added.length, changed: changed.length, gone: leaving })}
        </Button>
        <span className="text-soft">{say('ground:importNoEmail')}</span>
      </p>
    </div>
  );
}

/** Rows that have the same answer, each by its line in the file. */
function Part({
  title,
  rows,
  open = false,
  children,
}: {
  title: string;
  rows: readonly Row[];
  open?: boolean;
  children: (row: Row) => ReactNode;
}) {
  if (rows.length === 0) return null;
  return (
    <details className="mt-3" open={open}>
      <summary className="cursor-pointer">{title}</summary>
      <ul className="mt-1 max-h-96 overflow-auto">
        {rows.map((row) => (
          <li key={row.place} className="border-b border-rule py-1.5">
            <span className="mr-2 text-[12.5px] text-soft">{say('workshop:lineNo', { line: row.place + 2 })}</span>
            {row.name} <span className="text-soft">{row.email}</span>
            <span className="block pl-4">{children(row)}</span>
          </li>
        ))}
      </ul>
    </details>
  );
}

/** What was and what will be, one by one. */
const Changes = ({ row }: { row: Row }) =>
  row.changes.map(({ what, before, after }) => (
    <span key={`${told(what)} ${told(after)}`} className="block text-soft">
      {told(what)}: {before === '' ? '' : `${told(before)} → `}
      {told(after)}
    </span>
  ));

/** Who is meant is for a person to say: one of those it could be, somebody new, or nobody for now. */
function Doubt({ row, value, decide }: { row: Row; value: string; decide: (value: string) => void }) {
  const canBeNew = row.why === 'other-address' || row.why === 'several';
  return (
    <span className="flex flex-wrap items-center gap-2">
      <span className="text-soft">{row.why ? say(`ground:why.${row.why}`) : ''}</span>
      {row.why === 'other-kind' ? null : (
        <select
          aria-label={say('ground:whoIsIt', { name: row.name, email: row.email })}
          className="input w-auto py-1"
          value={value}
          onChange={(event) => decide(event.target.value)}
        >
          <option value="">{say('ground:leaveOut')}</option>
          {row.candidates.map(({ id, name, email }) => (
            <option key={id} value={id}>
              {say('ground:isPerson', { name, email })}
            </option>
          ))}
          {canBeNew ? <option value="new">{say('ground:isNew')}</option> : null}
        </select>
      )}
    </span>
  );
}

/** Rows that somebody has decided about, with the way back. */
function DecidedRows({ rows, undo }: { rows: readonly Row[]; undo: (place: number) => void }) {
  if (rows.length === 0) return null;
  return (
    <Part title={say('ground:part.decided', { count: rows.length })} rows={rows} open>
      {(row) => (
        <span className="flex flex-wrap items-baseline gap-3">
          <span>
            <span className="text-soft">{say(row.is === 'new' ? 'ground:isNew' : 'ground:isTaken')}</span>
            <Changes row={row} />
          </span>
          <Button onClick={() => undo(row.place)}>{say('ground:decideAgain')}</Button>
        </span>
      )}
    </Part>
  );
}
