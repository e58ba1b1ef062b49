import type { CalendarShape, ViewDesign } from '@tolvek/core/view';
import { badNews } from '../../ui/news.ts';
import { saveFile } from '../../ui/saveFile.ts';
import { meApi } from '../../wire/me.ts';
import { problemOf, refusalInWords } from '../../wire/problem.ts';
import { say } from '../../wire/words.ts';
import { viewsApi } from './endpoints.ts';
import { Part } from './Part.tsx';
import { spreadsheetMade } from './spreadsheetMade.ts';

/** What a view is taken out for. */
const WAYS = ['xlsx', 'csv', 'json', 'ics'] as const;
type Out = Readonly<Record<string, unknown>> & { readonly number: string; readonly subject: string };

const textIn = (line: Out, subject: string | null): string | null => {
  const value = subject === null ? null : line[subject];
  return typeof value === 'string' && value !== '' ? value : null;
};

interface TakingOutProps {
  readonly view: ViewDesign;
  /** The numbers of those that are chosen; none: all are meant. */
  readonly only: readonly string[];
}

/** A view as it stands is taken out as a file: all of its rows that one may take out, or those that are chosen. */
export function TakingOut({ view, only }: TakingOutProps) {
  const { data: me } = meApi.useMeQuery();
  const [take, { isLoading }] = viewsApi.useTakeOutViewMutation();
  const shape = view.shapes.find((each): each is CalendarShape => each.is === 'calendar');
  const name = view.name.trim().replaceAll(/[^\p{L}\p{N}]+/gu, '-') || say('views:fileName');
  const dates = async (text: string, { from, to }: CalendarShape): Promise<void> => {
    const { viewAsICalendar } = await import('./viewAsICalendar.ts');
    const lines = JSON.parse(text) as readonly Out[];
    const dated = lines.flatMap((line) => {
      const begins = textIn(line, from);
      return begins === null
        ? []
        : [{ number: line.number, summary: line.subject || line.number, begins, ends: textIn(line, to) }];
    });
    const at = { zone: me?.desk.zone ?? 'UTC', address: location.origin, now: Date.now() };
    saveFile(`${name}.ics`, 'text/calendar', viewAsICalendar(view.name, dated, at));
  };
  const spreadsheet = async (text: string): Promise<void> => {
    const made = await spreadsheetMade(text, view.name);
    if ('made' in made) saveFile(`${name}.xlsx`, made.made.type, made.made);
    else badNews(say(`views:xlsx.${made.why}`));
  };
  const out = async (as: (typeof WAYS)[number]): Promise<void> => {
    const done = await take({
      body: { view, as, ...(only.length > 0 ? { only: [...only] } : {}) },
    });
    if ('error' in done) {
      badNews(refusalInWords(problemOf(done.error)));
      return;
    }
    // The mark of its encoding, by which spreadsheets know letters with accents, is lost where a text is read.
    if (as === 'csv') saveFile(`${name}.csv`, 'text/csv', `\uFEFF${done.data}`);
    else if (as === 'xlsx') await spreadsheet(done.data);
    else if (as === 'json') saveFile(`${name}.json`, 'application/json', done.data);
    else if (shape) await dates(done.data, shape);
  };
  return (
    <Part
      words={only.length === 0 ? say('views:takeOut') : say('views:takeOutChosen', { count: only.length })}
      label={say('views:takeOut')}
      isFaint
    >
      <ul>
        {WAYS.map((as) => (
          <li key={as} className="border-b border-rule">
            <button
              type="button"
              className="min-h-7 w-full text-left hover:text-green disabled:text-soft"
              disabled={isLoading || (as === 'ics' && !shape)}
              onClick={() => void out(as)}
            >
              {say(`views:out.${as}`)}
            </button>
          </li>
        ))}
      </ul>
      <p className="mt-2 text-[13px] text-soft">
        {say(only.length === 0 ? 'views:takeOutHint' : 'views:takeOutChosenHint')} {shape ? null : say('views:noDates')}
      </p>
    </Part>
  );
}
