import { skipToken } from '@reduxjs/toolkit/query/react';
import type { AnswerOf } from '@tolvek/contract';
import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { toast } from 'sonner';
import { Button } from '../ui/Button.tsx';
import { DialogFrame } from '../ui/DialogFrame.tsx';
import { Trouble } from '../ui/Trouble.tsx';
import { problemOf, refusalInWords } from '../wire/problem.ts';
import { say, told } from '../wire/words.ts';
import { floorApi } from './endpoints.ts';

type SheetData = AnswerOf<'sheet'>;
type Plan = AnswerOf<'requestMergePlan'>;

/** What a request was merged into, or took in; the way back beside it. */
export function Merged({ sheet: { number, merged, may } }: { sheet: SheetData }) {
  const { into, took } = merged;
  const [unmerge, { isLoading }] = floorApi.useUnmergeRequestMutation();
  if (!into && took.length === 0) return null;
  const apart = async (which: string): Promise<void> => {
    const done = await unmerge({ number: which });
    if ('error' in done) toast.error(refusalInWords(problemOf(done.error)));
    else toast(say('merging:undone', { number: which }));
  };
  const undo = (which: string) =>
    may.change ? (
      <button
        type="button"
        className="min-h-[24px] text-green underline"
        disabled={isLoading}
        onClick={() => void apart(which)}
      >
        {say('merging:undo')}
      </button>
    ) : null;
  return (
    <div className="mt-3 border-l-[3px] border-brass-mark bg-brass-wash px-3 py-2">
      {into ? (
        <p className="flex flex-wrap items-baseline gap-x-3">
          <span>
            {say('merging:isIn')} <Named request={into} />
          </span>
          {undo(number)}
        </p>
      ) : null}
      {took.map((each) => (
        <p key={each.number} className="flex flex-wrap items-baseline gap-x-3">
          <span>
            {say('merging:tookIn')} <Named request={each} />
          </span>
          {undo(each.number)}
        </p>
      ))}
    </div>
  );
}

const Named = ({ request: { number, subject } }: { request: { number: string; subject: SheetData['subject'] } }) => (
  <Link to={`/floor/all/${number}`}>
    {told(subject)} <span className="font-mono text-[12.5px]">{number}</span>
  </Link>
);

/** Merges a request into another about the same: which one, and whose answers stay where they differ. */
export function Merging({ sheet: { number, version, may, trial, merged } }: { sheet: SheetData }) {
  const [open, setOpen] = useState(false);
  if (!may.change || trial || merged.into || merged.took.length > 0) return null;
  return (
    <DialogFrame
      open={open}
      onOpenChange={setOpen}
      title={say('merging:title', { number })}
      trigger={
        <button type="button" className="mt-6 mr-5 text-[13px] text-green underline underline-offset-[3px]">
          {say('merging:open')}
        </button>
      }
    >
      {open ? <Choosing number={number} version={version} close={() => setOpen(false)} /> : null}
    </DialogFrame>
  );
}

function Choosing({ number, version, close }: { number: string; version: number; close: () => void }) {
  const [typed, setTyped] = useState('');
  const [other, setOther] = useState('');
  const { data: found } = floorApi.useRequestMergePlanQuery({ number, query: {} });
  const plan = floorApi.useRequestMergePlanQuery(other === '' ? skipToken : { number, query: { into: other } });
  const alike = found?.alike ?? [];
  return (
    <>
      <p className="mt-2 text-soft">{say('merging:what', { number })}</p>
      {alike.length > 0 && other === '' ? (
        <>
          <p className="mt-3 font-semibold">{say('merging:alike')}</p>
          <ul>
            {alike.map((each) => (
              <li key={each.number} className="flex items-baseline gap-3 border-b border-rule py-1.5">
                <span className="min-w-0 flex-1 truncate">
                  {told(each.subject)}
                  <small className="block text-soft">
                    <span className="mr-2 font-mono">{each.number}</span>
                    {say('merging:same', { count: each.same })}
                    {each.isTheirs ? ` · ${say('merging:sameRequester')}` : ''}
                  </small>
                </span>
                <Button onClick={() => setOther(each.number)}>{say('merging:choose')}</Button>
              </li>
            ))}
          </ul>
        </>
      ) : null}
      {plan.currentData?.into ? null : (
        <form
          className="mt-3 flex flex-wrap items-end gap-3"
          onSubmit={(event) => {
            event.preventDefault();
            setOther(typed.trim());
          }}
        >
          <label className="flex flex-col gap-1">
            {say('merging:number')}
            <input
              className="input w-44 font-mono"
              value={typed}
              maxLength={40}
              onChange={({ target }) => setTyped(target.value)}
            />
          </label>
          <Button type="submit" disabled={typed.trim() === ''}>
            {say('merging:look')}
          </Button>
        </form>
      )}
      {plan.error && other !== '' ? <Trouble error={plan.error} /> : null}
      {plan.currentData?.into ? (
        <Differing
          key={plan.currentData.into.version}
          {...{ number, version, close }}
          into={plan.currentData.into}
          another={() => setOther('')}
        />
      ) : null}
    </>
  );
}

