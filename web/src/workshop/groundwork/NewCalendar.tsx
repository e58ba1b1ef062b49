import { useState } from 'react';
import { Button } from '../../ui/Button.tsx';
import { WholeTrouble } from '../../ui/Trouble.tsx';
import { meApi } from '../../wire/me.ts';
import { say } from '../../wire/words.ts';
import { CalendarFields } from './CalendarFields.tsx';
import { type CalendarDraft, OFFICE_WEEK } from './calendarDraft.ts';
import { groundApi } from './endpoints.ts';

/** A new working calendar: office hours to begin with, in the zone of the desk. */
export function NewCalendar({ made }: { made: (key: string) => void }) {
  const { data: me } = meApi.useMeQuery();
  return me ? <Making made={made} zone={me.desk.zone} today={me.desk.now.slice(0, 10)} /> : null;
}

function Making({ made, zone, today }: { made: (key: string) => void; zone: string; today: string }) {
  const [calendar, setCalendar] = useState<CalendarDraft>({
    ...{ name: say('ground:newCalendarName'), zone, week: OFFICE_WEEK, holidays: [] },
  });
  const [once, setOnce] = useState(() => crypto.randomUUID());
  const [create, { isLoading, error }] = groundApi.useCreateCalendarMutation();
  const send = async (event: React.FormEvent): Promise<void> => {
    event.preventDefault();
    const answer = await create({ once, body: { calendar } });
    setOnce(crypto.randomUUID());
    if ('data' in answer && answer.data) made(answer.data.key);
  };
  return (
    <form onSubmit={send} noValidate className="max-w-[58rem]">
      <CalendarFields
        {...{ calendar, error, today }}
        set={(change) => setCalendar((before) => ({ ...before, ...change }))}
      />
      <WholeTrouble error={error} className="mt-4" />
      <p className="mt-6">
        <Button look="main" type="submit" disabled={isLoading}>
          {say('ground:saveCalendar')}
        </Button>
      </p>
    </form>
  );
}
