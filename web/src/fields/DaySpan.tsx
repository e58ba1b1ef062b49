import { ProblemsAt } from '../ui/ProblemsAt.tsx';
import { meApi } from '../wire/me.ts';
import { DayLine } from './DayLine.tsx';
import type { Days } from './useDaysMeant.ts';

interface DaySpanProps {
  /** Begins the ids of both. */
  readonly id: string;
  readonly labels: Days;
  readonly days: Days;
  /** Both are read at a moment of their own: each is put into what there is by then. */
  readonly set: (change: (days: Days) => Days) => void;
  /** What was wrong with what was sent. */
  readonly error: unknown;
}

/** A first day and a last one, which is not before it. */
export function DaySpan({ id, labels, days, set, error }: DaySpanProps) {
  const { data: me } = meApi.useMeQuery();
  const today = (me?.desk.now ?? '').slice(0, 10);
  return (
    <>
      <DayLine
        id={`${id}-from`}
        label={labels.from}
        value={days.from}
        today={today}
        set={(from) => set((now) => ({ ...now, from }))}
      >
        <ProblemsAt error={error} field="from" />
      </DayLine>
      <DayLine
        id={`${id}-until`}
        label={labels.until}
        value={days.until}
        today={today}
        notBefore={days.from || null}
        set={(until) => set((now) => ({ ...now, until }))}
      >
        <ProblemsAt error={error} field="until" />
      </DayLine>
    </>
  );
}
