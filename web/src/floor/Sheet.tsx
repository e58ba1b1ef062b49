import type { AnswerOf } from '@tolvek/contract';
import type { DecidesBy } from '@tolvek/core/approval';
import { REQUEST_RIGHTS } from '@tolvek/core/people';
import { priorityInWords } from '@tolvek/core/request';
import { type ReactNode, useState } from 'react';
import { Link } from 'react-router';
import { toast } from 'sonner';
import { Agreed } from '../ui/Agreed.tsx';
import { Button } from '../ui/Button.tsx';
import { DecisionForm } from '../ui/DecisionForm.tsx';
import { DialogFrame } from '../ui/DialogFrame.tsx';
import { Face, portraitOf } from '../ui/Face.tsx';
import { Beside } from '../ui/LiveText.tsx';
import NamedActions from '../ui/NamedActions.tsx';
import { StageMark } from '../ui/StageMark.tsx';
import { Trace } from '../ui/Trace.tsx';
import { Trouble } from '../ui/Trouble.tsx';
import { Why } from '../ui/Why.tsx';
import { meApi } from '../wire/me.ts';
import { problemOf, refusalInWords } from '../wire/problem.ts';
import { say, told } from '../wire/words.ts';
import { AskedAbout } from './Asked.tsx';
import { Deadlines } from './Deadlines.tsx';
import { DecideSeveral } from './DecideSeveral.tsx';
import { DecisionSteps, isInSteps, ReadThen } from './DecisionSteps.tsx';
import { Deleting } from './Deleting.tsx';
import { floorApi } from './endpoints.ts';
import { Following } from './Following.tsx';
import { RequestForecast } from './forecast/RequestForecast.tsx';
import { GivingOutside } from './GivingOutside.tsx';
import { Handing } from './Handing.tsx';
import { Links } from './Links.tsx';
import { Merged, Merging } from './Merging.tsx';
import { Proposals } from './Proposals.tsx';
import { RequestCourse } from './RequestCourse.tsx';
import { RequestEmails } from './RequestEmails.tsx';
import { Freeing, Rerouting } from './Rerouting.tsx';
import { Sharing } from './Sharing.tsx';
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
  if (!sheet) return <p className="text-soft">{say('floor:opening', { number })}</p>;
  return (
    <article>
      <div className="flex items-baseline justify-between gap-3">
        <p className="font-mono text-[12.5px] text-soft">
          {sheet.number} ·{' '}
          {sheet.trial ? say('floor:trialRequest') : say('floor:releaseNo', { release: sheet.release })} ·{' '}
          {sheet.door === null
            ? say('floor:madeByDesk')
            : say(sheet.door === 'staff' ? 'floor:staffDoor' : 'floor:outsideDoor')}
          {sheet.edition ? ` · ${say('floor:inEdition', { edition: sheet.edition.name })}` : ''}
        </p>
        {close}
      </div>
      <h2 className="mt-1 text-[21px]">{told(sheet.subject)}</h2>
      <p className="mb-1 text-soft">
        <FaceOf face={sheet.requester.face} />
        {sheet.requester.name || say('floor:nobodyNamed')}
        {sheet.requester.outside ? say('floor:fromOutside') : ''}
        {sheet.requester.unconfirmed ? (
          <span className="block text-brick">{say('floor:notConfirmed', { email: sheet.requester.unconfirmed })}</span>
        ) : null}
        {sheet.onBehalf ? say('floor:onBehalf', { name: sheet.onBehalf }) : ''}
        {sheet.enteredBy ? say('floor:enteredBy', { name: sheet.enteredBy }) : ''}
      </p>
      <Agreed consent={sheet.consent} />
      <Merged sheet={sheet} />
      <Following number={sheet.number} followers={sheet.followers} />
      {sheet.routing ? (
        <Trace hops={sheet.hops} reasons={{ routed: <WhyRouted routing={sheet.routing} isUsedNamed /> }} />
      ) : null}
      <Beside words={sheet.words.map((each) => told(each))} acts={(at) => <ActsBeside sheet={sheet} at={at} />} />
      <Acts sheet={sheet} reload={refetch} />
      <dl className="mt-4 grid grid-cols-[128px_1fr] [&>*]:border-b [&>*]:border-rule [&>*]:py-1.5 [&>dt]:text-soft">
        <dt>{say('floor:col.stage')}</dt>
        <dd className="flex items-baseline">
          <StageMark phase={sheet.stage.phase} role={sheet.stage.role} />
          {sheet.stage.label}
        </dd>
        {sheet.thing ? (
          <>
            <dt>{say('floor:col.team')}</dt>
            <dd>{sheet.team}</dd>
          </>
        ) : (
          <>
            <dt>{say('floor:col.due')}</dt>
            <dd>
              <Deadlines deadlines={sheet.deadlines} />
              <Wished wish={sheet.wishes.due} />
              <RequestCourse number={sheet.number} />
              {sheet.stage.phase === 'finished' || sheet.trial ? null : <RequestForecast number={sheet.number} />}
            </dd>
            <dt>{say('floor:col.team')}</dt>
            <dd>
              {say('floor:teamPriority', { team: sheet.team, priority: priorityInWords(sheet.priority ?? 'normal') })}{' '}
              {sheet.routing ? (
                <Why about={rowsUsed(sheet.routing)}>
                  <WhyRouted routing={sheet.routing} />
                </Why>
              ) : null}{' '}
              {sheet.stage.phase === 'finished' || !sheet.may.assign ? null : (
                <Rerouting key={sheet.version} sheet={sheet} />
              )}
              <Wished wish={sheet.wishes.priority} />
            </dd>
          </>
        )}
        {sheet.approval ? (
          <>
            <dt>{sheet.approval.label}</dt>
            <dd>
              <WhereItStands approval={sheet.approval} />
              {sheet.approval.instead.length > 0 ? (
                <span className="block text-soft">
                  {say('floor:decidesInstead', { names: sheet.approval.instead })}
                </span>
              ) : null}
              {isInSteps(sheet.approval.steps) ? (
                <DecisionSteps steps={sheet.approval.steps} />
              ) : (
                <>
                  {sheet.approval.comment ? (
                    <span className="block text-soft">{say('floor:quoted', { text: sheet.approval.comment })}</span>
                  ) : null}
                  <ReadThen read={sheet.approval.steps[0]?.seats[0]?.read ?? null} />
                </>
              )}
              {sheet.approval.state === 'waiting' && sheet.approval.whyNot ? (
                <span className="block text-soft">{told(sheet.approval.whyNot)}</span>
              ) : null}
            </dd>
          </>
        ) : null}
      </dl>
      <Proposals sheet={sheet} />
      <SheetFields sheet={sheet} reload={refetch} />
      <AskedAbout sheet={sheet} />
      <Pointing sheet={sheet} />
      <Sharing sheet={sheet} />
      <Links sheet={sheet} />
      <SheetHistory sheet={sheet} />
      {sheet.may.history ? <RequestEmails number={sheet.number} /> : null}
      <Merging sheet={sheet} />
      <Deleting sheet={sheet} />
      <MayNot sheet={sheet} />
    </article>
  );
}

