import type { AnswerOf } from '@tolvek/contract';
import { isSame } from '@tolvek/core/own';
import {
  type Days,
  dayAfter,
  MOST_OF_REPORT,
  REPORTS_OVER,
  type ReportDesign,
  type ReportPart,
  stretchBeside,
  stretchOf,
} from '@tolvek/core/report';
import { conditionBetween } from '@tolvek/core/view';
import { useState } from 'react';
import { Link, useLocation, useNavigate, useParams, useSearchParams } from 'react-router';
import { toast } from 'sonner';
import { Button } from '../../ui/Button.tsx';
import { ProblemsAt } from '../../ui/ProblemsAt.tsx';
import { Trouble } from '../../ui/Trouble.tsx';
import { meApi } from '../../wire/me.ts';
import { problemOf, refusalInWords } from '../../wire/problem.ts';
import { say, told } from '../../wire/words.ts';
import { FloorFrame } from '../FloorFrame.tsx';
import { placedAt } from '../placedAt.ts';
import { viewsApi } from '../views/endpoints.ts';
import { Part } from '../views/Part.tsx';
import { audienceSaid, ViewAudience } from '../views/ViewAudience.tsx';
import { daysSaid } from './daysSaid.ts';
import { reportsApi } from './endpoints.ts';
import { PartEditor } from './PartEditor.tsx';
import { ReportPartTold, type ToldPart } from './ReportParts.tsx';
import { ReportSends } from './ReportSends.tsx';
import { movedPart, newPart, newReport, putAt } from './reportDraft.ts';
import { useSettled } from './useSettled.ts';

const NEW = 'new';
const KINDS = ['words', 'view', 'figures', 'times'] as const;
type Kept = AnswerOf<'report'>;

/** A report: what it tells of some days, how it is made, and its frozen copies. */
export function ReportPage() {
  const { id = NEW } = useParams();
  const { data: kept, error, refetch } = reportsApi.useReportQuery({ id }, { skip: id === NEW });
  const title = id === NEW ? say('reports:untitled') : (kept?.report.name ?? '');
  return (
    <FloorFrame title={title} error={error} again={refetch}>
      {id === NEW || kept ? <Report key={id} id={id} kept={id === NEW ? null : (kept ?? null)} /> : null}
    </FloorFrame>
  );
}

