import type { AnswerOf } from '@tolvek/contract';
import { useEffect, useRef, useState } from 'react';
import { Trouble } from '../../ui/Trouble.tsx';
import { problemOf } from '../../wire/problem.ts';
import { say, told } from '../../wire/words.ts';
import { useBinder } from '../binder.ts';
import { workshopApi } from '../endpoints.ts';
import { useOpenNotice } from './useNoticeNames.ts';

type Shown = AnswerOf<'showNotice'>;

/** The notice that is being changed, as its readers would get it for a real request, and who would not. */
export function NoticeShown() {
  const [open] = useOpenNotice();
  if (open === null) return <p className="mt-2 text-soft">{say('notices:shownPick')}</p>;
  return <Arriving key={open} notice={open} />;
}

function Arriving({ notice }: { notice: string }) {
  const { form, keeping } = useBinder();
  const [number, setNumber] = useState<string | null>(null);
  const [reader, setReader] = useState<string | null>(null);
  const body = { notice, number, reader };
  const { data, error, refetch } = workshopApi.useShowNoticeQuery({ key: form.key, body });
  const { version } = keeping;
  const isFirst = useRef(true);
  // biome-ignore lint/correctness/useExhaustiveDependencies: asked anew when something else is kept
  useEffect(() => {
    if (!isFirst.current) void refetch();
    isFirst.current = false;
  }, [version]);
  // One that has just been added is not kept yet: it is shown once it is.
  const isNew = error !== undefined && problemOf(error).status === 404;
  if (error && !data) return isNew ? null : <Trouble error={error} />;
  if (!data) return null;
  if (data.number === null) return <p className="mt-2 text-soft">{say('notices:shownNone')}</p>;
  return (
    <>
      <p className="mt-2 flex flex-wrap items-center gap-2 text-[13px]">
        <label htmlFor="shown-for" className="text-soft">
          {say('notices:shownFor')}
        </label>
        <select
          id="shown-for"
          className="input w-auto max-w-full"
          value={data.number}
          onChange={(event) => {
            setNumber(event.target.value);
            setReader(null);
          }}
        >
          {data.requests.map((each) => (
            <option key={each.number} value={each.number}>
              {`${each.number} ${told(each.subject)}`}
            </option>
          ))}
        </select>
      </p>
      {data.holds === false ? <p className="mt-2 text-brass">{say('notices:shownNot')}</p> : null}
      <Readers data={data} choose={setReader} />
      {data.letter ? <Letter letter={data.letter} /> : null}
      <p className="mt-3 text-[12.5px] text-soft">{say('notices:shownHint')}</p>
    </>
  );
}

/** Who would get it and when, and who would not, and why. */
function Readers({ data, choose }: { data: Shown; choose: (reader: string) => void }) {
  if (data.readers.length === 0) return <p className="mt-2">{say('notices:shownNobody')}</p>;
  return (
    <ul className="mt-2 max-h-44 overflow-auto border-y border-rule text-[13px]" aria-label={say('notices:toWhom')}>
      {data.readers.map(({ id, name, how, at }) => (
        <li key={id}>
          <button
            type="button"
            aria-pressed={data.letter?.reader === id}
            className={`flex w-full flex-wrap items-baseline justify-between gap-x-3 px-1.5 py-1 text-left ${data.letter?.reader === id ? 'bg-green-wash' : 'hover:bg-paper'}`}
            onClick={() => choose(id)}
          >
            <span className="min-w-0 truncate">{name}</span>
            <span className={how === 'now' || how === 'later' ? 'text-soft' : 'text-brass'}>
              {how === 'later' && at !== null
                ? say('notices:how.later', { at })
                : say(`notices:how.${how === 'later' ? 'now' : how}`)}
            </span>
          </button>
        </li>
      ))}
      {data.more > 0 ? (
        <li className="px-1.5 py-1 text-soft">{say('notices:shownMore', { count: data.more })}</li>
      ) : null}
    </ul>
  );
}

/** An email, as it is laid out where it is read. */
function Letter({ letter }: { letter: NonNullable<Shown['letter']> }) {
  const { subject, greeting, paragraphs, facts, action, left, language } = letter;
  return (
    <>
      <article lang={language} className="mt-3 border border-rule bg-sheet px-4 py-3" aria-label={subject}>
        <h3 className="border-b border-rule pb-2 font-semibold">{subject}</h3>
        <p className="mt-2">{greeting}</p>
        {paragraphs.map((paragraph) => (
          <p key={paragraph} className="mt-2 whitespace-pre-line">
            {paragraph}
          </p>
        ))}
        {facts.length > 0 ? (
          <dl className="mt-2 grid grid-cols-[auto_1fr] gap-x-4 gap-y-1 text-[13px]">
            {facts.map(({ label, shown }) => (
              <div key={label} className="contents">
                <dt className="text-soft">{label}</dt>
                <dd className="min-w-0 break-words">{shown}</dd>
              </div>
            ))}
          </dl>
        ) : null}
        <p className="mt-3">
          <span className="inline-block rounded-[3px] bg-green px-3 py-1.5 font-semibold text-sheet">{action}</span>
        </p>
      </article>
      {left.length > 0 ? (
        <div className="mt-2 text-[13px]">
          <p className="text-brass">{say('notices:shownLeft')}</p>
          <ul className="list-disc pl-5">
            {left.map(({ sentence, names }) => (
              <li key={sentence}>{names.map((name) => told(name)).join(', ')}</li>
            ))}
          </ul>
        </div>
      ) : null}
    </>
  );
}
