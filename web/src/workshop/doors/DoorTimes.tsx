import { wallClockAt } from '@tolvek/core/deadline';
import type { DoorDesign } from '@tolvek/core/door';
import { useState } from 'react';
import { DayField } from '../../fields/DateInput.tsx';
import { meApi } from '../../wire/me.ts';
import { say } from '../../wire/words.ts';
import { momentTyped, typedMoment, withSet } from './doorEdits.ts';

interface DoorTimesProps {
  readonly id: string;
  readonly door: DoorDesign;
  readonly set: (change: (before: DoorDesign) => DoorDesign) => void;
}

/** From when until when a door is open, and how long whoever is filling in then may finish. Rows of a grid of two columns. */
export function DoorTimes({ id, door, set }: DoorTimesProps) {
  const { data: me } = meApi.useMeQuery();
  const zone = me?.desk.zone ?? 'UTC';
  return (
    <>
      <span className="pt-1.5 text-soft">{say('workshop:doors.times')}</span>
      <fieldset>
        <legend className="sr-only">{say('workshop:doors.times')}</legend>
        <span className="flex flex-col gap-y-2">
          <MomentLine
            key={`opens ${zone} ${door.opensAt}`}
            id={`${id}-opens`}
            label={say('workshop:doors.opensAt')}
            at={door.opensAt}
            zone={zone}
            put={(opensAt) => set((before) => ({ ...before, opensAt }))}
          />
          <MomentLine
            key={`closes ${zone} ${door.closesAt}`}
            id={`${id}-closes`}
            label={say('workshop:doors.closesAt')}
            at={door.closesAt}
            zone={zone}
            put={(closesAt) => set((before) => ({ ...before, closesAt }))}
          />
        </span>
        <span className="mt-1 block text-[13px] text-soft">{say('workshop:doors.timesHint', { zone })}</span>
      </fieldset>
      <label htmlFor={`${id}-finishing`} className="pt-1.5 text-soft">
        {say('workshop:doors.finishing')}
      </label>
      <span>
        <span className="flex items-center gap-2">
          <input
            id={`${id}-finishing`}
            className="input w-20"
            inputMode="numeric"
            value={door.finishing ?? ''}
            placeholder="0"
            onChange={({ target: { value } }) => {
              const minutes = Number(value);
              if (Number.isInteger(minutes) && minutes >= 0 && minutes <= 1_440)
                set((before) => withSet(before, 'finishing', minutes === 0 ? undefined : minutes));
            }}
          />
          {say('workshop:doors.minutes')}
        </span>
        <span className="mt-1 block text-[13px] text-soft">{say('workshop:doors.finishingHint')}</span>
      </span>
    </>
  );
}

interface MomentLineProps {
  readonly id: string;
  readonly label: string;
  /** Epoch ms; null for none. */
  readonly at: number | null;
  readonly zone: string;
  readonly put: (at: number | null) => void;
}

function MomentLine({ id, label, at, zone, put }: MomentLineProps) {
  const [typed, setTyped] = useState(() => typedMoment(at, zone));
  return (
    <span className="w-80">
      <label htmlFor={id} className="block text-[13px] text-soft">
        {label}
      </label>
      <DayField
        id={id}
        value={typed}
        today={wallClockAt(Date.now(), zone)}
        notBefore={null}
        withTime
        onChange={(next) => {
          setTyped(next);
          const moment = momentTyped(next, zone);
          if (moment !== undefined) put(moment);
        }}
      />
    </span>
  );
}
