import { skipToken } from '@reduxjs/toolkit/query/react';
import { isSame } from '@tolvek/core/own';
import { narrowed, type ViewDesign, type ViewShape, viewScope } from '@tolvek/core/view';
import { lazy, Suspense, useDeferredValue, useMemo, useState } from 'react';
import { useLocation, useNavigate, useParams, useSearchParams } from 'react-router';
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
import { GiveSeveral } from '../GiveSeveral.tsx';
import { placedAt } from '../placedAt.ts';
import { useChosen } from '../useChosen.ts';
import { useLive } from '../useLive.ts';
import { Board } from './Board.tsx';
import { Calendar } from './Calendar.tsx';
import { daysOf, type Span } from './days.ts';
import { viewsApi } from './endpoints.ts';
import { Gallery } from './Gallery.tsx';
import { Matrix } from './Matrix.tsx';
import { News } from './News.tsx';
import { Part } from './Part.tsx';
import { Shapes } from './Shapes.tsx';
import { TakingOut } from './TakingOut.tsx';
import { Totals } from './Totals.tsx';
import { useLiveRows } from './useLiveRows.ts';
import { audienceSaid, ViewAudience } from './ViewAudience.tsx';
import { ViewColumns } from './ViewColumns.tsx';
import { ViewSentence } from './ViewSentence.tsx';
import { ViewTable } from './ViewTable.tsx';
import { newView, ofRegisters } from './viewDraft.ts';

const NEW = 'new';
// What draws is only fetched where something is drawn.
const ChartView = lazy(async () => ({ default: (await import('./ChartView.tsx')).ChartView }));

