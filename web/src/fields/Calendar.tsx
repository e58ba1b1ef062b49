import { DayPicker } from 'react-day-picker';

export { readDay, readMoment } from './typedDay.ts';

/** Days are those of the desk, whatever the clock of the browser: noon is the same day anywhere. */
const asDate = (day: string): Date => new Date(`${day}T12:00:00`);
const asDay = (date: Date): string =>
  [date.getFullYear(), date.getMonth() + 1, date.getDate()].map((part) => String(part).padStart(2, '0')).join('-');

const DAY = 'size-9 rounded-[3px] hover:bg-green-wash focus-visible:outline-2 focus-visible:outline-green';

/** A month to pick a day from. */
export function Month({
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
      weekStartsOn={1}
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
