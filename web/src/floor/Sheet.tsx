import type { AnswerOf } from '@tolvek/contract';
import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { toast } from 'sonner';
import { Button } from '../ui/Button.tsx';
import { DecisionForm } from '../ui/DecisionForm.tsx';
import { Fuse } from '../ui/Fuse.tsx';
import { StageMark } from '../ui/StageMark.tsx';
import { Trace } from '../ui/Trace.tsx';
import { Trouble } from '../ui/Trouble.tsx';
import { Why } from '../ui/Why.tsx';
import { meApi } from '../wire/me.ts';
import { problemOf } from '../wire/problem.ts';
import { floorApi } from './endpoints.ts';
import { Freeing, Rerouting } from './Rerouting.tsx';
import { SheetFields } from './SheetFields.tsx';
import { SheetHistory } from './SheetHistory.tsx';
import { WhyRouted } from './WhyRouted.tsx';

type SheetData = AnswerOf<'sheet'>;

/**
 * The request sheet: where it is and why, what can be done next, its fields, and all that happened.
 */
export function Sheet({ number, close }: { number: string; close: ReactNode }) {
  const { data: sheet, error, refetch } = floorApi.useSheetQuery({ number });
  if (error)
    return (
      <>
        <div className="flex justify-end">{close}</div>
        <Trouble error={error} again={refetch} />
      </>
    );
  if (!sheet) return <p className="text-soft">Opening {number} …</p>;
  const routed = sheet.hops[1]?.label ?? '';
  return (
    <article>
      <div className="flex items-baseline justify-between gap-3">
        <p className="font-mono text-[12.5px] text-soft">
          {sheet.number} · {sheet.trial ? 'trial request' : `release ${sheet.release}`} ·{' '}
          {sheet.door === null ? 'made by the desk' : `${sheet.door} door`}
        </p>
        {close}
      </div>
      <h2 className="mt-1 text-[21px]">{sheet.subject}</h2>
      <p className="mb-4 text-soft">
        {sheet.requester.name || 'Nobody is named'}
        {sheet.requester.outside ? ', from outside' : ''}
        {sheet.onBehalf ? `, for ${sheet.onBehalf}` : ''}
        {sheet.enteredBy ? `, entered by ${sheet.enteredBy}` : ''}
      </p>
      {sheet.routing ? <Trace hops={sheet.hops} reasons={{ [routed]: <WhyRouted routing={sheet.routing} /> }} /> : null}
      <Acts sheet={sheet} reload={refetch} />
      <dl className="mt-4 grid grid-cols-[128px_1fr] [&>*]:border-b [&>*]:border-rule [&>*]:py-1.5 [&>dt]:text-soft">
        <dt>Stage</dt>
        <dd className="flex items-baseline">
          <StageMark phase={sheet.stage.phase} role={sheet.stage.role} />
          {sheet.stage.label}
        </dd>
        {sheet.thing ? (
          <>
            <dt>Kept by</dt>
            <dd>{sheet.team}</dd>
          </>
        ) : (
          <>
            <dt>Due</dt>
            <dd>
              {sheet.dueWords}{' '}
              <Why about="When it is due">
                <ul className="list-disc pl-4">
                  {sheet.dueWhy.map((line) => (
                    <li key={line}>{line}</li>
                  ))}
                </ul>
              </Why>
              <div className="mt-1 max-w-56">{sheet.fuse ? <Fuse fuse={sheet.fuse} /> : null}</div>
            </dd>
            <dt>Team</dt>
            <dd>
              {sheet.team}, {sheet.priority} priority{' '}
              {sheet.routing ? (
                <Why
                  about={sheet.routing.row === null ? 'The routing table decided' : `Row ${sheet.routing.row} decided`}
                >
                  <WhyRouted routing={sheet.routing} />
                </Why>
              ) : null}{' '}
              {sheet.stage.phase === 'finished' ? null : <Rerouting key={sheet.version} sheet={sheet} />}
            </dd>
          </>
        )}
        {sheet.approval ? (
          <>
            <dt>{sheet.approval.label}</dt>
            <dd>
              {sheet.approval.state === 'waiting'
                ? `Waits for one of: ${sheet.approval.group}`
                : `${sheet.approval.state === 'approved' ? 'Approved' : 'Refused'} by ${sheet.approval.decidedBy ?? '—'}`}
              {sheet.approval.comment ? <span className="block text-soft">“{sheet.approval.comment}”</span> : null}
              {sheet.approval.state === 'waiting' && sheet.approval.whyNot ? (
                <span className="block text-soft">{sheet.approval.whyNot}</span>
              ) : null}
            </dd>
          </>
        ) : null}
      </dl>
      <SheetFields sheet={sheet} reload={refetch} />
      <Pointing sheet={sheet} />
      <SheetHistory sheet={sheet} />
    </article>
  );
}

/** The requests whose references point here. */
function Pointing({ sheet }: { sheet: SheetData }) {
  if (sheet.pointing.length === 0) return null;
  return (
    <>
      <h3 className="section-head mt-6">Named by</h3>
      <ul>
        {sheet.pointing.map((each) => (
          <li key={`${each.number} ${each.field}`} className="grid grid-cols-[128px_1fr] border-b border-rule py-1.5">
            <span className="pr-2 text-soft">{each.field}</span>
            <Link to={`/floor/all/${each.number}`} className="min-w-0 truncate">
              {each.subject} <span className="font-mono text-[12.5px] text-soft">{each.number}</span>
            </Link>
          </li>
        ))}
      </ul>
    </>
  );
}

