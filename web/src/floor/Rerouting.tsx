import type { AnswerOf } from '@tolvek/contract';
import { priorities } from '@tolvek/core/register';
import { priorityInWords } from '@tolvek/core/request';
import { useState } from 'react';
import { toast } from 'sonner';
import { Button } from '../ui/Button.tsx';
import { DialogFrame } from '../ui/DialogFrame.tsx';
import { Trouble } from '../ui/Trouble.tsx';
import { say } from '../wire/words.ts';
import { floorApi } from './endpoints.ts';
import { ReasonForm } from './ReasonForm.tsx';

type SheetData = AnswerOf<'sheet'>;
type Priority = (typeof priorities)[number];

/** Hands a request over to another team, or gives it another priority. */
export function Rerouting({ sheet }: { sheet: SheetData }) {
  const [open, setOpen] = useState(false);
  const [reroute, { error, isLoading }] = floorApi.useRerouteMutation();
  const here = sheet.teams.find((team) => team.here)?.key ?? '';
  const [team, setTeam] = useState(here);
  const [reason, setReason] = useState('');
  const [priority, setPriority] = useState<Priority>(sheet.priority ?? 'normal');
  if (!open)
    return (
      <button type="button" className="text-green underline" onClick={() => setOpen(true)}>
        {say('floor:changeTeam')}
      </button>
    );
  const put = async (): Promise<void> => {
    const { number, version } = sheet;
    const done = await reroute({ number, version, body: { team, priority, reason } });
    if ('error' in done) return;
    setOpen(false);
    toast(
      team === here
        ? say('floor:prioritySet', { number, priority: priorityInWords(priority) })
        : say(sheet.trial ? 'floor:movedToSilent' : 'floor:movedTo', {
            number,
            team: sheet.teams.find((each) => each.key === team)?.name ?? team,
          }),
    );
  };
  return (
    <span className="mt-2 flex flex-wrap items-center gap-2">
      <select
        aria-label={say('floor:col.team')}
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
        aria-label={say('floor:priority')}
        className="input w-auto py-1"
        value={priority}
        onChange={(event) => setPriority(event.target.value as Priority)}
      >
        {priorities.map((each) => (
          <option key={each} value={each}>
            {say('floor:priorityOf', { priority: priorityInWords(each) })}
          </option>
        ))}
      </select>
      <input
        aria-label={say('floor:whyMoved')}
        placeholder={say('floor:whyMoved')}
        className="input min-w-40 flex-1 py-1"
        maxLength={500}
        value={reason}
        onChange={(event) => setReason(event.target.value)}
      />
      <Button
        look="main"
        disabled={isLoading || (team === here && priority === sheet.priority)}
        onClick={() => void put()}
      >
        {say(team === here ? 'floor:setPriority' : sheet.trial ? 'floor:moveSilent' : 'floor:moveAndEmail')}
      </Button>
      <Button onClick={() => setOpen(false)}>{say('common:cancel')}</Button>
      {error ? <Trouble error={error} /> : null}
    </span>
  );
}

/** Moves a request on from where nobody else can, with a reason that stands in its history. */
export function Freeing({ sheet }: { sheet: SheetData }) {
  const [open, setOpen] = useState(false);
  const [free, { error, isLoading, reset }] = floorApi.useFreeRequestMutation();
  const [stage, setStage] = useState(sheet.frees[0]?.key ?? '');
  const { number, version } = sheet;
  const isWaiting = sheet.approval?.state === 'waiting' && sheet.stage.role === 'deciding';
  const send = async (reason: string): Promise<void> => {
    const done = await free({ number, version, body: { stage, reason } });
    if ('error' in done) return;
    setOpen(false);
    toast(say('floor:movedOn', { number, stage: sheet.frees.find((each) => each.key === stage)?.label ?? stage }));
  };
  return (
    <DialogFrame
      open={open}
      onOpenChange={setOpen}
      reset={reset}
      trigger={<Button>{say('floor:moveOn')}</Button>}
      title={say('floor:moveOnTitle', { number })}
    >
      <ReasonForm
        id="free-why"
        hint={say('floor:reasonHint')}
        act={say('floor:moveOnNow')}
        look="main"
        busy={isLoading}
        error={error}
        send={(reason) => void send(reason)}
      >
        <p className="mt-2 text-soft">
          {isWaiting
            ? say('floor:waitsForGroup', { group: sheet.approval?.group ?? '' })
            : say('floor:standsAt', { stage: sheet.stage.label })}
        </p>
        <label htmlFor="free-to" className="mt-4 block font-semibold">
          {say('floor:moveTo')}
        </label>
        <select id="free-to" className="input mt-1" value={stage} onChange={(event) => setStage(event.target.value)}>
          {sheet.frees.map((each) => (
            <option key={each.key} value={each.key}>
              {each.label}
            </option>
          ))}
        </select>
      </ReasonForm>
    </DialogFrame>
  );
}
