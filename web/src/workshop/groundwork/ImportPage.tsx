import type { AnswerOf } from '@tolvek/contract';
import { BUDGETS } from '@tolvek/core/budget';
import { profileFieldsOf } from '@tolvek/core/settings';
import { useState } from 'react';
import { Link, useParams } from 'react-router';
import { toast } from 'sonner';
import { Button } from '../../ui/Button.tsx';
import { Trouble } from '../../ui/Trouble.tsx';
import { useTitle } from '../../ui/useTitle.ts';
import { problemOf, refusalInWords } from '../../wire/problem.ts';
import { say } from '../../wire/words.ts';
import { ColumnTable } from '../ColumnTable.tsx';
import { PickRows } from '../PickRows.tsx';
import type { StartFile } from '../startFrom.ts';
import { groundApi } from './endpoints.ts';
import { ImportLook } from './ImportLook.tsx';
import { Byline } from './States.tsx';

type Kind = 'staff' | 'contact';

/** People out of a file: what each row would change is looked at before anything is. */
export function ImportPage() {
  const { kind: place } = useParams();
  const kind: Kind = place === 'contacts' ? 'contact' : 'staff';
  useTitle(say('ground:importTitle'));
  return (
    <main className="min-h-0 overflow-auto px-[26px] pt-5 pb-10">
      <div className="max-w-[56rem]">
        <div className="flex flex-wrap items-baseline justify-between gap-3">
          <h1>{say(kind === 'staff' ? 'ground:importPeople' : 'ground:importContacts')}</h1>
          <Link to={`/workshop/groundwork/${kind === 'staff' ? 'people' : 'contacts'}`} className="text-[13px]">
            {say(kind === 'staff' ? 'ground:people' : 'ground:contacts')}
          </Link>
        </div>
        <p className="text-soft">{say('ground:importHint')}</p>
        <FromFile key={kind} kind={kind} />
        <Imports />
      </div>
    </main>
  );
}

const plain = (words: string): string => words.trim().toLowerCase();

function FromFile({ kind }: { kind: Kind }) {
  const [file, setFile] = useState<StartFile | null>(null);
  const [columns, setColumns] = useState<readonly string[]>([]);
  const { data: profile } = groundApi.useProfileQuery();
  const choices = [
    { key: 'name', label: say('ground:column.name') },
    { key: 'given', label: say('ground:column.given') },
    { key: 'family', label: say('ground:column.family') },
    { key: 'email', label: say('ground:set.email') },
    { key: 'language', label: say('ground:set.language') },
    { key: 'groups', label: say('ground:groups') },
    ...(profile ? profileFieldsOf(profile, kind) : []).map(({ key, label }) => ({ key: `profile.${key}`, label })),
  ];
  const rows = file?.kind === 'rows' ? file.rows : [];
  const [headings = [], ...lines] = rows;
  const guess = (heading: string): string => {
    const words = plain(heading);
    const found = choices.find(
      ({ key, label }) => plain(label) === words || key === words || key === `profile.${words}`,
    );
    return found?.key ?? (['e-mail', 'email', 'mail'].includes(words) ? 'email' : '');
  };
  const opened = (read: StartFile): void => {
    setFile(read);
    const guessed = read.kind === 'rows' ? (read.rows[0] ?? []).map(guess) : [];
    setColumns(guessed.map((key, place) => (guessed.indexOf(key) === place ? key : '')));
  };
  const sent = lines
    .slice(0, BUDGETS.sheet.people)
    .map((line) => Object.fromEntries(columns.flatMap((key, place) => (key === '' ? [] : [[key, line[place] ?? '']]))));
  const canLook = columns.includes('name') || columns.includes('family') || columns.includes('given');
  return (
    <>
      <PickRows name={say('ground:importFile')} isForm={say('ground:importIsForm')} onRead={opened} />
      {rows.length > 0 && file ? (
        <>
          <p className="mt-4">
            {say('workshop:rowsRead', { count: lines.length })}{' '}
            {lines.length > BUDGETS.sheet.people
              ? say('workshop:importMost', { most: BUDGETS.sheet.people })
              : say('workshop:whichColumn')}
          </p>
          <ColumnTable
            {...{ headings, columns, choices }}
            first={lines[0] ?? []}
            map={(index, key) => setColumns(columns.map((each, at) => (at === index ? key : each === key ? '' : each)))}
          />
          {canLook && sent.length > 0 ? (
            <ImportLook
              key={JSON.stringify([file.name, columns])}
              {...{ kind, rows: sent, file: file.name }}
              labelOf={(column) => choices.find(({ key }) => key === column)?.label ?? column}
              done={() => setFile(null)}
            />
          ) : (
            <p className="mt-3 text-soft">{say('ground:importNeedsName')}</p>
          )}
        </>
      ) : null}
    </>
  );
}

/** Imports there were, the newest first; each can be undone in one go. */
function Imports() {
  const { data, error, refetch } = groundApi.usePeopleImportsQuery();
  const [undo, { isLoading }] = groundApi.useUndoImportMutation();
  const takeBack = async (each: AnswerOf<'peopleImports'>['imports'][number]): Promise<void> => {
    const done = await undo({ id: each.id });
    if ('error' in done) toast.error(refusalInWords(problemOf(done.error)));
    else toast(say('ground:importUndone', { count: done.data?.undone ?? 0, stayed: done.data?.stayed ?? 0 }));
  };
  if (error) return <Trouble error={error} again={refetch} />;
  if (!data || data.imports.length === 0) return null;
  return (
    <section className="mt-10">
      <h2 className="section-head">{say('ground:imports')}</h2>
      <ul>
        {data.imports.map((each) => (
          <li key={each.id} className="flex flex-wrap items-baseline justify-between gap-3 border-b border-rule py-2">
            <span className={each.undone ? 'text-soft line-through' : ''}>
              {each.file}
              <span className="block text-[12.5px] text-soft">
                {say('ground:importCounts', { added: each.added, changed: each.changed, gone: each.gone })}
              </span>
              <Byline {...each} />
            </span>
            {each.undone ? (
              <span className="text-soft">{say('ground:undoneAt', { at: each.undone })}</span>
            ) : (
              <Button disabled={isLoading} onClick={() => void takeBack(each)}>
                {say('ground:undoImport')}
              </Button>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}
