import type { AnswerOf } from '@tolvek/contract';
import { verdictProblem } from '@tolvek/core/approval';
import { useState } from 'react';
import { toast } from 'sonner';
import { Button } from '../ui/Button.tsx';
import { DialogFrame } from '../ui/DialogFrame.tsx';
import { Facts } from '../ui/Facts.tsx';
import { problemOf, refusalInWords } from '../wire/problem.ts';
import { say, told } from '../wire/words.ts';
import { floorApi } from './endpoints.ts';

type Alike = AnswerOf<'decisionsAlike'>['alike'];

/** Decides on several that wait at the same step as a request does, in one go: each as it is read here. */
export function DecideSeveral({ number }: { number: string }) {
  const { data } = floorApi.useDecisionsAlikeQuery({ number });
  const [open, setOpen] = useState(false);
  const alike = data?.alike ?? [];
  if (alike.length === 0 && !open) return null;
  return (
    <DialogFrame
      open={open}
      onOpenChange={setOpen}
      title={say('floor:decideSeveral')}
      trigger={<Button className="mt-3">{say('floor:othersAlike', { count: alike.length })}</Button>}
    >
      <Several alike={alike} done={() => setOpen(false)} />
    </DialogFrame>
  );
}

function Several({ alike, done }: { alike: Alike; done: () => void }) {
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const [comment, setComment] = useState('');
  const [problem, setProblem] = useState<ReturnType<typeof verdictProblem>>(null);
  const [refused, setRefused] = useState<Readonly<Record<string, string>>>({});
  const [busy, setBusy] = useState(false);
  const [decide] = floorApi.useDecideMutation();
  const some = alike.filter((each) => chosen.has(each.number));
  const put = (number: string, isIn: boolean): void =>
    setChosen((before) => new Set(isIn ? [...before, number] : [...before].filter((each) => each !== number)));
  const choose = async (verdict: 'approve' | 'refuse'): Promise<void> => {
    const found = verdictProblem(verdict, comment);
    setProblem(found);
    if (found || some.length === 0) return;
    setBusy(true);
    const wrong: Record<string, string> = {};
    let decided = 0;
    for (const { number, seen } of some) {
      const said = await decide({ number, once: crypto.randomUUID(), body: { verdict, comment, seen } });
      if ('error' in said) wrong[number] = refusalInWords(problemOf(said.error));
      else decided += 1;
    }
    setBusy(false);
    setRefused(wrong);
    setChosen(new Set(Object.keys(wrong)));
    if (decided > 0)
      toast(say(verdict === 'approve' ? 'floor:severalApproved' : 'floor:severalRefused', { count: decided }));
    if (Object.keys(wrong).length === 0) done();
  };
  return (
    <>
      <p className="mt-2 text-soft">{say('floor:severalHint')}</p>
      <p className="mt-2">
        <button
          type="button"
          className="text-green underline"
          onClick={() => setChosen(new Set(some.length === alike.length ? [] : alike.map((each) => each.number)))}
        >
          {say(some.length === alike.length ? 'floor:chooseNone' : 'floor:chooseAll')}
        </button>
      </p>
      <ul className="mt-1">
        {alike.map(({ number, subject, requester, values }) => (
          <li key={number} className="border-b border-rule py-2">
            <label className="flex items-baseline gap-2.5">
              <input
                type="checkbox"
                className="accent-green"
                checked={chosen.has(number)}
                onChange={(event) => put(number, event.target.checked)}
              />
              <span className="min-w-0 flex-1">
                <span className="font-serif text-[16px]">{told(subject)}</span>
                <span className="block text-[13px] text-soft">
                  <span className="font-mono text-[12.5px]">{number}</span> {requester}
                </span>
              </span>
            </label>
            <details className="ml-6 text-[13.5px]">
              <summary className="cursor-pointer text-green">{say('floor:readAnswers')}</summary>
              <Facts facts={values.fields.filter(({ shown }) => shown !== '')} />
            </details>
            {refused[number] ? (
              <p role="alert" className="ml-6 text-brick">
                {refused[number]}
              </p>
            ) : null}
          </li>
        ))}
      </ul>
      <label htmlFor="several-comment" className="mt-4 block font-semibold">
        {say('common:comment')} <span className="font-normal text-soft">{say('common:commentHint')}</span>
      </label>
      <textarea
        id="several-comment"
        rows={2}
        className="input mt-1.5"
        value={comment}
        aria-invalid={problem !== null}
        onChange={(event) => {
          setComment(event.target.value);
          setProblem(null);
        }}
      />
      {problem ? (
        <p role="alert" className="mt-1.5 text-brick">
          {told(problem.message)} {told(problem.fix)}
        </p>
      ) : null}
      <p className="mt-3 flex flex-wrap gap-3">
        <Button look="main" disabled={busy || some.length === 0} onClick={() => void choose('approve')}>
          {say('floor:approveSeveral', { count: some.length })}
        </Button>
        <Button look="refuse" disabled={busy || some.length === 0} onClick={() => void choose('refuse')}>
          {say('floor:refuseSeveral', { count: some.length })}
        </Button>
      </p>
    </>
  );
}
