import type { AnswerOf } from '@tolvek/contract';
import { useState } from 'react';
import { toast } from 'sonner';
import { Button } from '../../ui/Button.tsx';
import { DialogFrame } from '../../ui/DialogFrame.tsx';
import { Trouble, WholeTrouble } from '../../ui/Trouble.tsx';
import { meApi } from '../../wire/me.ts';
import { say, told } from '../../wire/words.ts';
import { groundApi } from './endpoints.ts';
import { PlanLines } from './PlanLines.tsx';
import { Byline } from './States.tsx';

type Line = AnswerOf<'person'>['history'][number];

/** What was set of a person or a group, by whom and when; each can be undone, and says before what comes of it. */
export function GroundHistory({ lines }: { lines: readonly Line[] }) {
  const { data: me } = meApi.useMeQuery();
  return (
    <>
      <h3 className="section-head mt-7">{say('ground:whatWasSet')}</h3>
      <ul>
        {lines.map((line) => (
          <li key={line.id} className="flex items-baseline justify-between gap-x-3 border-b border-rule py-1.5">
            <span>
              {told(line.words)}
              {line.why ? <span className="block">{say('ground:whyQuoted', { why: line.why })}</span> : null}
              <Byline {...line} />
            </span>
            <span className="flex shrink-0 gap-3">
              {line.setter !== '' && line.setter === me?.person?.id ? <SayWhy line={line} /> : null}
              {line.undoable ? <Undo line={line} /> : null}
            </span>
          </li>
        ))}
        {lines.length === 0 ? <li className="py-1.5 text-soft">{say('ground:nothingSet')}</li> : null}
      </ul>
    </>
  );
}

/** Lets whoever set something say why: it stands at its line from then on. */
function SayWhy({ line: { id, why: said, words } }: { line: Line }) {
  const [open, setOpen] = useState(false);
  const [why, setWhy] = useState(said);
  const [save, { isLoading, error }] = groundApi.useSayWhyMutation();
  const put = async (event: React.FormEvent): Promise<void> => {
    event.preventDefault();
    const done = await save({ id, body: { why } });
    if (!('error' in done)) setOpen(false);
  };
  return (
    <DialogFrame
      open={open}
      onOpenChange={setOpen}
      title={say('ground:whyTitle')}
      trigger={
        <button type="button" className="shrink-0 text-[13px] text-green underline">
          {say(said ? 'ground:whyChange' : 'ground:whyAdd')}
        </button>
      }
    >
      <form onSubmit={put} noValidate>
        <p className="mt-2 text-soft">{told(words)}</p>
        <label htmlFor="ground-why" className="mt-3 block font-semibold">
          {say('ground:whyLabel')}
        </label>
        <input
          id="ground-why"
          className="input mt-1"
          maxLength={200}
          value={why}
          onChange={(event) => setWhy(event.target.value)}
        />
        <WholeTrouble error={error} />
        <p className="mt-4">
          <Button look="main" type="submit" disabled={isLoading || why.trim() === ''}>
            {say('ground:whySave')}
          </Button>
        </p>
      </form>
    </DialogFrame>
  );
}

function Undo({ line }: { line: Line }) {
  const [open, setOpen] = useState(false);
  const [undo, { isLoading, error, reset }] = groundApi.useStepBackMutation();
  const done = async (): Promise<void> => {
    const answer = await undo({ id: line.id });
    if ('error' in answer) return;
    toast(say('ground:undone'));
    setOpen(false);
  };
  return (
    <DialogFrame
      open={open}
      onOpenChange={setOpen}
      reset={reset}
      title={say('ground:undoTitle')}
      trigger={
        <button type="button" className="shrink-0 text-[13px] text-green underline">
          {say('ground:undoLine')}
        </button>
      }
    >
      {open ? <Effect id={line.id} /> : null}
      <WholeTrouble error={error} />
      <p className="mt-4">
        <Button look="main" disabled={isLoading} onClick={() => void done()}>
          {say('ground:undoNow')}
        </Button>
      </p>
    </DialogFrame>
  );
}

/** What undoing would come to: in words, and who would get or lose which right. */
function Effect({ id }: { id: string }) {
  const { data, error } = groundApi.useStepBackPlanQuery({ id });
  if (error)
    return (
      <div className="mt-3">
        <Trouble error={error} />
      </div>
    );
  if (!data) return null;
  return (
    <>
      <p className="mt-2">{say('ground:undoWould')}</p>
      <PlanLines className="mt-1" lines={[data.words, ...data.effects].map(told)} />
    </>
  );
}