/** A view: the sentence it reads as, its rows in their groups, and the sheet of the one that is open. */
export function ViewPage() {
  const { id = NEW, number } = useParams();
  const { data: me } = meApi.useMeQuery();
  const { data: kept, error } = viewsApi.useViewQuery({ id }, { skip: id === NEW });
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
  // Where one comes from a figure, only the rows behind it are shown.
  const only: unknown = useLocation().state?.only;
  const [changed, setChanged] = useState<ViewDesign | null>(() =>
    kept ? (isConditions(only) ? asTable(narrowed(kept.view, only)) : null) : newView('', []),
  );
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
  const usual = isConditions(only) ? view.shapes.findIndex(({ is }) => is === 'table') : 0;
  const at = Math.min(Number(place.get('as') ?? usual) || 0, view.shapes.length - 1);
  const shape = looked.shapes[at] ?? looked.shapes[0] ?? TABLE;
  const span: Span = place.get('span') === 'month' ? 'month' : 'week';
  const day = dayIn(place.get('day')) ?? today;
  const days = daysOf(span, day);
  const isNothing = view.of.length === 0;
  const isRows = shape.is === 'table' || shape.is === 'gallery';
  const picture = shape.is === 'gallery' ? shape.picture : undefined;
  const through = useMemo(() => ({ view: asked, ...(picture === undefined ? {} : { picture }) }), [asked, picture]);
  const table = viewsApi.useLookThroughInfiniteQuery(through, { skip: isNothing || !isRows });
  const totals = viewsApi.useLookAtTotalsQuery(shape.is === 'totals' ? { body: { view: asked, shape } } : skipToken);
  const board = viewsApi.useLookAtBoardQuery(shape.is === 'board' ? { body: { view: asked, shape } } : skipToken);
  const calendar = viewsApi.useLookAtCalendarQuery(
    shape.is === 'calendar' && today !== ''
      ? { body: { view: asked, shape, first: days[0] ?? today, last: days.at(-1) ?? today } }
      : skipToken,
  );
  const chart = viewsApi.useLookAtChartQuery(shape.is === 'chart' ? { body: { view: asked, shape } } : skipToken);
  const matrix = viewsApi.useLookAtMatrixQuery(shape.is === 'matrix' ? { body: { view: asked, shape } } : skipToken);
  const looks = { table, gallery: table, board, calendar, chart, matrix, totals };
  const { error, refetch } = looks[shape.is];
  const to = (one: string): string => `/floor/views/${id}/${one}${place.size > 0 ? `?${place}` : ''}`;
  const scope = useMemo(() => {
    const { fields = [], closed = [], stages = [], forms = [], vocabularies = [], groups = [] } = nameable ?? {};
    const known = { stages, forms, vocabularies, groups: groups.map(({ key, name }) => ({ key, label: name })) };
    return viewScope(fields, known, closed);
  }, [nameable]);
  /** The rows behind what was pressed, in a table: nothing is saved by it. */
  const rowsOf = (conditions: readonly string[]): void => {
    const narrow = asTable(narrowed(view, conditions));
    setChanged(narrow);
    setPlace(placedAt({ as: String(narrow.shapes.findIndex(({ is }) => is === 'table')) }));
  };
  const look = async (of: readonly string[]): Promise<void> => {
    setChanged({ ...view, of });
    const { data: there } = await findNameable({ query: { of: of.join(',') } }, true);
    setChanged((before) => (before?.of === of && there ? ofRegisters(before, of, there.fields) : before));
  };
  const pages = isNothing ? NO_PAGES : (table.data?.pages ?? NO_PAGES);
  const { since, hear, forget, isAddingUp } = useLiveRows(through, pages);
  useLive(isRows && pages.length > 0 ? (numbers) => void hear(numbers) : null);
  const { chosen, choose, begin } = useChosen(JSON.stringify([asked.of, asked.when]));
  const rights = me?.person?.rights ?? [];
  const works = rights.some((right) => right.startsWith('assign:') || right.startsWith('move:'));
  const said = isRows ? pages[0] : looks[shape.is].data;
  const wrong = said?.findings.filter(({ at }) => at !== 'name' && at !== 'audience') ?? [];
  // Where a register is not there, nothing that the view names is: that is said once.
  const findings = wrong.some(({ at }) => at === 'of') ? wrong.filter(({ at }) => at === 'of') : wrong;
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
            scope={scope}
            at={at}
            choose={(chosen) => setPlace(placedAt({ as: chosen === 0 ? null : String(chosen) }))}
            set={setChanged}
          >
            {isRows ? (
              <News
                since={since}
                show={() => {
                  forget();
                  void table.refetch();
                }}
              />
            ) : null}
            {works && shape.is === 'table' ? (
              <button
                type="button"
                className="min-h-[24px] text-[13px] text-soft underline decoration-dotted underline-offset-[3px]"
                aria-pressed={chosen !== null}
                onClick={begin}
              >
                {say(chosen ? 'floor:chooseNoMore' : 'floor:chooseSome')}
              </button>
            ) : null}
            {nameable.exports ? <TakingOut view={view} only={[...(chosen?.keys() ?? [])]} /> : null}
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
          look={(as, on) => setPlace(placedAt({ span: as === 'week' ? null : as, day: on === today ? null : on }))}
        />
      ) : null}
      {nameable && shape.is === 'chart' && chart.currentData && findings.length === 0 ? (
        <Suspense>
          <div className="mt-2 min-h-0 flex-1 overflow-auto px-[22px] pb-6 contain-content">
            <ChartView shape={shape} fields={nameable.fields} looked={chart.currentData} rowsOf={rowsOf} />
          </div>
        </Suspense>
      ) : null}
      {nameable && shape.is === 'matrix' && matrix.currentData && findings.length === 0 ? (
        <Matrix shape={shape} fields={nameable.fields} looked={matrix.currentData} {...{ open, to, rowsOf }} />
      ) : null}
      {nameable && shape.is === 'totals' && totals.currentData && findings.length === 0 ? (
        <Totals shape={shape} fields={nameable.fields} looked={totals.currentData} rowsOf={rowsOf} />
      ) : null}
      {nameable && shape.is === 'gallery' && pages.length > 0 && findings.length === 0 ? (
        <Gallery
          view={looked}
          shape={shape}
          fields={nameable.fields}
          pages={pages}
          {...{ open, to }}
          more={table.hasNextPage ? () => void table.fetchNextPage() : null}
          isLoading={table.isFetching}
          isAddingUp={isAddingUp}
        />
      ) : null}
      {chosen && works && shape.is === 'table' ? (
        <GiveSeveral chosen={chosen} drop={(rows) => choose(rows, false)} />
      ) : null}
      {nameable && shape.is === 'table' && pages.length > 0 ? (
        <ViewTable
          chosen={works ? chosen : null}
          choose={choose}
          view={looked}
          fields={nameable.fields}
          pages={pages}
          away={since.away}
          open={open}
          to={to}
          more={table.hasNextPage ? () => void table.fetchNextPage() : null}
          isLoading={table.isFetching}
          isAddingUp={isAddingUp}
          set={setChanged}
        />
      ) : null}
    </>
  );
}

const NO_PAGES: readonly never[] = [];
const TABLE: ViewShape = { is: 'table' };

const dayIn = (text: string | null): string | null =>
  text !== null && /^\d{4}-\d\d-\d\d$/.test(text) && !Number.isNaN(Date.parse(text)) ? text : null;

const isConditions = (only: unknown): only is readonly string[] =>
  Array.isArray(only) && only.every((each) => typeof each === 'string');

/** A view that can be looked at as a table. */
const asTable = (view: ViewDesign): ViewDesign =>
  view.shapes.some(({ is }) => is === 'table') ? view : { ...view, shapes: [...view.shapes, TABLE] };

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
  const who = view.audience === null ? say('views:onlyMe') : audienceSaid(view.audience, called);
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
                audience={view.audience}
                names={called}
                called={(word, name) => setNames((before) => ({ ...before, [word]: name }))}
                set={(audience) => set({ ...view, audience })}
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