/** What can be done with the request now; the likeliest first. */
function Acts({ sheet, reload }: { sheet: SheetData; reload: () => void }) {
  const { data: me } = meApi.useMeQuery();
  const [moveStage, moving] = floorApi.useMoveStageMutation();
  const [assign, assigning] = floorApi.useAssignMutation();
  const [decide, deciding] = floorApi.useDecideMutation();
  const { number, version } = sheet;
  const told = (error: unknown): void => {
    const problem = problemOf(error);
    if (problem.status === 412) reload();
    toast.error(problem.detail);
  };
  const move = (stage: string) => moveStage({ number, version, body: { stage } }).unwrap().catch(told);
  const give = (person: string | null) => assign({ number, version, body: { person } }).unwrap().catch(told);
  const busy = moving.isLoading || assigning.isLoading;
  const mine = sheet.handler?.id === me?.person?.id;
  const canTake =
    sheet.assignable.some((person) => person.id === me?.person?.id) && !mine && sheet.stage.phase !== 'finished';
  const [first, ...others] = [...sheet.moves].sort((a, b) => likelihood(sheet, b.phase) - likelihood(sheet, a.phase));
  return (
    <div className="mt-4">
      {sheet.approval?.mayDecide ? (
        <div className="mb-4 border-l-[3px] border-green bg-green-wash px-4 py-3">
          <DecisionForm
            seen={sheet.approval.seen}
            busy={deciding.isLoading}
            error={deciding.error}
            decide={async ({ key: once, ...body }) => {
              const done = await decide({ number, once, body });
              if (!('error' in done))
                toast(
                  done.data?.state === 'approved'
                    ? `${number} is approved.`
                    : `${number} is refused; the requester has been told why.`,
                );
            }}
          />
        </div>
      ) : null}
      <div className="flex flex-wrap items-center gap-2">
        {canTake ? (
          <Button look={sheet.handler ? 'plain' : 'main'} disabled={busy} onClick={() => give(me?.person?.id ?? null)}>
            Take it
          </Button>
        ) : null}
        {first ? (
          <Button
            look={(canTake && !sheet.handler) || sheet.thing || likelihood(sheet, first.phase) < 9 ? 'plain' : 'main'}
            disabled={busy}
            onClick={() => move(first.key)}
          >
            {verb(first, sheet)}
          </Button>
        ) : null}
        {others.map((stage) => (
          <Button key={stage.key} disabled={busy} onClick={() => move(stage.key)}>
            {verb(stage, sheet)}
          </Button>
        ))}
        {(sheet.moves.length === 0 || sheet.notNow.length > 0) && sheet.frees.length > 0 ? (
          <Freeing key={version} sheet={sheet} />
        ) : null}
      </div>
      {sheet.notNow.length > 0 ? (
        <ul className="mt-2 text-[13.5px] text-soft">
          {sheet.notNow.map((each) => (
            <li key={each.label}>
              Not yet to “{each.label}”: {each.whyNot}
            </li>
          ))}
        </ul>
      ) : null}
      {sheet.thing ? null : (
        <label className="mt-3 flex items-center gap-3">
          <span className="w-[116px] text-soft">Handler</span>
          <select
            className="input max-w-56 py-1"
            value={sheet.handler?.id ?? ''}
            disabled={busy}
            onChange={(event) => give(event.target.value || null)}
          >
            <option value="">Nobody yet</option>
            {sheet.handler && !sheet.assignable.some((person) => person.id === sheet.handler?.id) ? (
              <option value={sheet.handler.id}>{sheet.handler.name}</option>
            ) : null}
            {sheet.assignable.map((person) => (
              <option key={person.id} value={person.id}>
                {person.name}
              </option>
            ))}
          </select>
        </label>
      )}
    </div>
  );
}

const ORDER = ['arrived', 'working', 'paused', 'finished'] as const;

/** From arrival one starts, from work one finishes, from a pause one goes on. */
function likelihood(sheet: SheetData, phase: (typeof ORDER)[number]): number {
  const wanted =
    sheet.stage.phase === 'arrived' || sheet.stage.phase === 'paused' || sheet.stage.phase === 'finished'
      ? 'working'
      : 'finished';
  return phase === wanted ? 9 : phase === 'arrived' ? 0 : ORDER.indexOf(phase);
}

/** What moving to a stage is called: with its name, where another move would be called the same. */
function verb(stage: { label: string; phase: string }, { stage: { phase: from }, moves, thing }: SheetData): string {
  if (thing) return stage.label;
  const called = (word: string): string =>
    moves.filter((each) => each.phase === stage.phase).length > 1 ? `${word}, ${stage.label.toLowerCase()}` : word;
  switch (stage.phase) {
    case 'working':
      return called(from === 'arrived' ? 'Start work' : 'Go on');
    case 'paused':
      return `Pause, ${stage.label.toLowerCase()}`;
    case 'finished':
      return called('Finish');
    default:
      return called('Put back');
  }
}