function Report({ id, kept }: { id: string; kept: Kept | null }) {
  const navigate = useNavigate();
  const [changed, setChanged] = useState<ReportDesign | null>(kept ? null : newReport());
  const [isEditing, setEditing] = useState(kept === null);
  const report = changed ?? (kept?.report as ReportDesign);
  const { data: me } = meApi.useMeQuery();
  const { data: views } = viewsApi.useViewsQuery();
  const [place, setPlace] = useSearchParams();
  const today = (me?.desk.now ?? '').slice(0, 10);
  const usual = today === '' ? { from: '', to: '' } : stretchOf(report.over, today);
  const days = { from: place.get('from') ?? usual.from, to: place.get('to') ?? usual.to };
  const isReady = days.from !== '' && days.to !== '' && days.from <= days.to;
  const asked = useSettled(report);
  const { currentData, data, error } = reportsApi.useLookAtReportQuery(
    { body: { report: { ...asked, name: '', audience: null, sends: [] }, ...days } },
    { skip: !isReady || asked.parts.length === 0, refetchOnMountOrArgChange: true },
  );
  const parts = (currentData ?? data)?.parts ?? [];
  const findings = (currentData ?? data)?.findings ?? [];
  const go = (to: Days): void => setPlace(placedAt({ ...to }));
  const put = (at: number, part: ReportPart | null): void =>
    setChanged({ ...report, parts: putAt(report.parts, at, part) });
  const mayChange = kept === null || kept.changes;
  const view = views?.views[0]?.id ?? '';
  return (
    <>
      <Head {...{ id, kept, report, changed, isEditing }} set={setChanged} />
      <div className="mt-4 flex flex-wrap items-end gap-x-4 gap-y-3 print:hidden">
        <span className="flex items-end gap-1">
          {(['before', 'after'] as const).map((way) => (
            <Button
              key={way}
              disabled={!isReady}
              onClick={() => go(stretchBeside(report.over, way === 'before' ? days.from : days.to, way))}
            >
              {say(`reports:${way}`)}
            </Button>
          ))}
        </span>
        {(['from', 'to'] as const).map((end) => (
          <label key={end} className="flex flex-col gap-1 text-[13px] text-soft">
            {say(`reports:${end}`)}
            <input
              type="date"
              className="input w-38"
              value={days[end]}
              min={end === 'to' ? days.from : undefined}
              max={end === 'from' ? days.to : undefined}
              onChange={({ target }) => (target.value === '' ? undefined : go({ ...days, [end]: target.value }))}
            />
          </label>
        ))}
        <span className="ml-auto flex flex-wrap items-center gap-4">
          {mayChange ? (
            <button
              type="button"
              className="min-h-[24px] text-green underline"
              aria-pressed={isEditing}
              onClick={() => setEditing(!isEditing)}
            >
              {say(isEditing ? 'reports:changed' : 'reports:change')}
            </button>
          ) : null}
          <button type="button" className="min-h-[24px] text-green underline" onClick={() => print()}>
            {say('reports:print')}
          </button>
        </span>
      </div>
      <div className="mt-6 flex flex-wrap gap-x-12 gap-y-8">
        <div className="min-w-0 flex-1 basis-[560px]">
          {isReady ? (
            <h2 className="text-[22px] first-letter:uppercase">{daysSaid({ over: report.over, ...days })}</h2>
          ) : null}
          {error ? <Trouble error={error} /> : null}
          {report.parts.length === 0 ? <p className="mt-3 text-soft">{say('reports:beginHere')}</p> : null}
          {report.parts.map((part, at) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: a part is known by its place
            <section key={at} className="mt-7 break-inside-avoid">
              {part.title === '' ? null : <h3 className="mb-2 text-[18px]">{part.title}</h3>}
              {isEditing ? (
                <Edited
                  {...{ part, at }}
                  last={at === report.parts.length - 1}
                  put={(next) => put(at, next)}
                  move={(by) => setChanged(movedPart(report, at, by))}
                />
              ) : null}
              {findings
                .filter((finding) => finding.at === `parts ${at}`)
                .map(({ message }, nth) => (
                  // biome-ignore lint/suspicious/noArrayIndexKey: a message is known by its place
                  <p key={nth} role="alert" className="mb-2 text-brick">
                    {told(message)}
                  </p>
                ))}
              {parts[at] && sameKind(parts[at], part) ? (
                <ReportPartTold
                  part={parts[at]}
                  rowsOf={rowsOf(parts[at], part, days, (key, only) =>
                    navigate(`/floor/views/${key}`, { state: { only } }),
                  )}
                  toTimes={part.is === 'times' ? timesAt(part, days) : null}
                />
              ) : null}
            </section>
          ))}
          {isEditing && report.parts.length < MOST_OF_REPORT.parts ? (
            <p className="mt-8 flex flex-wrap items-center gap-2 border-t border-rule pt-4 print:hidden">
              <span className="text-soft">{say('reports:addPart')}</span>
              {KINDS.filter((is) => view !== '' || is === 'words' || is === 'times').map((is) => (
                <Button key={is} onClick={() => setChanged({ ...report, parts: [...report.parts, newPart(is, view)] })}>
                  {say(`reports:part.${is}`)}
                </Button>
              ))}
            </p>
          ) : null}
        </div>
        {kept === null ? null : <Copies kept={kept} days={days} isReady={isReady && changed === null} />}
      </div>
    </>
  );
}

/** Whether what was told is of what a part is by now: while it is read anew, it may be of what stood there before. */
const sameKind = (told: ToldPart, part: ReportPart): boolean =>
  told.is === 'missing' || (part.is === 'view' ? told.is === part.shape.is : told.is === part.is);

/** Shows the rows behind a chart in its view: of these days alone, where it is parted by them. */
function rowsOf(
  told: ToldPart,
  part: ReportPart,
  { from, to }: Days,
  show: (view: string, only: readonly string[]) => void,
) {
  if (told.is !== 'chart' || part.is !== 'view') return null;
  const { by } = part;
  const within = by === null ? [] : [conditionBetween(by, from, dayAfter(to), told.fields)];
  return (conditions: readonly string[]): void => show(told.view.key, [...within, ...conditions]);
}

