import { toast } from 'sonner';
import { Button } from '../../ui/Button.tsx';
import { saveFile } from '../../ui/saveFile.ts';
import { say } from '../../wire/words.ts';
import { FilePick } from '../FilePick.tsx';
import { type CalendarDraft, withDays } from './calendarDraft.ts';

/** Years for which days of every year are read from a file. */
const YEARS = 3;

interface InOutProps {
  readonly calendar: CalendarDraft;
  readonly set: (change: Partial<CalendarDraft>) => void;
  readonly today: string;
}

/** A calendar as an iCalendar file, out and in; what comes in is looked at like any other change. */
export function InOut({ calendar, set, today }: InOutProps) {
  const year = Number(today.slice(0, 4)) || 2026;
  const save = async (): Promise<void> => {
    const { asICalendar } = await import('./icalendar.ts');
    const name = `${calendar.name.replace(/[^\p{L}\p{N}]+/gu, '-') || 'calendar'}.ics`;
    saveFile(name, 'text/calendar', asICalendar(calendar));
  };
  const read = async (file: File): Promise<void> => {
    try {
      const { fromICalendar } = await import('./icalendar.ts');
      const found = fromICalendar(
        await file.text(),
        Array.from({ length: YEARS }, (_, place) => year + place),
      );
      const days = withDays(calendar.holidays, found.days);
      set({
        holidays: [...days],
        ...(found.week ? { week: found.week } : {}),
        ...(found.zone ? { zone: found.zone } : {}),
      });
      toast(say('ground:calendarRead', { count: days.length - calendar.holidays.length }));
    } catch {
      toast.error(say('ground:noICalendar'));
    }
  };
  return (
    <div className="mt-4 flex flex-wrap items-center gap-3">
      <FilePick name={say('ground:importCalendar')} accept=".ics,text/calendar" onChoose={read} />
      <Button onClick={() => void save()}>{say('ground:exportCalendar')}</Button>
    </div>
  );
}
