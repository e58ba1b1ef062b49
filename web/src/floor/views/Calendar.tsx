import { useDroppable } from '@dnd-kit/core';
import type { AnswerOf } from '@tolvek/contract';
import type { Field } from '@tolvek/core/register';
import { type CalendarShape, calledIn, isFact, VIEW_LOOKS_AT, type ViewDesign } from '@tolvek/core/view';
import { said } from '@tolvek/words';
import { toast } from 'sonner';
import { ColourMark } from '../../ui/ColourMark.tsx';
import { problemOf, refusalInWords } from '../../wire/problem.ts';
import { say, told } from '../../wire/words.ts';
import { floorApi } from '../endpoints.ts';
import { moveTo, NO_WAY, type Way, wayTo } from './boardMoves.ts';
import { daysBetween, daysLater, daysOf, monthLater, movedBy, placed, SPANS, type Span } from './days.ts';
import { Lifting, useLifted } from './lifting.tsx';
import { Liftable, SlipFace } from './Slip.tsx';

type Looked = AnswerOf<'lookAtCalendar'>;
type Bar = Looked['bars'][number];
type Sheet = AnswerOf<'sheet'>;

interface CalendarProps {
  readonly view: ViewDesign;
  readonly shape: CalendarShape;
  readonly fields: readonly Field[];
  readonly looked: Looked | undefined;
  readonly span: Span;
  readonly day: string;
  readonly today: string;
  readonly look: (span: Span, day: string) => void;
  readonly open: string | undefined;
  readonly to: (number: string) => string;
}

/** Days of a calendar that are drawn in one stretch, with a line for each value of a thing, or in one. */
interface Stretch {
  readonly days: readonly string[];
  readonly lines: readonly { readonly at: number; readonly label: string | null }[];
}