/** Whom a decision waits for, or how it ended. */
function WhereItStands({ approval }: { approval: NonNullable<SheetData['approval']> }) {
  const { state, group, decidedBy, nobodySince, steps } = approval;
  if (nobodySince !== null)
    return (
      <b className="text-brick">
        <span aria-hidden="true">▲ </span>
        {say('floor:nobodyDecides', { since: nobodySince })}
      </b>
    );
  if (state === 'waiting') return say('floor:waitsForOneOf', { group });
  const silently = steps.findLast((step) => step.silently !== null)?.silently;
  if (silently === state) return say(state === 'approved' ? 'floor:approvedSilently' : 'floor:refusedSilently');
  return say(DECIDED[state], { by: decidedBy ?? '—' });
}

/** What the words at a place offer to whoever reads them. */
function ActsBeside({ sheet: { number, actions }, at }: { sheet: SheetData; at: number }) {
  const [act] = floorApi.useActMutation();
  const here = actions.filter((action) => action.at === at);
  if (here.length === 0) return null;
  return (
    <NamedActions
      {...{ number, actions: here }}
      act={(action, body) => act({ number, action, body }).unwrap()}
      follows
    />
  );
}

/** What its reader has not the right to do here, and who can give it (needs D22). */
function MayNot({ sheet: { may, givers } }: { sheet: SheetData }) {
  const missing = REQUEST_RIGHTS.flatMap((right) => (right in may && !may[right as keyof typeof may] ? [right] : []));
  if (missing.length === 0) return null;
  return (
    <details className="mt-6 text-[13px] text-soft">
      <summary className="cursor-pointer">{say('floor:mayNot')}</summary>
      <ul className="mt-1 list-disc pl-5">
        {missing.map((right) => (
          <li key={right}>{say(`rights:row.${right}`)}</li>
        ))}
      </ul>
      <p className="mt-1">{say('floor:mayNotGivers', { people: givers })}</p>
    </details>
  );
}