const timesAt = ({ of, by }: Extract<ReportPart, { is: 'times' }>, { from, to }: Days): string =>
  `/floor/times?${new URLSearchParams({ from, to, by, ...(of === '' ? {} : { of }) })}`;

interface EditedProps {
  readonly part: ReportPart;
  readonly at: number;
  readonly last: boolean;
  readonly put: (part: ReportPart | null) => void;
  readonly move: (by: 1 | -1) => void;
}

/** A part that is changed, with where it stands. */
function Edited({ part, at, last, put, move }: EditedProps) {
  const named = part.title || say('reports:noPart');
  const look = 'size-[24px] flex-none text-soft hover:text-ink disabled:opacity-40';
  return (
    <div className="mb-4 border-l-[3px] border-rule-strong bg-sheet px-4 py-3 print:hidden">
      <p className="mb-2 flex items-center gap-2">
        <span className="text-[13px] font-semibold text-soft first-letter:uppercase">
          {say(`reports:part.${part.is}`)}
        </span>
        <span className="ml-auto flex gap-1">
          <button
            type="button"
            className={look}
            disabled={at === 0}
            aria-label={say('reports:up', { part: named })}
            onClick={() => move(-1)}
          >
            ↑
          </button>
          <button
            type="button"
            className={look}
            disabled={last}
            aria-label={say('reports:down', { part: named })}
            onClick={() => move(1)}
          >
            ↓
          </button>
          <button
            type="button"
            className={look}
            aria-label={say('reports:removePart', { part: named })}
            onClick={() => put(null)}
          >
            ×
          </button>
        </span>
      </p>
      <PartEditor part={part} set={put} />
    </div>
  );
}

/** The frozen copies of a report, and how one is made. */
function Copies({ kept, days, isReady }: { kept: Kept; days: Days; isReady: boolean }) {
  const [freeze, freezing] = reportsApi.useFreezeReportMutation();
  const keep = async (): Promise<void> => {
    const done = await freeze({ id: kept.id, once: crypto.randomUUID(), body: days });
    if ('error' in done) toast.error(refusalInWords(problemOf(done.error)));
    else toast(say('reports:frozen'));
  };
  return (
    <aside aria-labelledby="copies-head" className="w-64 flex-none print:hidden">
      <h2 id="copies-head" className="text-[17px]">
        {say('reports:copies')}
      </h2>
      {kept.copies.length === 0 ? <p className="mt-1 text-soft">{say('reports:noCopies')}</p> : null}
      <ul className="mt-1">
        {kept.copies.map((copy) => (
          <li key={copy.id} className="border-b border-rule py-2 text-[14px]">
            <Link to={`/floor/reports/${kept.id}/copies/${copy.id}`}>
              {say('reports:copyOf', {
                days: daysSaid({ over: kept.report.over, from: copy.from, to: copy.to }),
                at: Date.parse(copy.frozenAt),
                name: copy.by,
              })}
            </Link>
            {copy.sent > 0 ? (
              <span className="block text-soft">{say('reports:sentTo', { count: copy.sent })}</span>
            ) : null}
          </li>
        ))}
      </ul>
      <p className="mt-3">
        <Button disabled={!isReady || freezing.isLoading} onClick={() => void keep()}>
          {say('reports:freeze')}
        </Button>
      </p>
      <p className="mt-2 text-[13px] text-soft">{say('reports:freezeHint')}</p>
    </aside>
  );
}

interface HeadProps {
  readonly id: string;
  readonly kept: Kept | null;
  readonly report: ReportDesign;
  readonly changed: ReportDesign | null;
  readonly isEditing: boolean;
  readonly set: (report: ReportDesign | null) => void;
}