/** A view as a calendar: what lasts from one day to another, moved to other days by the rules of its sheet. */
export function Calendar({ view, shape, fields, looked, span, day, today, look, open, to }: CalendarProps) {
  const [change] = floorApi.useChangeFieldsMutation();
  const days = daysOf(span, day);
  const weeks = Array.from({ length: days.length / 7 }, (_, week) => days.slice(week * 7, week * 7 + 7));
  const lines = looked?.lines ?? [];
  const named = lines.map(({ label }, at) => ({ at, label: told(label) || say('views:noValue') }));
  const stretches: readonly Stretch[] = weeks.map((each) => ({
    days: each,
    lines: shape.lines === null ? [{ at: -1, label: null }] : named,
  }));
  const bars = new Map((looked?.bars ?? []).map((bar) => [bar.number, bar]));
  const loose = new Map((looked?.undated.rows ?? []).map((row) => [row.number, row]));
  const subjects = [shape.from, ...(shape.to === null ? [] : [shape.to])];
  const target = (place: string): { readonly day: string; readonly line: number } => {
    const [on = '', line = '-1'] = place.split(' ');
    return { day: on, line: Number(line) };
  };
  const way = (sheet: Sheet, place: string): Way => {
    const { day: on, line } = target(place);
    const bar = bars.get(sheet.number);
    const value = lines[line];
    const isSameLine = shape.lines === null || bar?.line === line;
    if (bar && isSameLine && bar.begins.slice(0, 10) === on) return 'here';
    const closed = subjects.find((subject) => isFact(subject));
    if (closed !== undefined && bar?.begins.slice(0, 10) !== on)
      return { whyNot: said('views:notMoved', { what: calledIn(closed, fields) }) };
    for (const subject of subjects) {
      const field = sheet.values.fields.find(({ key }) => key === subject);
      if (!isFact(subject) && !field?.writable) return { whyNot: field?.why ?? NO_WAY };
    }
    if (!isSameLine && shape.lines !== null && value) return wayTo(sheet, shape.lines, value);
    return 'open';
  };
  const put = async (sheet: Sheet, place: string): Promise<void> => {
    const { day: on, line } = target(place);
    const bar = bars.get(sheet.number);
    const value = lines[line];
    const moved = bar
      ? subjects.flatMap((subject) => {
          const held = sheet.values.fields.find(({ key }) => key === subject)?.value;
          return typeof held === 'string' ? [[subject, movedBy(held, daysBetween(bar.begins.slice(0, 10), on))]] : [];
        })
      : [[shape.from, sheet.fieldTypes[shape.from]?.kind === 'date-time' ? `${on}T08:00` : on]];
    const isOtherLine = shape.lines !== null && bar?.line !== line && value !== undefined;
    const toLine = isOtherLine ? moveTo(sheet, shape.lines ?? '', value.value) : null;
    const changes = {
      ...Object.fromEntries(moved),
      ...(toLine?.does === 'changeFields' ? toLine.body.changes : {}),
    };
    const done = await change({ number: sheet.number, version: sheet.version, body: { changes } });
    if ('error' in done) toast.error(refusalInWords(problemOf(done.error)));
    else toast(say('views:movedToDay', { number: sheet.number, day: on }));
  };
  const step = (by: number): string => (span === 'week' ? daysLater(day, 7 * by) : monthLater(day, by));
  return (
    <div className="mt-2 min-h-0 flex-1 overflow-auto px-[22px] pb-6 contain-content">
      <p className="flex flex-wrap items-baseline gap-x-4 gap-y-1 text-[13px]">
        <button
          type="button"
          className="size-[24px] text-green"
          aria-label={say('views:earlier')}
          onClick={() => look(span, step(-1))}
        >
          ‹
        </button>
        <b className="subject min-w-52 text-center text-[16px]">
          {span === 'month'
            ? say('views:monthOf', { day })
            : say('views:fromTo', { from: days[0] ?? '', to: days.at(-1) ?? '' })}
        </b>
        <button
          type="button"
          className="size-[24px] text-green"
          aria-label={say('views:later')}
          onClick={() => look(span, step(1))}
        >
          ›
        </button>
        <button type="button" className="min-h-6 text-green underline" onClick={() => look(span, today)}>
          {say('views:today')}
        </button>
        <span className="ml-auto flex gap-4">
          {SPANS.map((each) => (
            <button
              key={each}
              type="button"
              aria-pressed={each === span}
              className={`min-h-6 ${each === span ? 'font-semibold' : 'text-soft hover:text-ink'}`}
              onClick={() => look(each, day)}
            >
              {say(`views:span.${each}`)}
            </button>
          ))}
        </span>
      </p>
      {looked ? (
        <Lifting
          wayTo={way}
          put={(sheet, place) => void put(sheet, place)}
          refuse={(why) => toast.error(why)}
          overlay={(number) => {
            const row = bars.get(number) ?? loose.get(number);
            return row ? <SlipFace {...{ row, view, fields }} without={subjects} isLifted /> : null;
          }}
        >
          {stretches.map((stretch) => (
            <Week
              key={stretch.days[0]}
              stretch={stretch}
              bars={looked.bars}
              isDim={(each) => span === 'month' && !each.startsWith(day.slice(0, 7))}
              {...{ view, today, open, to, way }}
            />
          ))}
          {looked.undated.count > 0 ? (
            <section className="mt-4">
              <h2 className="section-head">
                {say('views:undated', { count: looked.undated.count, what: told(calledIn(shape.from, fields)) })}
              </h2>
              <div className="mt-2 grid grid-cols-[repeat(auto-fill,minmax(13rem,1fr))] gap-2">
                {looked.undated.rows.map((row) => (
                  <Liftable key={row.number} row={row} to={to(row.number)} here={row.number === open}>
                    <SlipFace {...{ row, view, fields }} without={subjects} here={row.number === open} />
                  </Liftable>
                ))}
              </div>
              {looked.undated.count > looked.undated.rows.length ? (
                <p className="mt-1 text-[13px] text-soft">
                  {say('views:moreHere', { count: looked.undated.count - looked.undated.rows.length })}
                </p>
              ) : null}
            </section>
          ) : null}
        </Lifting>
      ) : null}
      {looked?.more ? (
        <p className="py-3 text-soft">{say('views:tooManyBars', { count: looked.bars.length })}</p>
      ) : null}
      {looked && !looked.isAll ? (
        <p className="py-3 text-soft">{say('views:notAll', { count: VIEW_LOOKS_AT })}</p>
      ) : null}
    </div>
  );
}

interface WeekProps {
  readonly stretch: Stretch;
  readonly bars: readonly Bar[];
  readonly view: ViewDesign;
  readonly today: string;
  readonly isDim: (day: string) => boolean;
  readonly open: string | undefined;
  readonly to: (number: string) => string;
  readonly way: (sheet: Sheet, place: string) => Way;
}

