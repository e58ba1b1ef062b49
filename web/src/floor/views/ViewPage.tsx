import { skipToken } from '@reduxjs/toolkit/query/react';
import { isSame } from '@tolvek/core/own';
import { type ViewDesign, type ViewShape, viewScope } from '@tolvek/core/view';
import { lazy, Suspense, useDeferredValue, useMemo, useState } from 'react';
import { useNavigate, useParams, useSearchParams } from 'react-router';
import { toast } from 'sonner';
import { Button } from '../../ui/Button.tsx';
import { ProblemsAt } from '../../ui/ProblemsAt.tsx';
import { ToSignIn } from '../../ui/ToSignIn.tsx';
import { Trouble } from '../../ui/Trouble.tsx';
import { useTitle } from '../../ui/useTitle.ts';
import { meApi } from '../../wire/me.ts';
import { problemOf, refusalInWords } from '../../wire/problem.ts';
import { say, told } from '../../wire/words.ts';
import { BesideTrays } from '../BesideTrays.tsx';
import { useLive } from '../useLive.ts';
import { Board } from './Board.tsx';
import { Calendar } from './Calendar.tsx';
import { daysOf, type Span } from './days.ts';
import { viewsApi } from './endpoints.ts';
import { Matrix } from './Matrix.tsx';
import { Part } from './Part.tsx';
import { Shapes } from './Shapes.tsx';
import { TakingOut } from './TakingOut.tsx';
import { ViewAudience } from './ViewAudience.tsx';
import { ViewColumns } from './ViewColumns.tsx';
import { ViewSentence } from './ViewSentence.tsx';
import { ViewTable } from './ViewTable.tsx';
import { narrowed, newView, ofRegisters } from './viewDraft.ts';

const NEW = 'new';
// What draws is only fetched where something is drawn.
const ChartView = lazy(async () => ({ default: (await import('./ChartView.tsx')).ChartView }));

/** A view: the sentence it reads as, its rows in their groups, and the sheet of the one that is open. */
export function ViewPage() {
  const { id = NEW, number } = useParams();
  const { data: me } = meApi.useMeQuery();
  const { data: kept, error } = viewsApi.useViewQuery({ id }, { skip: id === NEW });
  useLive();
  if (me && !me.person) return <ToSignIn />;
  return (
    <BesideTrays number={number} back={`/floor/views/${id}`}>
      {error ? (
        <div className="px-[22px]">
          <Trouble error={error} />
        </div>
      ) : id === NEW || kept ? (
        <View key={id} id={id} kept={id === NEW ? null : (kept ?? null)} open={number} />
      ) : null}
    </BesideTrays>
  );
}

interface ViewProps {
  readonly id: string;
  readonly kept: Kept | null;
  readonly open: string | undefined;
}
type Kept = NonNullable<ReturnType<typeof viewsApi.useViewQuery>['data']>;

