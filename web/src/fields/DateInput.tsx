import { CalendarDays } from 'lucide-react';
import { type ComponentProps, lazy, Suspense, useEffect, useRef, useState } from 'react';
import { say } from '../wire/words.ts';
import { type InputProps, typed, useAroundFields } from './input.ts';

/** What reads freely typed days and shows a month: loaded when somebody first needs it. */
let calendar: typeof import('./Calendar.tsx') | null = null;
const load = async () => {
  calendar ??= await import('./Calendar.tsx');
  return calendar;
};
/** The day that a text means, also for whoever is faster than what reads it; the text itself where it means none. */
export const dayMeant = async (text: string, today: string): Promise<string> =>
  text === '' || DAY.test(text) ? text : ((await load()).readDay(text, today, false) ?? text);
const MonthPicker = lazy(async () => ({ default: (await load()).MonthPicker }));

const MonthButton = (props: ComponentProps<'button'>) => (
  <button
    {...props}
    type="button"
    aria-label={say('desk:pickDay')}
    className="flex w-10 shrink-0 items-center justify-center rounded-r-[3px] border border-l-0 border-edge bg-sheet text-soft hover:text-green [.desk_&]:w-12"
  >
    <CalendarDays aria-hidden size={17} />
  </button>
);

const DAY = /^\d{4}-\d\d-\d\d$/;
const MOMENT = /^\d{4}-\d\d-\d\dT\d\d:\d\d$/;

interface DayFieldProps {
  readonly id?: string;
  readonly name?: string;
  readonly value: string;
  /** Day or moment at the desk. */
  readonly today: string;
  readonly notBefore: string | null;
  readonly withTime: boolean;
  /** Whether a day that has been is meant where both could be. */
  readonly isPast?: boolean;
  readonly onChange: (value: string) => void;
  readonly onBlur?: (() => void) | undefined;
  readonly describedBy?: string | undefined;
  readonly invalid?: boolean;
  readonly disabled?: boolean | undefined;
}

/**
 * A day, or a day with its time: typed as people write it, or picked from a month. What was typed is
 * kept as it is until it is understood.
 */
export function DayField(props: DayFieldProps) {
  const { value, withTime, today, isPast = false, onChange } = props;
  const [typing, setTyping] = useState<string | null>(null);
  /** From the first press on, the month is there. */
  const [wanted, setWanted] = useState(false);
  const isRead = (withTime ? MOMENT : DAY).test(value);
  const shown = withTime ? say('values:dateTime', { moment: value }) : say('values:date', { day: value });
  const inWords = isRead ? shown : value;
  const day = DAY.test(value.slice(0, 10)) ? value.slice(0, 10) : null;
  const settle = (text: string): void => {
    if (!calendar) return;
    const understood = withTime ? calendar.readMoment(text, today) : calendar.readDay(text, today.slice(0, 10), isPast);
    if (understood !== null && understood !== value) onChange(understood);
  };
  /** What is left as it was typed, by somebody who was faster than what reads it, is read as soon as it can be. */
  const unread = typing === null && value !== '' && !isRead;
  const settleLatest = useRef(settle);
  useEffect(() => {
    settleLatest.current = settle;
  });
  useEffect(() => {
    if (!unread || today === '') return;
    let isHere = true;
    void load().then(() => isHere && settleLatest.current(value));
    return () => {
      isHere = false;
    };
  }, [unread, value, today]);
  return (
    <span className={`flex items-stretch ${withTime ? 'max-w-96' : 'max-w-64'}`}>
      <input
        id={props.id}
        aria-label={props.name}
        className="input min-w-0 rounded-r-none"
        type="text"
        autoComplete="off"
        placeholder={withTime ? say('desk:likeMoment') : say('desk:likeDay')}
        value={typing ?? inWords}
        disabled={props.disabled}
        aria-describedby={props.describedBy}
        aria-invalid={props.invalid}
        onFocus={() => void load()}
        onChange={(event) => {
          setTyping(event.target.value);
          onChange(event.target.value);
        }}
        onBlur={() => {
          if (typing !== null) settle(typing);
          setTyping(null);
          // Nothing is said of what is not read yet: it would move the page, and move it back.
          const { onBlur } = props;
          if (!onBlur) return;
          if (calendar || typing === null) onBlur();
          else void load().then(() => setTimeout(onBlur), onBlur);
        }}
      />
      {wanted ? (
        <Suspense fallback={<MonthButton />}>
          <MonthPicker
            day={day}
            today={today.slice(0, 10)}
            notBefore={props.notBefore}
            withTime={withTime}
            button={<MonthButton disabled={props.disabled} />}
            pick={(picked) => {
              onChange(withTime ? `${picked}T${isRead ? value.slice(11) : '09:00'}` : picked);
              setTyping(null);
            }}
          />
        </Suspense>
      ) : (
        <MonthButton disabled={props.disabled} onPointerEnter={() => void load()} onClick={() => setWanted(true)} />
      )}
    </span>
  );
}

export function DateInput({ type, value, ...props }: InputProps<'date'>) {
  const { today } = useAroundFields();
  return (
    <DayField
      {...props}
      value={typed(value)}
      today={today}
      notBefore={type.notBeforeToday ? today : null}
      withTime={false}
    />
  );
}

export function DateTimeInput({ type, value, ...props }: InputProps<'date-time'>) {
  const { now } = useAroundFields();
  return (
    <DayField
      {...props}
      value={typed(value).replace(' ', 'T')}
      today={now}
      notBefore={type.notBeforeNow ? now.slice(0, 10) : null}
      withTime
    />
  );
}
