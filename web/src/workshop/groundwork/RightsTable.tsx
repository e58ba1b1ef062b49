import type { AnswerOf } from '@tolvek/contract';
import type { Reach, Right } from '@tolvek/core/people';
import { useState } from 'react';
import { Link } from 'react-router';
import { toast } from 'sonner';
import { Button } from '../../ui/Button.tsx';
import { problemOf, refusalInWords } from '../../wire/problem.ts';
import { say, told } from '../../wire/words.ts';
import { groundApi } from './endpoints.ts';
import { GroupOnTheSpot } from './NewGroup.tsx';
import { PickMember } from './PickMember.tsx';
import { type RightRow, reachOf, rightsOf, rowsOf, toReach } from './rightRows.ts';

type Counted = AnswerOf<'rights'>['rights'][number];
/** Somebody rights are given to; `desk`: what the desk gives them, where a register is looked at. */
export type Subject = AnswerOf<'rights'>['subjects'][number] & { readonly desk?: readonly Right[] };

interface TableProps {
  readonly rights: readonly Counted[];
  readonly subjects: readonly Subject[];
  readonly mayChange: boolean;
  /** The register’s key; undefined for the whole desk. */
  readonly register?: string | undefined;
}

/** Who is given what: a line for each thing that is done, a column for everyone, each group and each person. */
export function RightsTable({ rights, subjects: known, mayChange, register }: TableProps) {
  const [added, setAdded] = useState<Subject | null>(null);
  const subjects = added && !known.some(({ subject }) => subject === added.subject) ? [...known, added] : known;
  return (
    <>
      <div className="mt-5 overflow-x-auto">
        <table className="w-full border-collapse">
          <caption className="sr-only">{say('ground:rights')}</caption>
          <thead>
            <tr className="border-b border-rule-strong text-left text-[11.5px] text-soft">
              <th scope="col" className="py-1.5 pr-4 font-semibold">
                {say('ground:col.right')}
              </th>
              {subjects.map((subject) => (
                <th key={subject.subject} scope="col" className="py-1.5 pr-2 pl-[19px] font-semibold">
                  {calledIn(subject)}
                </th>
              ))}
              <th scope="col" className="py-1.5 pl-3 text-right font-semibold">
                {say('ground:col.hasIt')}
              </th>
            </tr>
          </thead>
          <tbody>
            {rowsOf(rights.map(({ right }) => right)).map((row) => (
              <tr key={row.right} className="border-b border-rule align-top">
                <th scope="row" className="py-2 pr-4 text-left font-normal">
                  {told(row.words)}
                </th>
                {subjects.map((subject) => (
                  <td key={subject.subject} className="px-2 py-1.5">
                    <Given {...{ row, subject, register, mayChange }} />
                  </td>
                ))}
                <td className="py-2 pl-3 text-right whitespace-nowrap">
                  <Holders row={row} rights={rights} register={register} />
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {mayChange ? (
        <AddSubject
          known={subjects}
          add={(subject) => setAdded(register === undefined ? subject : { ...subject, desk: [] })}
        />
      ) : null}
    </>
  );
}

const calledIn = ({ kind, name }: Subject): string => (kind === 'everyone' ? say('ground:allStaff') : name);
const reachInWords = (reach: Reach | null): string => say(`rights:reach.${reach ?? 'none'}`);

interface GivenProps {
  readonly row: RightRow;
  readonly subject: Subject;
  readonly register: string | undefined;
  readonly mayChange: boolean;
}

/** What is given of one line to somebody; a choice gives or takes it at once. */
function Given({ row, subject, register, mayChange }: GivenProps) {
  const [change, { isLoading }] = groundApi.useChangeRightsMutation();
  const settle = async (settled: { give: readonly Right[]; take: readonly Right[] }): Promise<void> => {
    const body = { give: [...settled.give], take: [...settled.take], ...(register === undefined ? {} : { register }) };
    const done = await change({ subject: subject.subject, body });
    if ('error' in done) toast.error(refusalInWords(problemOf(done.error)));
  };
  const label = say('ground:givesRight', { subject: calledIn(subject), right: told(row.words) });
  const here = rightsOf(row).filter((right) => subject.rights.includes(right));
  const usual = rightsOf(row).filter((right) => subject.desk?.includes(right) ?? here.includes(right));
  const differs = here.join() !== usual.join();
  return (
    <div className={differs ? 'border-l-[3px] border-brass-mark pl-2' : 'pl-[11px]'}>
      <GivenInput {...{ row, label, settle, here }} disabled={!mayChange || isLoading} />
      {differs ? (
        <span className="mt-0.5 block text-[12px] text-brass">
          {say('rights:atDesk', { what: whatInWords(row, usual) })}{' '}
          {mayChange ? (
            <button
              type="button"
              aria-label={say('rights:putBackOne', { label })}
              className="ml-1 text-green underline"
              disabled={isLoading}
              onClick={() =>
                void settle({
                  give: usual.filter((right) => !here.includes(right)),
                  take: here.filter((right) => !usual.includes(right)),
                })
              }
            >
              {say('rights:putBackShort')}
            </button>
          ) : null}
        </span>
      ) : null}
    </div>
  );
}

/** What is given of a line, in a word. */
const whatInWords = (row: RightRow, given: readonly Right[]): string =>
  row.kind === 'desk'
    ? say(given.length > 0 ? 'rights:given' : 'rights:notGiven')
    : given.length > 0
      ? reachInWords(reachOf(row.right, given))
      : say('rights:notGiven');

interface InputProps {
  readonly row: RightRow;
  readonly label: string;
  readonly here: readonly Right[];
  readonly disabled: boolean;
  readonly settle: (settled: { give: readonly Right[]; take: readonly Right[] }) => Promise<void>;
}

function GivenInput({ row, label, here, disabled, settle }: InputProps) {
  if (row.kind === 'desk') {
    const has = here.length > 0;
    return (
      <label className="inline-flex size-[26px] cursor-pointer items-center align-middle">
        <input
          type="checkbox"
          className="size-[16px] accent-green"
          aria-label={label}
          checked={has}
          disabled={disabled}
          onChange={() => void settle(has ? { give: [], take: [row.right] } : { give: [row.right], take: [] })}
        />
      </label>
    );
  }
  const { right, reaches } = row;
  const reach = reachOf(right, here);
  return (
    <select
      aria-label={label}
      className={`min-h-[26px] cursor-pointer border-0 border-b bg-transparent text-[13.5px] disabled:appearance-none disabled:border-transparent disabled:text-ink disabled:opacity-100 ${reach === null ? 'border-rule text-soft' : 'border-green text-ink'}`}
      value={reach ?? ''}
      disabled={disabled}
      onChange={(event) =>
        void settle(toReach(right, reaches.find((each) => each === event.target.value) ?? null, here))
      }
    >
      <option value="">{reachInWords(null)}</option>
      {reaches.map((each) => (
        <option key={each} value={each}>
          {reachInWords(each)}
        </option>
      ))}
    </select>
  );
}

const MOST_NAMED = 30;

/** Who has the rights of a line by now: how many, and by name when asked. */
function Holders({ row, rights, register }: Pick<TableProps, 'rights' | 'register'> & { row: RightRow }) {
  const [open, setOpen] = useState<Right | null>(null);
  const held = rightsOf(row)
    .toReversed()
    .map((right) => ({ right, holders: rights.find((each) => each.right === right)?.holders ?? 0 }))
    .filter(({ holders }) => holders > 0);
  if (held.length === 0) return <span className="text-soft">{say('ground:nobody')}</span>;
  return (
    <>
      {held.map(({ right, holders }, at) => {
        const people = say('ground:peopleCount', { count: holders });
        const reach = row.kind === 'requests' ? (row.reaches.find((each) => right.endsWith(each)) ?? null) : null;
        return (
          <span key={right} className={at > 0 ? 'mt-0.5 block text-[12.5px]' : 'block'}>
            {reach === null ? '' : `${reachInWords(reach)}: `}
            <button
              type="button"
              aria-expanded={open === right}
              className="text-green underline underline-offset-[3px]"
              onClick={() => setOpen(open === right ? null : right)}
            >
              {people}
            </button>
          </span>
        );
      })}
      {open === null ? null : <Named right={open} register={register} />}
    </>
  );
}

function Named({ right, register }: { right: Right; register: string | undefined }) {
  const { data } = groundApi.useRightHoldersQuery({ right, query: register === undefined ? {} : { register } });
  if (!data) return null;
  return (
    <ul className="mt-1 text-[12.5px]">
      {data.people.slice(0, MOST_NAMED).map(({ id, name }) => (
        <li key={id}>
          <Link to={`/workshop/groundwork/people/${id}`}>{name}</Link>
        </li>
      ))}
      {data.people.length > MOST_NAMED ? (
        <li className="text-soft">{say('ground:andMore', { count: data.people.length - MOST_NAMED })}</li>
      ) : null}
    </ul>
  );
}

/** Adds a column for a group or one of the staff. */
function AddSubject({ known, add }: { known: readonly Subject[]; add: (subject: Subject) => void }) {
  const [open, setOpen] = useState(false);
  if (!open)
    return (
      <p className="mt-3">
        <Button onClick={() => setOpen(true)}>{say('ground:addSubject')}</Button>
      </p>
    );
  return (
    <div className="mt-3 max-w-96">
      <PickMember
        kind="staff"
        inside={known.map(({ subject }) => (subject.startsWith('@') ? subject.slice(1) : subject))}
        group=""
        choose={(member, name) => {
          if (!member) return;
          add(
            'person' in member
              ? { subject: `@${member.person}`, kind: 'person', name, rights: [] }
              : { subject: member.group, kind: 'group', name, rights: [] },
          );
          setOpen(false);
        }}
      />
      <p className="mt-1">
        <GroupOnTheSpot
          made={(group, name) => {
            add({ subject: group, kind: 'group', name, rights: [] });
            setOpen(false);
          }}
        />
      </p>
    </div>
  );
}
