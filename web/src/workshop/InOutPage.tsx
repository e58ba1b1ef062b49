import { type AnswerOf, MOST_IMPORTED } from '@tolvek/contract';
import { type FormDesign, questionsOf } from '@tolvek/core/form';
import { comesInCells, type Field } from '@tolvek/core/register';
import { useState } from 'react';
import { Button } from '../ui/Button.tsx';
import { problemOf } from '../wire/problem.ts';
import { say, told } from '../wire/words.ts';
import { useBinder } from './binder.ts';
import { ColumnTable } from './ColumnTable.tsx';
import { workshopApi } from './endpoints.ts';
import { LongWork } from './LongWork.tsx';
import { PickRows } from './PickRows.tsx';
import type { StartFile } from './startFrom.ts';

/** In the place of a field: whose request it is, by mail address or name. */
const REQUESTER = '@requester';

type Told = AnswerOf<'takeInRows'>;

/**
 * Requests as a sheet: taken out with what one may read, and taken in by the form’s own rules after
 * a dry run.
 */
export function InOutPage() {
  const { form } = useBinder();
  const [among, setAmong] = useState<'all' | 'unfinished'>('all');
  const inForce = Math.max(0, ...form.releases.map((release) => release.number));
  // Rows come in by what is in force, whatever the draft asks by now.
  const { data: release } = workshopApi.useCompareReleaseQuery(
    { key: form.key, number: inForce },
    { skip: inForce === 0 },
  );
  return (
    <>
      <h2 className="section-head mt-2">{say('workshop:exportRequests')}</h2>
      {form.staysIn ? (
        <p className="mt-2 text-soft">{say('workshop:neverExported')}</p>
      ) : (
        <>
          <p className="mt-2 text-soft">{say('workshop:exportText')}</p>
          <p className="mt-2 flex flex-wrap items-center gap-3">
            <select
              aria-label={say('workshop:whichRequests')}
              className="input w-auto"
              value={among}
              onChange={(event) => setAmong(event.target.value as typeof among)}
            >
              <option value="all">{say('workshop:allRequests')}</option>
              <option value="unfinished">{say('workshop:unfinishedRequests')}</option>
            </select>
            <a
              href={`/api/forms/${form.key}/requests.csv?among=${among}`}
              download
              className="rounded-md border border-edge bg-sheet px-[13px] py-1.5 text-[13.5px] font-semibold text-ink no-underline"
            >
              {say('workshop:downloadFile')}
            </a>
          </p>
        </>
      )}
      <h2 className="section-head mt-8">{say('workshop:importRequests')}</h2>
      {inForce === 0 ? (
        <p className="mt-2 text-soft">{say('workshop:importLater')}</p>
      ) : release ? (
        <TakeIn form={form} design={release.design} />
      ) : (
        <p className="mt-2 text-soft">{say('workshop:openingRelease', { number: inForce })}</p>
      )}
    </>
  );
}

/** The fields that can be taken in: those the release in force asks for. */
const comingIn = ({ fields, parts }: FormDesign): readonly Field[] => {
  const asked = new Set(questionsOf(parts).map((question) => question.field));
  return fields.filter((field) => field.source === 'asked' && asked.has(field.key) && comesInCells(field.type));
};

const plain = (words: string): string => words.trim().toLowerCase();

/** Which field each heading means: by its label, its question or its key. */
function guessed(headings: readonly string[], design: FormDesign): readonly string[] {
  const fields = comingIn(design);
  const asks = new Map(questionsOf(design.parts).map((question) => [question.field, question.asks]));
  return headings.map((heading) => {
    const words = plain(heading);
    if (
      ['requester', say('workshop:emailWord'), 'email', 'e-mail'].includes(words) &&
      !fields.some((field) => plain(field.label) === words)
    )
      return REQUESTER;
    return (
      fields.find((field) => [field.label, field.key, asks.get(field.key) ?? ''].some((name) => plain(name) === words))
        ?.key ?? ''
    );
  });
}

const toldOf = (rows: Told['rows']): Told => {
  const good = rows.filter((row) => row.number !== null).length;
  return { applied: true, good, bad: rows.length - good, rows, job: null };
};