function View({ id, kept, open }: ViewProps) {
  // What is changed is only seen by whoever changes it until it is saved.
  const [changed, setChanged] = useState<ViewDesign | null>(kept ? null : newView('', []));
  const view = changed ?? (kept?.view as ViewDesign);
  useTitle(view.name || say('views:untitled'));
  const { data: nameable } = viewsApi.useNameableQuery({ query: { of: view.of.join(',') } });
  const [findNameable] = viewsApi.useLazyNameableQuery();
  const { data: all } = viewsApi.useViewsQuery();
  const looked = useDeferredValue(view);
  // The name and who finds it change nothing of what is seen.
  const asked = useMemo(() => ({ ...looked, name: '', audience: null }), [looked]);
  const { data: me } = meApi.useMeQuery();
  const [place, setPlace] = useSearchParams();
  const today = (me?.desk.now ?? '').slice(0, 10);
  const at = Math.min(Number(place.get('as') ?? 0) || 0, view.shapes.length - 1);
  const shape = looked.shapes[at] ?? looked.shapes[0] ?? TABLE;
  const span: Span = place.get('span') === 'month' ? 'month' : 'week';
  const day = dayIn(place.get('day')) ?? today;
  const days = daysOf(span, day);
  const isNothing = view.of.length === 0;
  const table = viewsApi.useLookThroughInfiniteQuery(asked, { skip: isNothing || shape.is !== 'table' });
  const board = viewsApi.useLookAtBoardQuery(shape.is === 'board' ? { body: { view: asked, shape } } : skipToken);
  const calendar = viewsApi.useLookAtCalendarQuery(
    shape.is === 'calendar' && today !== ''
      ? { body: { view: asked, shape, first: days[0] ?? today, last: days.at(-1) ?? today } }
      : skipToken,
  );
  const chart = viewsApi.useLookAtChartQuery(shape.is === 'chart' ? { body: { view: asked, shape } } : skipToken);
  const matrix = viewsApi.useLookAtMatrixQuery(shape.is === 'matrix' ? { body: { view: asked, shape } } : skipToken);
  const looks = { table, board, calendar, chart, matrix };
  const { error, refetch } = looks[shape.is];
  const to = (one: string): string => `/floor/views/${id}/${one}${place.size > 0 ? `?${place}` : ''}`;
  const scope = useMemo(() => {
    const { fields = [], closed = [], stages = [], forms = [], vocabularies = [], groups = [] } = nameable ?? {};
    const known = { stages, forms, vocabularies, groups: groups.map(({ key, name }) => ({ key, label: name })) };
    return viewScope(fields, known, closed);
  }, [nameable]);
  /** The rows behind what was pressed, in a table: nothing is saved by it. */
  const rowsOf = (conditions: readonly string[]): void => {
    const only = narrowed(view, conditions);
    const as = only.shapes.findIndex(({ is }) => is === 'table');
    setChanged(as === -1 ? { ...only, shapes: [...only.shapes, TABLE] } : only);
    setPlace((before) => placedAt(before, { as: String(as === -1 ? only.shapes.length : as) }));
  };
  const look = async (of: readonly string[]): Promise<void> => {
    setChanged({ ...view, of });
    const { data: there } = await findNameable({ query: { of: of.join(',') } }, true);
    setChanged((before) => (before?.of === of && there ? ofRegisters(before, of, there.fields) : before));
  };
  const pages = isNothing ? [] : (table.data?.pages ?? []);
  const said = shape.is === 'table' ? pages[0] : looks[shape.is].data;
  const findings = said?.findings.filter(({ at }) => at !== 'name' && at !== 'audience') ?? [];
  return (
    <>
      <Head id={id} kept={kept} view={view} changed={changed} set={setChanged} />
      <div className="px-[22px]">
        {nameable && all ? (
          <ViewSentence
            view={view}
            says={said?.says ?? []}
            nameable={nameable}
            registers={all.registers}
            scope={scope}
            set={setChanged}
            look={(of) => void look(of)}
          />
        ) : null}
        {nameable && view.of.length > 0 ? (
          <Shapes
            view={view}
            nameable={nameable}
            at={at}
            choose={(chosen) => setPlace((before) => placedAt(before, { as: chosen === 0 ? null : String(chosen) }))}
            set={setChanged}
          >
            {nameable.exports ? <TakingOut view={view} /> : null}
            <Part words={say('views:columns')} label={say('views:columns')} isFaint>
              <ViewColumns view={view} fields={nameable.fields} set={setChanged} />
            </Part>
          </Shapes>
        ) : null}
        {findings.map(({ at, message }) => (
          <p key={`${at} ${told(message)}`} className="text-brick">
            {told(message)}
          </p>
        ))}
        {error && view.of.length > 0 ? <Trouble error={error} again={refetch} /> : null}
        {view.of.length === 0 ? <p className="mt-4 text-soft">{say('views:chooseFirst')}</p> : null}
      </div>
      {nameable && shape.is === 'board' && board.currentData && findings.length === 0 ? (
        <Board view={looked} shape={shape} fields={nameable.fields} looked={board.currentData} open={open} to={to} />
      ) : null}
      {nameable && shape.is === 'calendar' && findings.length === 0 ? (
        <Calendar
          view={looked}
          shape={shape}
          fields={nameable.fields}
          looked={calendar.data}
          {...{ span, day, today, open, to }}
          look={(as, on) =>
            setPlace((before) => placedAt(before, { span: as === 'week' ? null : as, day: on === today ? null : on }))
          }
        />
      ) : null}
      {nameable && shape.is === 'chart' && chart.currentData && findings.length === 0 ? (
        <Suspense>
          <ChartView shape={shape} fields={nameable.fields} looked={chart.currentData} rowsOf={rowsOf} />
        </Suspense>
      ) : null}
      {nameable && shape.is === 'matrix' && matrix.currentData && findings.length === 0 ? (
        <Matrix shape={shape} fields={nameable.fields} looked={matrix.currentData} {...{ open, to, rowsOf }} />
      ) : null}
      {nameable && shape.is === 'table' && pages.length > 0 ? (
        <ViewTable
          view={looked}
          fields={nameable.fields}
          pages={pages}
          open={open}
          to={to}
          more={table.hasNextPage ? () => void table.fetchNextPage() : null}
          isLoading={table.isFetching}
          set={setChanged}
        />
      ) : null}
    </>
  );
}

const TABLE: ViewShape = { is: 'table' };

