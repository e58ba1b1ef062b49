import type { AnswerOf } from '@tolvek/contract';
import type { DoorDesign } from '@tolvek/core/door';
import { say } from '../../wire/words.ts';
import { LimitInput } from '../LimitInput.tsx';
import { Tick } from '../Setting.tsx';
import { withSet } from './doorEdits.ts';

/** For how many hours a free place is held where nothing else was said. */
const USUAL = 48;

interface WaitingProps {
  readonly door: DoorDesign;
  readonly set: (next: (before: DoorDesign) => DoorDesign) => void;
  readonly line: AnswerOf<'doorDesign'>['line'];
}

/** Whether people wait for a place when the limit for all is reached, and who does. Two cells of a grid of two columns. */
export function Waiting({ door, set, line }: WaitingProps) {
  if (!door.limits.some(({ of }) => of === 'all') && door.waits === undefined && line.length === 0) return null;
  return (
    <>
      <span className="pt-1 text-soft">{say('workshop:doors.line')}</span>
      <div>
        <Tick
          label={say('workshop:doors.waits')}
          hint={say('workshop:doors.waitsHint')}
          isOn={door.waits !== undefined}
          put={(isOn) => set((before) => withSet(before, 'waits', isOn ? USUAL : undefined))}
        />
        {door.waits === undefined ? null : (
          <p className="mt-1.5 ml-6">
            <LimitInput
              label={say('workshop:doors.waitsHours')}
              width="w-20"
              value={door.waits}
              set={(hours) => set((before) => withSet(before, 'waits', hours ?? USUAL))}
            />
          </p>
        )}
        {line.length > 0 ? (
          <ol className="mt-2 ml-6 list-decimal">
            {line.map(({ name, email, since, until }) => (
              <li key={email}>
                {name} <span className="text-soft">{email}</span>{' '}
                <span className="text-[13px] text-soft">
                  {until === null
                    ? say('workshop:doors.lineSince', { since: Date.parse(since) })
                    : say('workshop:doors.lineHeld', { until: Date.parse(until) })}
                </span>
              </li>
            ))}
          </ol>
        ) : null}
      </div>
    </>
  );
}