/** Seven days, with what lasts in them in lines. */
function Week({ stretch: { days, lines }, bars, view, today, isDim, open, to, way }: WeekProps) {
  const isNamed = lines.some(({ label }) => label !== null);
  const sides = isNamed ? '8.5rem ' : '';
  return (
    <section
      aria-label={say('views:fromTo', { from: days[0] ?? '', to: days.at(-1) ?? '' })}
      className="mt-2 grid min-w-fit border-t border-rule-strong"
      style={{ gridTemplateColumns: `${sides}repeat(7, minmax(6.5rem, 1fr))` }}
    >
      {isNamed ? <span /> : null}
      {days.map((each) => (
        <h3
          key={each}
          className={`border-b border-l border-rule-strong border-l-rule px-1.5 py-0.5 font-sans text-[12.5px] font-semibold ${each === today ? 'text-green shadow-[inset_0_3px_var(--green)]' : isDim(each) ? 'font-normal text-soft' : ''}`}
        >
          {say('views:dayHead', { day: each })}
        </h3>
      ))}
      {lines.map(({ at, label }) => {
        const own = placed(
          bars.filter(({ line }) => line === at),
          days,
        );
        const rows = Math.max(1, ...own.map(({ row }) => row + 1));
        return (
          <div key={at} className="contents">
            {label === null ? null : (
              <h4 className="subject border-b border-rule py-1.5 pr-2 text-[15.5px]">{label}</h4>
            )}
            <div
              className="grid border-b border-rule py-1"
              style={{
                gridColumn: `${isNamed ? 2 : 1} / -1`,
                gridTemplateColumns: 'subgrid',
                gridTemplateRows: `repeat(${rows}, minmax(24px, auto)) minmax(6px, 1fr)`,
              }}
            >
              {days.map((each, column) => (
                <Day
                  key={each}
                  id={`${each} ${at}`}
                  called={[say('values:date', { day: each }), ...(label === null ? [] : [label])].join(', ')}
                  column={column + 1}
                  way={way}
                />
              ))}
              {own.map(({ item, from, to: until, row, isBefore, isAfter }) => (
                <span
                  key={item.number}
                  className="z-[1] min-w-0 px-px pb-[3px]"
                  style={{ gridColumn: `${from + 1} / ${until + 2}`, gridRow: row + 1 }}
                >
                  <Liftable row={item} to={to(item.number)} here={item.number === open}>
                    <BarFace bar={item} view={view} {...{ isBefore, isAfter }} here={item.number === open} />
                  </Liftable>
                </span>
              ))}
            </div>
          </div>
        );
      })}
    </section>
  );
}

function BarFace({
  bar,
  view,
  isBefore,
  isAfter,
  here,
}: {
  bar: Bar;
  view: ViewDesign;
  isBefore: boolean;
  isAfter: boolean;
  here: boolean;
}) {
  const mark = bar.mark === null ? undefined : view.marks[bar.mark];
  const isOver = bar.stage.phase === 'finished';
  const look = isOver
    ? 'bg-well text-soft'
    : bar.stage.role === 'deciding'
      ? 'border border-dashed border-brass-mark bg-sheet'
      : 'bg-green-wash';
  return (
    <span
      className={`flex min-h-6 items-center gap-1.5 overflow-hidden px-1.5 text-[12.5px] whitespace-nowrap ${look} ${isBefore ? '' : 'shadow-[inset_3px_0_var(--green)] pl-2.5'} ${here ? 'outline-2 outline-green' : ''}`}
      style={mark ? { background: `color-mix(in srgb, var(--mark-${mark.colour}) 22%, var(--sheet))` } : undefined}
    >
      {mark ? (
        <span className="flex-none">
          <ColourMark colour={mark.colour} />
        </span>
      ) : null}
      {isBefore || bar.begins.length <= 10 ? null : (
        <span className="text-soft tabular-nums">{bar.begins.slice(11, 16)}</span>
      )}
      <span className="truncate">{told(bar.subject) || bar.number}</span>
      {mark ? <span className="text-soft">{mark.word}</span> : null}
      {isAfter ? <span aria-hidden="true">›</span> : null}
    </span>
  );
}

/** A day of a line: what is lifted is put there. */
function Day({ id, called, column, way }: { id: string; called: string; column: number; way: WeekProps['way'] }) {
  const { setNodeRef, isOver } = useDroppable({ id, data: { called } });
  const lifted = useLifted();
  const now = lifted?.sheet && isOver ? way(lifted.sheet, id) : null;
  const look = now === 'open' ? 'bg-green-wash' : typeof now === 'object' && now !== null ? 'hatched' : '';
  return (
    <span
      ref={setNodeRef}
      className={`border-l border-rule ${look}`}
      style={{ gridColumn: column, gridRow: '1 / -1' }}
    />
  );
}
