import type { AnswerOf } from '@tolvek/contract';
import { useState } from 'react';
import { Link } from 'react-router';
import { toast } from 'sonner';
import { Button } from '../../ui/Button.tsx';
import { Trouble } from '../../ui/Trouble.tsx';
import { useTitle } from '../../ui/useTitle.ts';
import { problemOf, refusalInWords } from '../../wire/problem.ts';
import { say, told } from '../../wire/words.ts';
import { Audit } from './Audit.tsx';
import { groundApi } from './endpoints.ts';
import { GroundHistory } from './GroundHistory.tsx';
import { PickMember } from './PickMember.tsx';

type Opened = AnswerOf<'rights'>;
type Subject = Opened['subjects'][number];
type Right = Opened['rights'][number]['right'];

/** Who may do what: each right with those it is given to, and who has it by now. */
export function RightsPage() {
  useTitle(say('ground:rights'));
  const { data, error, refetch } = groundApi.useRightsQuery();
  return (
    <main className="min-h-0 overflow-auto px-[26px] pt-5 pb-10">
      <div className="max-w-[58rem]">
        <h1>{say('ground:rights')}</h1>
        <p className="text-soft">{say('ground:rightsHint')}</p>
        {error ? <Trouble error={error} again={refetch} /> : null}
        {data ? <OpenRights opened={data} /> : null}
      </div>
    </main>
  );
}

function OpenRights({ opened }: { opened: Opened }) {
  const [added, setAdded] = useState<Subject | null>(null);
  const subjects =
    added && !opened.subjects.some(({ subject }) => subject === added.subject)
      ? [...opened.subjects, added]
      : opened.subjects;
  return (
    <>
      {opened.mayChange ? null : (
        <p className="mt-3 border-l-[3px] border-brass-mark bg-brass-wash px-3 py-1.5">
          {say('ground:rightsReadOnly', { people: opened.givers })}
        </p>
      )}
      <table className="mt-5 w-full border-collapse">
        <caption className="sr-only">{say('ground:rights')}</caption>
        <thead className="sticky -top-5 z-[1] bg-paper">
          <tr className="border-b border-rule-strong text-left text-[11.5px] text-soft">
            <th scope="col" className="py-1.5 pr-4 font-semibold">
              {say('ground:col.right')}
            </th>
            {subjects.map((subject) => (
              <th key={subject.subject} scope="col" className="px-2 py-1.5 text-center font-semibold">
                {nameOf(subject)}
              </th>
            ))}
            <th scope="col" className="py-1.5 pl-3 text-right font-semibold">
              {say('ground:col.hasIt')}
            </th>
          </tr>
        </thead>
        <tbody>
          {opened.rights.map(({ right, words }) => (
            <tr key={right} className="border-b border-rule">
              <th scope="row" className="py-2 pr-4 text-left font-normal">
                {told(words)}
              </th>
              {subjects.map((subject) => (
                <td key={subject.subject} className="px-2 text-center">
                  <GrantBox {...{ subject, right }} name={told(words)} disabled={!opened.mayChange} />
                </td>
              ))}
              <td className="py-2 pl-3 text-right">
                <Holders right={right} />
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {opened.mayChange ? <AddSubject known={subjects} add={setAdded} /> : null}
      <h2 className="section-head mt-9">{say('ground:packages')}</h2>
      <p className="mt-2 text-soft">{say('ground:packagesHint')}</p>
      <dl className="mt-2 grid grid-cols-[150px_1fr] gap-y-3">
        {opened.packages.map(({ name, rights }) => (
          <div key={name} className="contents">
            <dt className="font-semibold">{say(`ground:role.${name}`)}</dt>
            <dd>
              {opened.rights
                .filter(({ right }) => rights.includes(right))
                .map(({ words }) => told(words))
                .join('. ')}
              .
            </dd>
          </div>
        ))}
      </dl>
      {opened.mayAudit ? <Audit /> : null}
      <GroundHistory lines={opened.history} />
    </>
  );
}

const nameOf = ({ kind, name }: Subject): string => (kind === 'everyone' ? say('ground:allStaff') : name);

interface BoxProps {
  readonly subject: Subject;
  readonly right: Right;
  readonly name: string;
  readonly disabled: boolean;
}

/** Whether a right is given to somebody; a press gives or takes it at once. */
function GrantBox({ subject, right, name, disabled }: BoxProps) {
  const [change, { isLoading }] = groundApi.useChangeRightsMutation();
  const has = subject.rights.includes(right);
  const press = async (): Promise<void> => {
    const body = has ? { give: [], take: [right] } : { give: [right], take: [] };
    const done = await change({ subject: subject.subject, body });
    if ('error' in done) toast.error(refusalInWords(problemOf(done.error)));
  };
  return (
    <label className="inline-flex size-[26px] cursor-pointer items-center justify-center align-middle">
      <input
        type="checkbox"
        className="size-[16px] accent-green"
        aria-label={say('ground:givesRight', { subject: nameOf(subject), right: name })}
        checked={has}
        disabled={disabled || isLoading}
        onChange={() => void press()}
      />
    </label>
  );
}

/** Who has a right by now: how many, and by name when asked. */
function Holders({ right }: { right: Right }) {
  const { data, error } = groundApi.useRightHoldersQuery({ right });
  const [open, setOpen] = useState(false);
  if (!data || error) return <span className="text-soft">–</span>;
  if (data.people.length === 0) return <span className="text-soft">{say('ground:nobody')}</span>;
  return (
    <>
      <button
        type="button"
        aria-expanded={open}
        className="text-green underline underline-offset-[3px]"
        onClick={() => setOpen(!open)}
      >
        {say('ground:peopleCount', { count: data.people.length })}
      </button>
      {open ? (
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
      ) : null}
    </>
  );
}

const MOST_NAMED = 30;

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
    </div>
  );
}
