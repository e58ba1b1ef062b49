import type { DoorDesign, DoorLimit } from '@tolvek/core/door';
import { Button } from '../../ui/Button.tsx';
import { say } from '../../wire/words.ts';
import {
  changeLimit,
  countedSince,
  SINCE,
  type Since,
  sinceOf,
  withLimit,
  withoutLimit,
  withSet,
} from './doorEdits.ts';

interface LimitsProps {
  readonly door: DoorDesign;
  /** How many requests count against limits for all, as the door is in force. */
  readonly used: readonly { readonly limit: string; readonly n: number }[];
  readonly set: (change: (before: DoorDesign) => DoorDesign) => void;
}

/** How many may come in: each limit reads as a sentence. */
export function Limits({ door, used, set }: LimitsProps) {
  return (
    <fieldset>
      <legend className="sr-only">{say('workshop:doors.limits')}</legend>
      {door.limits.map((limit) => (
        <LimitLine
          key={limit.id}
          limit={limit}
          used={used.find((each) => each.limit === limit.id)?.n}
          change={(next) => set((before) => changeLimit(before, limit.id, next))}
          remove={() => set((before) => withoutLimit(before, limit.id))}
        />
      ))}
      <Button onClick={() => set(withLimit)}>{say('workshop:doors.addLimit')}</Button>
      {door.limits.some(({ of }) => of === 'all') ? (
        <label className="mt-2 flex items-center gap-2">
          <input
            type="checkbox"
            className="accent-green"
            checked={door.showsPlaces ?? false}
            onChange={({ target: { checked } }) =>
              set((before) => withSet(before, 'showsPlaces', checked || undefined))
            }
          />
          {say('workshop:doors.showPlaces')}
        </label>
      ) : null}
      {door.limits.length > 0 ? (
        <span className="mt-1 block text-[13px] text-soft">{say('workshop:doors.limitsHint')}</span>
      ) : null}
    </fieldset>
  );
}

interface LimitLineProps {
  readonly limit: DoorLimit;
  readonly used: number | undefined;
  readonly change: (next: (before: DoorLimit) => DoorLimit) => void;
  readonly remove: () => void;
}

function LimitLine({ limit, used, change, remove }: LimitLineProps) {
  const since = sinceOf(limit);
  return (
    <p className="mb-2 flex flex-wrap items-center gap-2">
      {say('workshop:doors.atMost')}
      <input
        aria-label={say('workshop:doors.howMany')}
        className="input w-16"
        inputMode="numeric"
        defaultValue={limit.most}
        onChange={({ target: { value } }) => {
          const most = Number(value);
          if (Number.isInteger(most) && most > 0 && most <= 1_000_000) change((before) => ({ ...before, most }));
        }}
      />
      {say('workshop:doors.requests')}
      <select
        aria-label={say('workshop:doors.ofWhom')}
        className="input w-auto max-w-[10.2rem]"
        value={limit.of}
        onChange={({ target: { value } }) => change((before) => ({ ...before, of: value as DoorLimit['of'] }))}
      >
        {(['all', 'each'] as const).map((of) => (
          <option key={of} value={of}>
            {say(`workshop:doors.of.${of}`)}
          </option>
        ))}
      </select>
      <select
        aria-label={say('workshop:doors.sinceWhen')}
        className="input w-auto max-w-[8.4rem]"
        value={since}
        onChange={({ target: { value } }) => change((before) => countedSince(before, value as Since))}
      >
        {SINCE.map((each) => (
          <option key={each} value={each}>
            {say(`workshop:doors.since.${each}`)}
          </option>
        ))}
      </select>
      {since === 'days' ? (
        <input
          aria-label={say('workshop:doors.howManyDays')}
          className="input w-20"
          inputMode="numeric"
          defaultValue={limit.days ?? 30}
          onChange={({ target: { value } }) => {
            const days = Number(value);
            if (Number.isInteger(days) && days > 1 && days <= 3_660) change((before) => ({ ...before, days }));
          }}
        />
      ) : null}
      {used === undefined ? null : (
        <span className="text-soft">{say('workshop:doors.usedSoFar', { count: used })}</span>
      )}
      <button type="button" className="text-green underline" onClick={remove}>
        {say('workshop:doors.dropLimit')}
      </button>
    </p>
  );
}
