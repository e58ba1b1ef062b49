import type { AnswerOf } from '@tolvek/contract';
import { priorities } from '@tolvek/core/register';
import { Dialog } from 'radix-ui';
import { useState } from 'react';
import { toast } from 'sonner';
import { Button } from '../ui/Button.tsx';
import { DialogFrame } from '../ui/DialogFrame.tsx';
import { Trouble } from '../ui/Trouble.tsx';
import { floorApi } from './endpoints.ts';

type SheetData = AnswerOf<'sheet'>;
type Priority = (typeof priorities)[number];

/** Hands a request over to another team, or gives it another priority. */
export function Rerouting({ sheet }: { sheet: SheetData }) {
  const [open, setOpen] = useState(false);
  const [reroute, { error, isLoading }] = floorApi.useRerouteMutation();
  const here = sheet.teams.find((team) => team.here)?.key ?? '';
  const [team, setTeam] = useState(here);
  const [priority, setPriority] = useState<Priority>(sheet.priority ?? 'normal');
  if (!open)
    return (
      <button type="button" className="text-green underline" onClick={() => setOpen(true)}>
        Change …
      </button>
    );
  const put = async (): Promise<void> => {
    const { number, version } = sheet;
    const done = await reroute({ number, version, body: { team, priority } });
    if ('error' in done) return;
    setOpen(false);
    toast(
      team === here
        ? `${number} has ${priority} priority now.`
        : `${number} is with ${sheet.teams.find((each) => each.key === team)?.name} now; they have been told.`,
    );
  };
  return (
    <span className="mt-2 flex flex-wrap items-center gap-2">
      <select
        aria-label="Team"
        className="input w-auto py-1"
        value={team}
        onChange={(event) => setTeam(event.target.value)}
      >
        {here === '' ? <option value="">{sheet.team}</option> : null}
        {sheet.teams.map((each) => (
          <option key={each.key} value={each.key}>
            {each.name}
          </option>
        ))}
      </select>
      <select
        aria-label="Priority"
        className="input w-auto py-1"
        value={priority}
        onChange={(event) => setPriority(event.target.value as Priority)}
      >
        {priorities.map((each) => (
          <option key={each} value={each}>
            {each} priority
          </option>
        ))}
      </select>
      <Button
        look="main"
        disabled={isLoading || (team === here && priority === sheet.priority)}
        onClick={() => void put()}
      >
        {team === here ? 'Set the priority' : 'Hand it over'}
      </Button>
      <Button onClick={() => setOpen(false)}>Leave it</Button>
      {error ? <Trouble error={error} /> : null}
    </span>
  );
}

/** Moves a request on from where nobody else can, with a reason that stands in its history. */
export function Freeing({ sheet }: { sheet: SheetData }) {
  const [open, setOpen] = useState(false);
  const [free, { error, isLoading, reset }] = floorApi.useFreeRequestMutation();
  const [stage, setStage] = useState(sheet.frees[0]?.key ?? '');
  const [reason, setReason] = useState('');
  const { number, version } = sheet;
  const isWaiting = sheet.approval?.state === 'waiting' && sheet.stage.role === 'deciding';
  const send = async (event: React.FormEvent): Promise<void> => {
    event.preventDefault();
    const done = await free({ number, version, body: { stage, reason } });
    if ('error' in done) return;
    setOpen(false);
    toast(`${number} is free: it goes on at “${sheet.frees.find((each) => each.key === stage)?.label}”.`);
  };
  return (
    <DialogFrame
      open={open}
      onOpenChange={(shown) => {
        setOpen(shown);
        reset();
      }}
      trigger={<Button>Free it …</Button>}
      title={`Free ${number}`}
    >
      <form onSubmit={send} noValidate>
        <p className="mt-2 text-soft">
          {isWaiting
            ? `It waits for one of ${sheet.approval?.group} to decide. Freed, it goes on without a decision, and nobody can decide it any more.`
            : `It stands at “${sheet.stage.label}”. Freed, it goes on from another stage.`}
        </p>
        <label htmlFor="free-to" className="mt-4 block font-semibold">
          It goes on at
        </label>
        <select id="free-to" className="input mt-1" value={stage} onChange={(event) => setStage(event.target.value)}>
          {sheet.frees.map((each) => (
            <option key={each.key} value={each.key}>
              {each.label}
            </option>
          ))}
        </select>
        <label htmlFor="free-why" className="mt-4 block font-semibold">
          Why <span className="font-normal text-soft">(the desk reads it in the history)</span>
        </label>
        <textarea
          id="free-why"
          rows={2}
          className="input mt-1"
          value={reason}
          onChange={(event) => setReason(event.target.value)}
        />
        {error ? (
          <div className="mt-4">
            <Trouble error={error} />
          </div>
        ) : null}
        <div className="mt-5 flex gap-3">
          <Button look="main" type="submit" disabled={isLoading || reason.trim() === ''}>
            Free it
          </Button>
          <Dialog.Close asChild>
            <Button>Not now</Button>
          </Dialog.Close>
        </div>
      </form>
    </DialogFrame>
  );
}