const dayIn = (text: string | null): string | null =>
  text !== null && /^\d{4}-\d\d-\d\d$/.test(text) && !Number.isNaN(Date.parse(text)) ? text : null;

/** Where one is in a view, as its address says it: what is null is not said. */
function placedAt(before: URLSearchParams, changes: Readonly<Record<string, string | null>>): URLSearchParams {
  const after = new URLSearchParams(before);
  for (const [name, value] of Object.entries(changes)) {
    if (value === null) after.delete(name);
    else after.set(name, value);
  }
  return after;
}

interface HeadProps {
  readonly id: string;
  readonly kept: Kept | null;
  readonly view: ViewDesign;
  readonly changed: ViewDesign | null;
  readonly set: (view: ViewDesign | null) => void;
}

/** What a view is called, who finds it, and what is done with it. */
function Head({ id, kept, view, changed, set }: HeadProps) {
  const navigate = useNavigate();
  const [make, making] = viewsApi.useMakeViewMutation();
  const [change, changing] = viewsApi.useChangeViewMutation();
  const [remove] = viewsApi.useRemoveViewMutation();
  const [names, setNames] = useState<Readonly<Record<string, string>>>({});
  const error = making.error ?? changing.error;
  const isChanged = changed !== null && !isSame(changed, kept?.view);
  const mayChange = kept === null || kept.changes;
  const save = async (asOwn: boolean): Promise<void> => {
    const isNew = kept === null || asOwn;
    const done = isNew
      ? await make({ once: crypto.randomUUID(), body: { view: asOwn ? { ...view, audience: null } : view } })
      : await change({ id, version: kept.version, body: { view } });
    if ('error' in done) return;
    toast(say('views:saved'));
    if (isNew && done.data && 'id' in done.data) navigate(`/floor/views/${done.data.id}`);
    else set(null);
  };
  const takeAway = async (): Promise<void> => {
    const done = await remove({ id, body: { removed: true } });
    if ('error' in done) {
      toast.error(refusalInWords(problemOf(done.error)));
      return;
    }
    navigate('/floor');
    toast(say('views:removed', { name: view.name }), {
      action: { label: say('views:putBack'), onClick: () => void remove({ id, body: { removed: false } }) },
    });
  };
  const called = { ...kept?.names, ...names };
  const who =
    view.audience === null
      ? say('views:onlyMe')
      : 'everyone' in view.audience.in
        ? say('views:everyone')
        : say('views:foundBy', { who: wordsCalled(view, called) });
  return (
    <div className="px-[22px]">
      <div className="flex min-h-9 flex-wrap items-baseline gap-x-5 gap-y-2">
        <h1 className="min-w-0 flex-1">
          <input
            aria-label={say('views:name')}
            placeholder={kept === null ? say('views:nameHint') : ''}
            className="w-full border-b border-transparent bg-transparent hover:border-rule-strong focus:border-green"
            maxLength={120}
            readOnly={!mayChange}
            value={view.name}
            onChange={({ target }) => set({ ...view, name: target.value })}
          />
        </h1>
        {kept === null || isChanged ? (
          <span className="flex flex-wrap items-baseline gap-3">
            <span className="text-[13px] text-soft">{say('views:unsaved')}</span>
            {mayChange ? (
              <Button look="main" disabled={making.isLoading || changing.isLoading} onClick={() => void save(false)}>
                {say('views:save')}
              </Button>
            ) : null}
            {kept !== null ? <Button onClick={() => void save(true)}>{say('views:saveOwn')}</Button> : null}
            {kept !== null ? (
              <button type="button" className="text-[13px] text-green underline" onClick={() => set(null)}>
                {say('views:undo')}
              </button>
            ) : null}
          </span>
        ) : mayChange ? (
          <button type="button" className="text-[13px] text-green underline" onClick={() => void takeAway()}>
            {say('views:remove')}
          </button>
        ) : null}
        <span className="text-[13px]">
          {mayChange ? (
            <Part words={who} label={say('views:audience')} isFaint>
              <ViewAudience
                view={view}
                names={called}
                called={(word, name) => setNames((before) => ({ ...before, [word]: name }))}
                set={set}
              />
            </Part>
          ) : (
            <span className="text-soft">{say('views:by', { name: kept?.by ?? '' })}</span>
          )}
        </span>
      </div>
      <ProblemsAt error={error} field="name" />
      <ProblemsAt error={error} field="of" />
      <ProblemsAt error={error} field="audience" />
      <ProblemsAt error={error} field="columns" />
    </div>
  );
}

const wordsCalled = ({ audience }: ViewDesign, called: Readonly<Record<string, string>>): readonly string[] =>
  audience && 'anyOf' in audience.in ? audience.in.anyOf.map((word) => called[word] ?? word) : [];
