import { Popover } from 'radix-ui';
import { type ReactNode, useState } from 'react';
import { DayPicker, type DayPickerLocale } from 'react-day-picker';
import { de } from 'react-day-picker/locale/de';
import { enGB } from 'react-day-picker/locale/en-GB';
import { firstDayOfWeek, type Language, language, say } from '../wire/words.ts';

export { readDay, readMoment } from './typedDay.ts';

/** Days are those of the desk, whatever the clock of the browser: noon is the same day anywhere. */
const asDate = (day: string): Date => new Date(`${day}T12:00:00`);
const asDay = (date: Date): string =>
  [date.getFullYear(), date.getMonth() + 1, date.getDate()].map((part) => String(part).padStart(2, '0')).join('-');

const LOCALES: Record<Language, DayPickerLocale> = { en: enGB, de };

const DAY = 'size-9 rounded-[3px] hover:bg-green-wash focus-visible:outline-2 focus-visible:outline-green';

interface MonthPickerProps {
  readonly day: string | null;
  readonly today: string;
  readonly notBefore: string | null;
  readonly withTime: boolean;
  /** What opens it. */
  readonly button: ReactNode;
  readonly pick: (day: string) => void;
}

/** A month beside its button: open from the start, as it is loaded when the button is first pressed. */
export function MonthPicker({ withTime, button, pick, ...month }: MonthPickerProps) {
  const [open, setOpen] = useState(true);
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger asChild>{button}</Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="end"
          sideOffset={4}
          className="z-20 rounded-[3px] border border-rule-strong bg-sheet p-2 shadow-md"
        >
          <Month
            {...month}
            pick={(picked) => {
              pick(picked);
              setOpen(false);
            }}
          />
          {withTime ? <p className="mt-1 px-1 text-[13px] text-soft">{say('desk:timeBehind')}</p> : null}
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

/** A month to pick a day from. */
function Month({
  day,
  today,
  notBefore,
  pick,
}: {
  day: string | null;
  today: string;
  /** No day before it can be picked; null: any can. */
  notBefore: string | null;
  pick: (day: string) => void;
}) {
  return (
    <DayPicker
      mode="single"
      required
      autoFocus
      locale={LOCALES[language()]}
      weekStartsOn={firstDayOfWeek()}
      showOutsideDays
      today={asDate(today)}
      selected={day === null ? undefined : asDate(day)}
      defaultMonth={asDate(day ?? notBefore ?? today)}
      disabled={notBefore === null ? [] : [{ before: asDate(notBefore) }]}
      onSelect={(date) => pick(asDay(date))}
      classNames={{
        root: 'relative select-none',
        month_caption: 'flex h-9 items-center justify-center font-semibold',
        nav: 'absolute inset-x-0 top-0 flex h-9 items-center justify-between',
        button_previous: `${DAY} inline-flex items-center justify-center`,
        button_next: `${DAY} inline-flex items-center justify-center`,
        chevron: 'size-4 fill-current',
        weekday: 'size-9 text-[12px] font-normal text-soft',
        day: 'p-0 text-center',
        day_button: DAY,
        today: 'font-bold text-green',
        selected: '[&>button]:bg-green [&>button]:text-on-green',
        outside: 'text-soft',
        disabled: 'text-soft line-through opacity-60',
        month_grid: 'border-collapse',
      }}
    />
  );
}