interface DifferingProps {
  readonly number: string;
  readonly version: number;
  readonly into: NonNullable<Plan['into']>;
  readonly close: () => void;
  readonly another: () => void;
}

function Differing({ number, version, into, close, another }: DifferingProps) {
  const [takes, setTakes] = useState<ReadonlySet<string>>(
    new Set(into.fields.flatMap(({ key, takes: isTaken }) => (isTaken ? [key] : []))),
  );
  const [merge, { error, isLoading }] = floorApi.useMergeRequestMutation();
  const navigate = useNavigate();
  const put = (key: string, isTaken: boolean): void =>
    setTakes((before) => {
      const after = new Set(before);
      if (isTaken) after.add(key);
      else after.delete(key);
      return after;
    });
  const send = async (): Promise<void> => {
    const body = { into: into.number, intoVersion: into.version, take: [...takes] };
    const done = await merge({ number, version, body });
    if ('error' in done) return;
    toast(say('merging:done', { number, into: into.number }));
    close();
    navigate(`/floor/all/${into.number}`);
  };
  return (
    <>
      <p className="mt-3">
        <b>{told(into.subject)}</b>{' '}
        <span className="whitespace-nowrap font-mono text-[12.5px] text-soft">{into.number}</span>{' '}
        <button type="button" className="ml-2 text-green underline" onClick={another}>
          {say('merging:another')}
        </button>
      </p>
      {into.fields.length === 0 ? (
        <p className="mt-2 text-soft">{say('merging:noneDiffer')}</p>
      ) : (
        <table className="mt-2 w-full border-collapse">
          <caption className="pb-1 text-left text-soft">{say('merging:differ', { count: into.fields.length })}</caption>
          <thead>
            <tr className="text-left text-[12.5px] text-soft">
              <th scope="col" className="py-1 pr-2 font-normal" />
              <th scope="col" className="px-2 py-1 font-normal">
                {into.number}
              </th>
              <th scope="col" className="px-2 py-1 font-normal">
                {number}
              </th>
            </tr>
          </thead>
          <tbody>
            {into.fields.map(({ key, label, mayTake }, place) => (
              <tr key={key} className="border-t border-rule align-baseline">
                <th scope="row" className="py-1.5 pr-2 text-left font-normal text-soft">
                  {label}
                </th>
                {([false, true] as const).map((isTaken) => (
                  <td key={String(isTaken)} className="px-2 py-1.5">
                    <label className="flex min-h-[24px] items-baseline gap-2">
                      <input
                        type="radio"
                        name={key}
                        className="accent-green"
                        disabled={!mayTake}
                        checked={takes.has(key) === isTaken}
                        onChange={() => put(key, isTaken)}
                        aria-label={say('merging:takes', { label, number: isTaken ? number : into.number })}
                      />
                      <span>{told((isTaken ? into.theirs : into.here)[place] ?? '') || say('merging:empty')}</span>
                    </label>
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      )}
      <ul className="mt-3 list-disc pl-5 text-soft">
        <li>{say('merging:ends', { number })}</li>
        <li>{say('merging:tells')}</li>
        {into.pointing > 0 ? <li>{say('merging:pointing', { count: into.pointing, into: into.number })}</li> : null}
        <li>{say('merging:canUndo')}</li>
      </ul>
      {error ? <Trouble error={error} /> : null}
      <p className="mt-4 flex flex-wrap gap-3">
        <Button look="main" disabled={isLoading} onClick={() => void send()}>
          {say('merging:now', { number, into: into.number })}
        </Button>
        <Button onClick={close}>{say('common:cancel')}</Button>
      </p>
    </>
  );
}
