import { wallClockAt } from '@tolvek/core/deadline';
import { useState } from 'react';
import { Button } from '../../ui/Button.tsx';
import { WholeTrouble } from '../../ui/Trouble.tsx';
import { say } from '../../wire/words.ts';
import { groundApi } from '../groundwork/endpoints.ts';
import { RosterFields } from './RosterFields.tsx';
import { newRoster } from './rosterDraft.ts';
import { type Ground, useRosterAhead } from './useRosterAhead.ts';

interface NewRosterProps {
  readonly ground: Ground;
  /** The moment (ISO 8601) at the desk. */
  readonly now: string;
  readonly zone: string;
  readonly made: (key: string) => void;
}

/** A new roster: one shift over working days to begin with. */
export function NewRoster({ ground, now, zone, made }: NewRosterProps) {
  const [draft, setDraft] = useState(() =>
    newRoster(say('rosters:newName'), {
      ...{ zone, calendar: ground.calendars.find(({ retired }) => !retired)?.key ?? '' },
      ...{ today: wallClockAt(Date.parse(now), zone).slice(0, 10), id: crypto.randomUUID() },
    }),
  );
  const [once, setOnce] = useState(() => crypto.randomUUID());
  const ahead = useRosterAhead(draft, ground, now);
  const [create, { isLoading, error }] = groundApi.useCreateRosterMutation();
  const send = async (event: React.FormEvent): Promise<void> => {
    event.preventDefault();
    const answer = await create({ once, body: { roster: draft } });
    setOnce(crypto.randomUUID());
    if ('data' in answer && answer.data) made(answer.data.key);
  };
  return (
    <form onSubmit={send} noValidate className="max-w-[66rem]">
      <RosterFields {...{ draft, ground, ahead, error, now }} change={setDraft} />
      <WholeTrouble error={error} className="mt-4" />
      <p className="mt-6">
        <Button look="main" type="submit" disabled={isLoading}>
          {say('rosters:save')}
        </Button>
      </p>
    </form>
  );
}
