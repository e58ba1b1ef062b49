import type { ReportFigure, ReportPart } from '@tolvek/core/report';
import { MOST_OF_REPORT, TIMES_SHOWN } from '@tolvek/core/report';
import { SERVED_BY } from '@tolvek/core/service';
import { MEASURES, type MeasureKind, measureSaid, shapeSaid } from '@tolvek/core/view';
import { type ReactNode, useId } from 'react';
import { say, told } from '../../wire/words.ts';
import { viewsApi } from '../views/endpoints.ts';
import { SubjectChoice } from '../views/SubjectChoice.tsx';
import { subjectsFor } from '../views/viewDraft.ts';
import { putAt } from './reportDraft.ts';

interface EditorProps {
  readonly part: ReportPart;
  readonly set: (part: ReportPart) => void;
}

/** What a part of a report is, to be changed. */
export function PartEditor({ part, set }: EditorProps) {
  return (
    <div className="mb-3 flex flex-wrap items-end gap-x-4 gap-y-3">
      <Labelled label={say('reports:partTitle')}>
        {(id) => (
          <input
            id={id}
            className="input w-80"
            maxLength={200}
            value={part.title}
            onChange={({ target }) => set({ ...part, title: target.value })}
          />
        )}
      </Labelled>
      <Besides part={part} set={set} />
    </div>
  );
}

function Besides({ part, set }: EditorProps) {
  switch (part.is) {
    case 'words':
      return (
        <Labelled label={say('reports:partText')} isWide>
          {(id) => (
            <textarea
              id={id}
              className="input min-h-28 w-full max-w-[68ch]"
              maxLength={8_000}
              value={part.text}
              onChange={({ target }) => set({ ...part, text: target.value })}
            />
          )}
        </Labelled>
      );
    case 'view':
      return <OfView part={part} set={set} />;
    case 'figures':
      return <Figures part={part} set={set} />;
    case 'times':
      return <Times part={part} set={set} />;
  }
}

function Labelled({
  label,
  isWide = false,
  children,
}: {
  label: string;
  isWide?: boolean;
  children: (id: string) => ReactNode;
}) {
  const id = useId();
  return (
    <span className={`flex flex-col gap-1 ${isWide ? 'w-full' : ''}`}>
      <label htmlFor={id} className="text-[13px] text-soft">
        {label}
      </label>
      {children(id)}
    </span>
  );
}

/** What a view can be asked for. */
function useViewNamed(id: string) {
  const { data: kept } = viewsApi.useViewQuery({ id }, { skip: id === '' });
  const { data } = viewsApi.useNameableQuery({ query: { of: kept?.view.of.join(',') ?? '' } }, { skip: !kept });
  return { view: kept?.view, fields: data?.fields ?? [], closed: data?.closed ?? [] };
}

interface OfViewProps<T> {
  readonly of: T;
  readonly set: (of: T) => void;
}

/** The view that is shown, and by which days. */
function ViewChoice<T extends { readonly view: string; readonly by: string | null }>({ of, set }: OfViewProps<T>) {
  const { data } = viewsApi.useViewsQuery();
  const { fields, closed } = useViewNamed(of.view);
  return (
    <>
      <Labelled label={say('reports:partView')}>
        {(id) => (
          <select
            id={id}
            className="input"
            value={of.view}
            onChange={({ target }) => set({ ...of, view: target.value, by: null })}
          >
            {(data?.views ?? []).map((view) => (
              <option key={view.id} value={view.id}>
                {view.name}
              </option>
            ))}
          </select>
        )}
      </Labelled>
      <Labelled label={say('reports:partBy')}>
        {(id) => (
          <SubjectChoice
            id={id}
            value={of.by ?? ''}
            among={subjectsFor('dates', fields, closed)}
            fields={fields}
            none={say('reports:byNothing')}
            choose={(subject) => set({ ...of, by: subject === '' ? null : subject })}
          />
        )}
      </Labelled>
    </>
  );
}

function OfView({ part, set }: { part: Extract<ReportPart, { is: 'view' }>; set: EditorProps['set'] }) {
  const { view, fields } = useViewNamed(part.view);
  const charts = (view?.shapes ?? []).filter((shape) => shape.is === 'chart');
  const at = charts.findIndex((shape) => JSON.stringify(shape) === JSON.stringify(part.shape));
  const isOther = part.shape.is === 'chart' && at === -1;
  return (
    <>
      <ViewChoice of={part} set={(of) => set(of.view === part.view ? of : { ...of, shape: { is: 'table' } })} />
      <Labelled label={say('reports:partShape')}>
        {(id) => (
          <select
            id={id}
            className="input"
            value={part.shape.is === 'table' ? 'table' : String(at)}
            onChange={({ target }) => set({ ...part, shape: charts[Number(target.value)] ?? { is: 'table' } })}
          >
            <option value="table">{say('views:shape.table')}</option>
            {isOther ? <option value="-1">{told(shapeSaid(part.shape, fields))}</option> : null}
            {charts.map((shape, nth) => (
              <option key={JSON.stringify(shape)} value={String(nth)}>
                {told(shapeSaid(shape, fields))}
              </option>
            ))}
          </select>
        )}
      </Labelled>
      {part.shape.is === 'table' ? (
        <Labelled label={say('reports:partRows')}>
          {(id) => (
            <input
              id={id}
              type="number"
              className="input w-24"
              min={1}
              max={MOST_OF_REPORT.rows}
              value={part.rows}
              onChange={({ target }) =>
                set({
                  ...part,
                  rows: Math.min(MOST_OF_REPORT.rows, Math.max(1, Math.round(target.valueAsNumber || 1))),
                })
              }
            />
          )}
        </Labelled>
      ) : null}
    </>
  );
}