/** A portrait before a name. */
const FaceOf = ({ face }: { face: SheetData['requester']['face'] }) =>
  face ? <Face src={portraitOf(face.id, face.portrait)} className="mr-2 size-6 align-middle" /> : null;

/** The requests whose references point here. */
function Pointing({ sheet }: { sheet: SheetData }) {
  if (sheet.pointing.length === 0) return null;
  return (
    <>
      <h3 className="section-head mt-6">{say('floor:referring')}</h3>
      <ul>
        {sheet.pointing.map((each) => (
          <li key={`${each.number} ${each.field}`} className="grid grid-cols-[128px_1fr] border-b border-rule py-1.5">
            <span className="pr-2 text-soft">{each.field}</span>
            <Link to={`/floor/all/${each.number}`} className="min-w-0 truncate">
              {told(each.subject)} <span className="font-mono text-[12.5px] text-soft">{each.number}</span>
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
  const { number, version } = sheet;
  const refused = (error: unknown): void => {
    const problem = problemOf(error);
    if (problem.status === 412) reload();
    toast.error(refusalInWords(problem));
  };
  const move = (stage: string) => moveStage({ number, version, body: { stage } }).unwrap().catch(refused);
  const give = (person: string | null) => assign({ number, version, body: { person } }).unwrap().catch(refused);
  const busy = moving.isLoading || assigning.isLoading;
  const mine = sheet.handler?.id === me?.person?.id;
  const canTake =
    sheet.assignable.some((person) => person.id === me?.person?.id) && !mine && sheet.stage.phase !== 'finished';
  const [first, ...others] = [...sheet.moves].sort((a, b) => likelihood(sheet, b.phase) - likelihood(sheet, a.phase));
  return (
    <div className="mt-4">
      {sheet.approval?.mayDecide ? (
        <div className="mb-4 border-l-[3px] border-green bg-green-wash px-4 py-3">
          <Deciding sheet={sheet} by="seat" />
          <DecideSeveral key={sheet.number} number={sheet.number} />
        </div>
      ) : null}
      <div className="flex flex-wrap items-center gap-2">
        {canTake ? (
          <Button look={sheet.handler ? 'plain' : 'main'} disabled={busy} onClick={() => give(me?.person?.id ?? null)}>
            {say('floor:makeMeHandler')}
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
        {sheet.approval?.mayDecideFor ? (
          <DecidingFor sheet={sheet} who={sheet.approval.group || say('floor:nobodyWho')} />
        ) : null}
        {sheet.approval?.mayTakeBack ? <TakingBack number={sheet.number} /> : null}
        {sheet.approval?.mayHand ? <Handing key={sheet.number} number={sheet.number} /> : null}
        {(sheet.moves.length === 0 || sheet.notNow.length > 0) && sheet.frees.length > 0 ? (
          <Freeing key={version} sheet={sheet} />
        ) : null}
      </div>
      {sheet.notNow.length > 0 ? (
        <ul className="mt-2 text-[13.5px] text-soft">
          {sheet.notNow.map((each) => (
            <li key={each.label}>{say('floor:notYetTo', { stage: each.label, why: each.whyNot })}</li>
          ))}
        </ul>
      ) : null}
      {sheet.thing ? null : (
        <div className="mt-3 flex items-center gap-3">
          <label htmlFor="handler" className="w-[116px] text-soft">
            {say('floor:handler')}
          </label>
          <FaceOf face={sheet.handler?.face ?? null} />
          <select
            id="handler"
            className="input max-w-56 py-1"
            value={sheet.handler?.id ?? ''}
            disabled={busy || !sheet.may.assign}
            onChange={(event) => give(event.target.value || null)}
          >
            <option value="">{say('floor:nobodyYet')}</option>
            {sheet.handler && !sheet.assignable.some((person) => person.id === sheet.handler?.id) ? (
              <option value={sheet.handler.id}>{sheet.handler.name}</option>
            ) : null}
            {sheet.assignable.map((person) => (
              <option key={person.id} value={person.id}>
                {person.name}
              </option>
            ))}
          </select>
          {sheet.handlerWhy.length > 0 ? (
            <Why about={say('floor:handler')}>
              <ul className="list-disc pl-4">
                {sheet.handlerWhy.map((line) => (
                  <li key={told(line)}>{told(line)}</li>
                ))}
              </ul>
            </Why>
          ) : null}
        </div>
      )}
      {sheet.thing || !sheet.may.assign || sheet.stage.phase === 'finished' ? null : (
        <p className="mt-1 pl-32">
          <GivingOutside number={number} version={version} />
        </p>
      )}
    </div>
  );
}

/** Takes back what its reader said at a step, while nothing has followed from it. */
function TakingBack({ number }: { number: string }) {
  const [takeBack, { isLoading }] = floorApi.useTakeBackDecisionMutation();
  const press = async (): Promise<void> => {
    const done = await takeBack({ number });
    if ('error' in done) toast.error(refusalInWords(problemOf(done.error)));
    else toast(say('floor:tookBack'));
  };
  return (
    <Button disabled={isLoading} onClick={() => void press()}>
      {say('floor:takeBack')}
    </Button>
  );
}

const NOW = { approved: 'floor:nowApproved', refused: 'floor:nowRefused', returned: 'floor:nowReturned' } as const;

/** Approves or refuses, by a seat of one’s own or for whoever is asked. */
function Deciding({ sheet: { number, approval }, by }: { sheet: SheetData; by: DecidesBy }) {
  const [decide, { isLoading, error }] = floorApi.useDecideMutation();
  return (
    <DecisionForm
      seen={approval?.seen ?? ''}
      by={by}
      mayReturn={approval?.mayReturn ?? false}
      busy={isLoading}
      error={error}
      decide={async ({ key: once, ...body }) => {
        const done = await decide({ number, once, body });
        if ('error' in done) return;
        toast(say(done.data.more ? 'floor:othersDecide' : NOW[done.data.state], { number }));
      }}
    />
  );
}

/** Decides for those who are asked, with the right to. */
function DecidingFor({ sheet, who }: { sheet: SheetData; who: string }) {
  const [open, setOpen] = useState(false);
  const label = say('floor:decideFor', { who });
  return (
    <DialogFrame open={open} onOpenChange={setOpen} title={label} trigger={<Button>{label}</Button>}>
      <p className="mt-2 mb-3 text-soft">{say('floor:decideForHint', { who })}</p>
      <Deciding sheet={sheet} by="right" />
    </DialogFrame>
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

const DECIDED = {
  waiting: 'floor:withdrawnBy',
  approved: 'floor:approvedBy',
  refused: 'floor:refusedBy',
  withdrawn: 'floor:withdrawnBy',
} as const;

/**
 * What moving to a stage is called: with its name, where another move would be called the same, and with
 * whether the requester gets an email of it.
 */
function verb({ label: stage, phase }: { label: string; phase: string }, sheet: SheetData): string {
  const { moves, thing, trial, requester } = sheet;
  if (thing) return say('floor:act.mark', { stage });
  const tells =
    !trial && requester.name !== '' && requester.unconfirmed === null && tellsRequester(phase, sheet.stage.phase);
  const called = (act: string): string =>
    moves.filter((each) => each.phase === phase).length > 1 ? say('floor:act.withStage', { act, stage }) : act;
  switch (phase) {
    case 'working':
      if (sheet.stage.phase === 'arrived') return called(say('floor:act.start'));
      if (sheet.stage.phase === 'finished') return called(say('floor:act.reopen'));
      return called(say(tells ? 'floor:act.resumeTell' : 'floor:act.resume'));
    case 'paused':
      return say(tells ? 'floor:act.pauseTell' : 'floor:act.pause', { stage });
    case 'finished':
      return called(say(tells ? 'floor:act.finishTell' : 'floor:act.finish'));
    default:
      return say(tells ? 'floor:act.backTell' : 'floor:act.back', { stage });
  }
}

/** As notices follow a move: of an end, of a pause, and of the end of a pause. */
const tellsRequester = (to: string, from: string): boolean => to === 'finished' || to === 'paused' || from === 'paused';

/** Which rows of the routing table were used, as far as that may be told. */
function rowsUsed({ row, rows }: NonNullable<AnswerOf<'sheet'>['routing']>): string {
  const setting = rows.flatMap((each) => ((each.says ?? []).length > 0 ? [String(each.row)] : []));
  if (row === null) return say('floor:byTable');
  return setting.length > 1 ? say('floor:byRows', { rows: setting }) : say('floor:byRow', { row });
}

/** What whoever asked wished for, beside what the desk has set. */
const Wished = ({ wish }: { wish: SheetData['wishes']['due'] }) =>
  wish === null ? null : <p className="text-[13px] text-soft">{say('floor:wished', { wish })}</p>;