/** What a report is called, of what stretch it tells, to whom it goes, who finds it, and what is done with it. */
function Head({ id, kept, report, changed, isEditing, set }: HeadProps) {
  const navigate = useNavigate();
  const { search } = useLocation();
  const { data: me } = meApi.useMeQuery();
  const { data: around } = reportsApi.useReportsQuery();
  const [make, making] = reportsApi.useMakeReportMutation();
  const [change, changing] = reportsApi.useChangeReportMutation();
  const [remove] = reportsApi.useRemoveReportMutation();
  const [names, setNames] = useState<Readonly<Record<string, string>>>({});
  const isChanged = changed !== null && !isSame(changed, kept?.report);
  const mayChange = kept === null || kept.changes;
  const error = making.error ?? changing.error;
  const called = { ...kept?.names, ...names };
  const calledAs = (word: string, name: string): void => setNames((before) => ({ ...before, [word]: name }));
  const save = async (): Promise<void> => {
    const done =
      kept === null
        ? await make({ once: crypto.randomUUID(), body: { report } })
        : await change({ id, version: kept.version, body: { report } });
    if ('error' in done) return;
    toast(say('reports:saved'));
    if (kept === null && done.data && 'id' in done.data) navigate(`/floor/reports/${done.data.id}${search}`);
    else set(null);
  };
  const takeAway = async (): Promise<void> => {
    const done = await remove({ id, body: { removed: true } });
    if ('error' in done) {
      toast.error(refusalInWords(problemOf(done.error)));
      return;
    }
    navigate('/floor');
    toast(say('reports:removed', { name: report.name }), {
      action: { label: say('reports:putBack'), onClick: () => void remove({ id, body: { removed: false } }) },
    });
  };
  const { audience } = report;
  const who = audience === null ? say('reports:onlyMe') : audienceSaid(audience, called);
  const sentence = { over: say(`reports:over.${report.over}`) };
  return (
    <div className="print:hidden">
      {mayChange && (isEditing || isChanged) ? (
        <p className="mt-2 flex flex-wrap items-baseline gap-x-4 gap-y-2">
          <input
            aria-label={say('reports:name')}
            placeholder={say('reports:nameHint')}
            className="input w-80"
            maxLength={120}
            value={report.name}
            onChange={({ target }) => set({ ...report, name: target.value })}
          />
          {kept === null || isChanged ? (
            <>
              <Button look="main" disabled={making.isLoading || changing.isLoading} onClick={() => void save()}>
                {say('reports:save')}
              </Button>
              {kept === null ? null : (
                <button type="button" className="text-[13px] text-green underline" onClick={() => set(null)}>
                  {say('reports:undo')}
                </button>
              )}
              <span className="text-[13px] text-soft">{say('reports:unsaved')}</span>
            </>
          ) : (
            <button type="button" className="text-[13px] text-green underline" onClick={() => void takeAway()}>
              {say('reports:remove')}
            </button>
          )}
        </p>
      ) : null}
      <p className="mt-2 text-[15.5px] leading-7">
        {mayChange ? (
          <>
            <Part words={say('reports:saysOver', sentence)} label={say('reports:editOver')}>
              <fieldset>
                <legend className="sr-only">{say('reports:editOver')}</legend>
                {REPORTS_OVER.map((over) => (
                  <label key={over} className="flex min-h-7 items-center gap-2">
                    <input
                      type="radio"
                      className="accent-green"
                      checked={report.over === over}
                      onChange={() => set({ ...report, over })}
                    />
                    {say(`reports:over.${over}`)}
                  </label>
                ))}
              </fieldset>
            </Part>
            <ReportSends
              {...{ report, set }}
              calendars={around?.calendars ?? []}
              names={called}
              called={calledAs}
              owner={kept?.by ?? me?.person?.name ?? ''}
            />
            {'. '}
            <Part words={who} label={say('reports:theAudience')} isFaint>
              <ViewAudience
                audience={audience}
                names={called}
                called={calledAs}
                set={(chosen) => set({ ...report, audience: chosen })}
              />
            </Part>
          </>
        ) : (
          <span className="text-soft">{say('reports:by', { name: kept?.by ?? '' })}</span>
        )}
      </p>
      {kept?.next.map((next, at) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: a way is known by its place
        <p key={at} className="text-[13px] text-soft">
          {next === null
            ? say('reports:neverSent')
            : say('reports:nextSend', { at: next.at, days: daysSaid({ over: kept.report.over, ...next }) })}
        </p>
      ))}
      {['name', 'parts', 'audience', ...report.sends.map((_, at) => `sends ${at}`)].map((field) => (
        <ProblemsAt key={field} error={error} field={field} />
      ))}
    </div>
  );
}