function Figures({ part, set }: { part: Extract<ReportPart, { is: 'figures' }>; set: EditorProps['set'] }) {
  const { data } = viewsApi.useViewsQuery();
  const put = (at: number, figure: ReportFigure | null): void =>
    set({ ...part, figures: putAt(part.figures, at, figure) });
  const first = part.figures.at(-1)?.view ?? data?.views[0]?.id;
  return (
    <div className="w-full">
      {part.figures.map((figure, at) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: a figure is known by its place
        <div key={at} className="mb-3 flex flex-wrap items-end gap-x-4 gap-y-2 border-l border-rule-strong pl-3">
          <Labelled label={say('reports:figureLabel')}>
            {(id) => (
              <input
                id={id}
                className="input w-52"
                maxLength={200}
                value={figure.label}
                onChange={({ target }) => put(at, { ...figure, label: target.value })}
              />
            )}
          </Labelled>
          <ViewChoice
            of={figure}
            set={(of) => put(at, of.view === figure.view ? of : { ...of, measure: { is: 'count', of: null } })}
          />
          <MeasureChoice figure={figure} set={(one) => put(at, one)} />
          <button
            type="button"
            className="size-[24px] flex-none text-soft hover:text-brick"
            aria-label={say('reports:removeFigure', { label: figure.label })}
            onClick={() => put(at, null)}
          >
            ×
          </button>
        </div>
      ))}
      {part.figures.length < MOST_OF_REPORT.figures && first !== undefined ? (
        <button
          type="button"
          className="min-h-[24px] text-green underline"
          onClick={() =>
            put(part.figures.length, { view: first, by: null, label: '', measure: { is: 'count', of: null } })
          }
        >
          {say('reports:addFigure')}
        </button>
      ) : null}
    </div>
  );
}

/** What is measured: how many there are, or something of a field that holds figures. */
function MeasureChoice({ figure, set }: { figure: ReportFigure; set: (figure: ReportFigure) => void }) {
  const { fields } = useViewNamed(figure.view);
  const all = [
    { is: 'count' as MeasureKind, of: null },
    ...subjectsFor('sums', fields).flatMap((of) => MEASURES.filter((is) => is !== 'count').map((is) => ({ is, of }))),
  ];
  return (
    <Labelled label={say('reports:figureMeasure')}>
      {(id) => (
        <select
          id={id}
          className="input"
          value={`${figure.measure.is} ${figure.measure.of ?? ''}`}
          onChange={({ target }) => {
            const measure = all.find((each) => `${each.is} ${each.of ?? ''}` === target.value);
            if (measure) set({ ...figure, measure });
          }}
        >
          {all.map((measure) => (
            <option key={`${measure.is} ${measure.of ?? ''}`} value={`${measure.is} ${measure.of ?? ''}`}>
              {told(measureSaid(measure, fields))}
            </option>
          ))}
        </select>
      )}
    </Labelled>
  );
}

function Times({ part, set }: { part: Extract<ReportPart, { is: 'times' }>; set: EditorProps['set'] }) {
  const { data } = viewsApi.useViewsQuery();
  return (
    <>
      <Labelled label={say('reports:partOf')}>
        {(id) => (
          <select
            id={id}
            className="input"
            value={part.of}
            onChange={({ target }) => set({ ...part, of: target.value })}
          >
            <option value="">{say('service:all')}</option>
            {(data?.registers ?? []).map(({ key, name }) => (
              <option key={key} value={key}>
                {name}
              </option>
            ))}
          </select>
        )}
      </Labelled>
      <Labelled label={say('reports:partLines')}>
        {(id) => (
          <select
            id={id}
            className="input"
            value={part.by}
            onChange={({ target }) => set({ ...part, by: SERVED_BY.find((each) => each === target.value) ?? 'form' })}
          >
            {SERVED_BY.map((each) => (
              <option key={each} value={each}>
                {say(`service:by.${each}`)}
              </option>
            ))}
          </select>
        )}
      </Labelled>
      <Labelled label={say('reports:partShown')}>
        {(id) => (
          <select
            id={id}
            className="input"
            value={part.shown}
            onChange={({ target }) =>
              set({ ...part, shown: TIMES_SHOWN.find((each) => each === target.value) ?? 'lines' })
            }
          >
            {TIMES_SHOWN.map((each) => (
              <option key={each} value={each}>
                {say(`reports:shown.${each}`)}
              </option>
            ))}
          </select>
        )}
      </Labelled>
    </>
  );
}
