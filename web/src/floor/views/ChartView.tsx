import type { AnswerOf } from '@tolvek/contract';
import type { Field } from '@tolvek/core/register';
import { type ChartShape, calledIn, canDate, conditionFor, measureSaid, VIEW_LOOKS_AT } from '@tolvek/core/view';
import {
  BarController,
  BarElement,
  CategoryScale,
  Chart,
  LinearScale,
  LineController,
  LineElement,
  PointElement,
  Tooltip,
} from 'chart.js';
import { useEffect, useRef } from 'react';
import { say, told } from '../../wire/words.ts';
import { paintsFor } from './paints.ts';

Chart.register(
  ...[BarController, BarElement, CategoryScale, LinearScale, LineController, LineElement, PointElement, Tooltip],
);

type Looked = Omit<AnswerOf<'lookAtChart'>, 'findings' | 'says'>;

interface ChartProps {
  readonly shape: ChartShape;
  readonly fields: readonly Field[];
  readonly looked: Looked;
  /** Shows the rows that meet conditions; left out where they can’t be shown. */
  readonly rowsOf?: (conditions: readonly string[]) => void;
}

/** A view as a chart, with its figures in a table below: each opens the rows behind it. */
export function ChartView({ shape, fields, looked, rowsOf }: ChartProps) {
  const isTime = canDate(shape.by, fields);
  const called = (label: Looked['steps'][number]['label'] | undefined): string =>
    told(label ?? '') || say('views:noValue');
  const stepSaid = ({ value, label }: Looked['steps'][number]): string =>
    isTime ? say(`views:stretch.${shape.each}`, { day: String(value) }) : called(label);
  const steps = looked.steps.map(stepSaid);
  const begins = looked.steps.map(({ value }) => say('views:stretch.day', { day: String(value) }));
  const parts = looked.parts.length > 0 ? looked.parts.map(({ label }) => called(label)) : [''];
  const at = (step: number, part: number) => looked.points.find((point) => point.step === step && point.part === part);
  const open = (step: number, part: number): void => {
    if (!rowsOf) return;
    const [one, other] = [looked.steps[step], looked.parts[part]];
    rowsOf([
      ...(one ? [conditionFor(shape.by, one.value, fields, shape.each)] : []),
      ...(other && shape.parts !== null ? [conditionFor(shape.parts, other.value, fields)] : []),
    ]);
  };
  const measure = told(measureSaid(shape.measure, fields));
  // Of no rows there is a number and a sum, and nothing else.
  const isAdded = shape.measure.is === 'count' || shape.measure.is === 'sum';
  if (looked.more) return <p className="py-6 text-soft">{say('views:tooManyForChart', { count: looked.total })}</p>;
  if (looked.steps.length === 0) return <p className="py-6 text-soft">{say('views:empty')}</p>;
  return (
    <>
      <Drawn
        {...{ shape, fields, looked, parts, isTime, open }}
        steps={shape.each === 'week' && isTime ? begins : steps}
      />
      <table className="mt-4 border-separate border-spacing-0 tabular-nums">
        <caption className="sr-only">{measure}</caption>
        <thead>
          <tr>
            <th
              scope="col"
              className="border-b border-rule-strong py-1 pr-6 text-left text-[12px] font-semibold text-soft"
            >
              {told(calledIn(shape.by, fields))}
            </th>
            {parts.map((part, place) => (
              <th
                // biome-ignore lint/suspicious/noArrayIndexKey: a part is known by its place
                key={place}
                scope="col"
                className="border-b border-rule-strong py-1 pl-6 text-right text-[12px] font-semibold text-soft"
              >
                {part || measure}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {steps.map((step, nth) => (
            <tr key={String(looked.steps[nth]?.value)}>
              <th scope="row" className="border-b border-rule py-1 pr-6 text-left font-normal">
                {step}
              </th>
              {parts.map((part, place) => {
                const point = at(nth, place);
                return (
                  // biome-ignore lint/suspicious/noArrayIndexKey: a part is known by its place
                  <td key={place} className="border-b border-rule py-1 pl-6 text-right">
                    {point && rowsOf ? (
                      <button
                        type="button"
                        className="min-h-6 text-green underline decoration-dotted underline-offset-3"
                        aria-label={say('views:rowsBehind', {
                          figure: told(point.said) || '–',
                          what: [step, part].filter(Boolean).join(', '),
                        })}
                        onClick={() => open(nth, place)}
                      >
                        {told(point.said) || '–'}
                      </button>
                    ) : (
                      <span className={point ? '' : 'text-soft'}>
                        {point ? told(point.said) || '–' : isAdded ? '0' : '–'}
                      </span>
                    )}
                  </td>
                );
              })}
            </tr>
          ))}
        </tbody>
      </table>
      <p className="mt-2 text-[13px] text-soft">
        {[
          ...(rowsOf ? [say('views:rowsBehindHint')] : []),
          ...(looked.without > 0
            ? [say('views:withoutDay', { count: looked.without, what: told(calledIn(shape.by, fields)) })]
            : []),
          ...(looked.isAll ? [] : [say('views:notAll', { count: VIEW_LOOKS_AT })]),
        ].join(' ')}
      </p>
    </>
  );
}

interface DrawnProps extends Omit<ChartProps, 'rowsOf' | 'looked'> {
  readonly looked: Pick<Looked, 'steps' | 'parts' | 'points'>;
  readonly steps: readonly string[];
  readonly parts: readonly string[];
  readonly isTime: boolean;
  readonly open: (step: number, part: number) => void;
}

/** What a line takes of a chart that lies, and its head and foot, px. */
const LINE = 30;
const AROUND = 44;

/** The picture alone: a table below says the same. */
export function Drawn({ shape, fields, looked, steps, parts, isTime, open }: DrawnProps) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const latest = useRef(open);
  latest.current = open;
  const lies = shape.as === 'bars' && !isTime;
  useEffect(() => {
    const drawn = canvas.current;
    if (!drawn) return undefined;
    const scheme = matchMedia('(prefers-color-scheme: dark)');
    let chart: Chart | null = null;
    const draw = (): void => {
      chart?.destroy();
      const style = getComputedStyle(drawn);
      const [ink, rule] = [style.color, style.borderTopColor];
      const paints = paintsFor(shape, fields, looked);
      // Custom properties are read through an element: the canvas knows none.
      const probe = drawn.parentElement?.appendChild(document.createElement('i'));
      const colour = (paint: string): string => {
        if (!probe) return ink;
        probe.style.color = `var(${paint})`;
        return getComputedStyle(probe).color;
      };
      const figures = parts.map((_, part) =>
        steps.map((_step, step) => looked.points.find((p) => p.step === step && p.part === part)?.figure ?? null),
      );
      chart = new Chart(drawn, {
        type: shape.as === 'bars' ? 'bar' : 'line',
        data: {
          labels: [...steps],
          datasets: parts.map((label, part) => {
            const own = paints.parts ? paints.parts[part] : undefined;
            const fill = own === undefined ? paints.steps.map(colour) : colour(own);
            const line = own === undefined ? colour(paints.steps[0] ?? '--green') : colour(own);
            return {
              ...{ label, data: figures[part] ?? [] },
              ...{ backgroundColor: shape.as === 'bars' ? fill : line, borderColor: line },
              ...{ borderWidth: shape.as === 'line' ? 2 : 0, pointRadius: steps.length > 60 ? 0 : 3 },
              ...{ maxBarThickness: 22, categoryPercentage: 0.9, barPercentage: 0.86 },
            };
          }),
        },
        options: {
          animation: false,
          maintainAspectRatio: false,
          indexAxis: lies ? 'y' : 'x',
          font: { family: style.fontFamily },
          plugins: { tooltip: { enabled: true, displayColors: parts.length > 1 } },
          scales: {
            [lies ? 'y' : 'x']: {
              stacked: shape.as === 'bars',
              grid: { display: false },
              ticks: { color: ink, font: { family: style.fontFamily, size: 12.5 }, autoSkip: !lies },
            },
            [lies ? 'x' : 'y']: {
              stacked: shape.as === 'bars',
              beginAtZero: true,
              grid: { color: rule },
              ticks: { color: ink, font: { family: style.fontFamily, size: 12 }, maxTicksLimit: 7 },
            },
          },
          onClick: (_event, [hit]) => hit && latest.current(hit.index, hit.datasetIndex),
        },
      });
      probe?.remove();
    };
    draw();
    scheme.addEventListener('change', draw);
    return () => {
      scheme.removeEventListener('change', draw);
      chart?.destroy();
    };
  }, [shape, fields, looked, steps, parts, lies]);
  const paints = paintsFor(shape, fields, looked);
  return (
    <figure aria-hidden="true" className="max-w-4xl">
      <div className="relative" style={{ height: lies ? steps.length * LINE + AROUND : 300 }}>
        <canvas ref={canvas} className="border-t-0 border-rule text-ink" />
      </div>
      {parts.length > 1 ? (
        <figcaption className="mt-1 flex flex-wrap gap-x-5 gap-y-1 text-[13px]">
          {parts.map((part, place) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: a part is known by its place
            <span key={place} className="flex items-center gap-1.5">
              <i className="inline-block size-3" style={{ background: `var(${paints.parts?.[place] ?? '--green'})` }} />
              {part}
            </span>
          ))}
        </figcaption>
      ) : null}
    </figure>
  );
}