function TakeIn({ form, design }: { form: AnswerOf<'form'>; design: FormDesign }) {
  const [file, setFile] = useState<StartFile | null>(null);
  const [columns, setColumns] = useState<readonly string[]>([]);
  const [once, setOnce] = useState(() => crypto.randomUUID());
  const [run, { data, error, isLoading, reset }] = workshopApi.useTakeInRowsMutation();
  /** What became of rows that were taken in beside this page. */
  const [taken, setTaken] = useState<Told | null>(null);
  const rows = file?.kind === 'rows' ? file.rows : [];
  const [headings = [], ...lines] = rows;
  const fields = comingIn(design);
  const look = (apply: boolean): void => {
    const body = lines.slice(0, MOST_IMPORTED).map((line) => ({
      cells: Object.fromEntries(
        columns.flatMap((key, index) => (key === '' || key === REQUESTER ? [] : [[key, line[index] ?? '']])),
      ),
      requester: columns.includes(REQUESTER) ? (line[columns.indexOf(REQUESTER)] ?? '') : '',
    }));
    setTaken(null);
    void run({ key: form.key, once, body: { rows: body, apply } });
  };
  const map = (index: number, key: string): void => {
    setColumns(columns.map((each, at) => (at === index ? key : each === key ? '' : each)));
    reset();
  };
  return (
    <>
      <p className="mt-2 text-soft">{say('workshop:importText')}</p>
      <PickRows
        name={say('workshop:importFile')}
        isForm={say('workshop:importIsForm')}
        onRead={(read) => {
          reset();
          setOnce(crypto.randomUUID());
          setFile(read);
          setColumns(read.kind === 'rows' ? guessed(read.rows[0] ?? [], design) : []);
        }}
      />
      {rows.length > 0 ? (
        <>
          <p className="mt-4">
            {say('workshop:rowsRead', { count: lines.length })}{' '}
            {lines.length > MOST_IMPORTED
              ? say('workshop:importMost', { most: MOST_IMPORTED })
              : say('workshop:whichColumn')}
          </p>
          <ColumnTable
            {...{ headings, columns, map }}
            first={lines[0] ?? []}
            choices={[
              { key: REQUESTER, label: say('workshop:columnRequester') },
              ...fields.map(({ key, label }) => ({ key, label })),
            ]}
          />
          <p className="mt-3 flex flex-wrap items-center gap-3">
            <Button disabled={isLoading || columns.every((key) => key === '')} onClick={() => look(false)}>
              {isLoading ? say('workshop:checking') : say('workshop:startDryRun')}
            </Button>
            {columns.includes(REQUESTER) ? null : <span className="text-soft">{say('workshop:allInYourName')}</span>}
          </p>
        </>
      ) : null}
      {error ? (
        <p role="alert" className="mt-3 text-brick">
          {problemOf(error)
            .problems?.map((each) => `${told(each.message)} ${told(each.fix)}`)
            .join(' ') ?? problemOf(error).detail}
        </p>
      ) : null}
      {data?.job && !taken ? (
        <p className="mt-4 border-t border-rule-strong pt-3">
          <LongWork
            job={data.job}
            says={say('workshop:importing')}
            of="rows"
            ended={({ rows: told }) => setTaken(toldOf(told ?? []))}
          />
        </p>
      ) : null}
      {data && (!data.job || taken) ? (
        <Told
          told={taken ?? data}
          lines={Math.min(lines.length, MOST_IMPORTED)}
          busy={isLoading}
          labelOf={(key) => design.fields.find((field) => field.key === key)?.label ?? say('workshop:requesterWord')}
          apply={() => look(true)}
        />
      ) : null}
    </>
  );
}

/**
 * What became of the rows, or would: those that are refused with the reason, each by its line in
 * the sheet.
 */
function Told({
  told: outcome,
  lines,
  busy,
  labelOf,
  apply,
}: {
  told: Told;
  /** How many rows were sent. */
  lines: number;
  busy: boolean;
  labelOf: (key: string) => string;
  apply: () => void;
}) {
  const numbers = outcome.rows.flatMap((row) => row.number ?? []);
  const span =
    numbers.length > 1
      ? say('workshop:span', { from: numbers[0] ?? '', to: numbers.at(-1) ?? '' })
      : (numbers[0] ?? '');
  return (
    <div className="mt-4 border-t border-rule-strong pt-3" aria-live="polite">
      <p>
        {outcome.applied ? (
          <b>{say('workshop:imported', { count: outcome.good, span })}</b>
        ) : (
          <>
            <b>
              {span === ''
                ? say('workshop:wouldImport', { count: outcome.good })
                : say('workshop:wouldImportAs', { count: outcome.good, span })}
            </b>{' '}
            {outcome.bad > 0 ? <b>{say('workshop:wouldFail', { count: outcome.bad })}</b> : null}
          </>
        )}
      </p>
      {outcome.rows.length < lines ? (
        <p className="mt-1">{say('workshop:importStopped', { line: outcome.rows.length + 2 })}</p>
      ) : null}
      <ul className="mt-1 max-h-72 overflow-auto">
        {outcome.rows.flatMap((row, index) =>
          row.number === null
            ? [
                // biome-ignore lint/suspicious/noArrayIndexKey: a row has no name; its place is what it is
                <li key={index} className="border-b border-rule py-1">
                  <span className="mr-2 font-semibold">{say('workshop:lineNo', { line: index + 2 })}</span>
                  {row.problems.map((problem) => (
                    <span key={problem.field + told(problem.message)} className="block pl-4 text-brick">
                      {problem.field === 'form' ? '' : `${labelOf(problem.field)}: `}
                      {told(problem.message)} {told(problem.fix)}
                    </span>
                  ))}
                </li>,
              ]
            : [],
        )}
      </ul>
      {!outcome.applied && outcome.good > 0 ? (
        <p className="mt-3">
          <Button look="main" disabled={busy} onClick={apply}>
            {say('workshop:importNow', { count: outcome.good })}
          </Button>
        </p>
      ) : null}
    </div>
  );
}
