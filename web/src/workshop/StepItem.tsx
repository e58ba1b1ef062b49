import { type ApprovalStep, type SeatPlan, SILENCES, type Silence, seatWord } from '@tolvek/core/approval';
import { Button } from '../ui/Button.tsx';
import { say } from '../wire/words.ts';
import { useBinder } from './binder.ts';
import { GroupOnTheSpot } from './groundwork/NewGroup.tsx';
import { HOUR } from './hours.ts';
import { MoveButtons } from './MoveButtons.tsx';
import { OptionalCondition } from './OptionalCondition.tsx';
import { SeatOf } from './SeatOf.tsx';
import { useStepSentences } from './stepSentences.ts';
import { changeSeat, editStep, firstLimit, moveStep, removeStep, seatBesides, withHours } from './steps.ts';

const LINK = 'text-[13px] text-green underline';

interface StepItemProps {
  readonly step: ApprovalStep;
  readonly place: number;
  readonly of: number;
  /** The keys of all groups. */
  readonly groups: readonly string[];
  /** Whether it is being changed. */
  readonly isOpen: boolean;
  readonly open: (isOpen: boolean) => void;
}

/** A step of an approval, as sentences; pressed, each thing it says is changed. */
export function StepItem(props: StepItemProps) {
  const { step, place, isOpen, open } = props;
  const sentences = useStepSentences(step);
  if (isOpen) return <OpenStep {...props} />;
  return (
    <li
      id={`at-${step.id}`}
      className="mt-2.5 flex items-start gap-3 border border-rule border-l-[3px] border-l-green bg-sheet px-4 py-2.5"
    >
      <div className="min-w-0 flex-1">
        <h3 className="font-serif text-[16.5px]">
          {place + 1}. {step.label}
        </h3>
        {sentences.map((sentence) => (
          <p key={sentence} className="mt-0.5">
            {sentence}
          </p>
        ))}
      </div>
      <Button onClick={() => open(true)} aria-label={say('workshop:changeStepOf', { step: step.label })}>
        {say('workshop:changeStep')}
      </Button>
    </li>
  );
}

/** Whom a step asks, how many have to agree, who decides instead, until when, and when it is asked at all. */
function OpenStep({ step, place, of, groups, open }: StepItemProps) {
  const { editing } = useBinder();
  const { change } = editing;
  const { id, label } = step;
  const edit = (next: Partial<Omit<ApprovalStep, 'id'>>): void => change((before) => editStep(before, id, next));
  const name = `step-${id}`;
  return (
    <li id={`at-${id}`} className="mt-3 border border-rule border-l-[3px] border-l-green bg-sheet px-4 py-3">
      <div className="flex flex-wrap items-center gap-x-3 gap-y-2">
        <label htmlFor={name} className="font-semibold">
          {say('workshop:stepOf', { place: place + 1 })}
        </label>
        <input
          id={name}
          className="input min-w-40 flex-1"
          aria-label={say('workshop:stepNamed', { place: place + 1 })}
          value={label}
          onChange={(event) => edit({ label: event.target.value })}
        />
        {of > 1 ? (
          <>
            <span className="flex gap-1">
              <MoveButtons
                index={place}
                of={of}
                words={[say('workshop:askEarlier', { step: label }), say('workshop:askLater', { step: label })]}
                move={(way) => change((before) => moveStep(before, id, way))}
              />
            </span>
            <Button look="refuse" onClick={() => change((before) => removeStep(before, id))}>
              {say('workshop:removeStep')}
            </Button>
          </>
        ) : null}
      </div>
      <div className="mt-3 grid grid-cols-[120px_1fr] gap-x-3 gap-y-2.5">
        <Asked {...{ step, groups, edit }} />
        <Agreeing {...{ step, edit, name }} />
        <Instead {...{ step, groups, edit }} />
        <Until {...{ step, edit, name }} />
        <When {...{ step, edit }} />
      </div>
      <p className="mt-3">
        <Button onClick={() => open(false)}>{say('workshop:stepDone')}</Button>
      </p>
    </li>
  );
}

interface Editing {
  readonly step: ApprovalStep;
  readonly edit: (next: Partial<Omit<ApprovalStep, 'id'>>) => void;
}

interface SeatsProps {
  readonly seats: readonly SeatPlan[];
  readonly named: (place: number) => string;
  readonly spare: (place: number) => string;
  /** How many stay at least. */
  readonly least: number;
  readonly set: (seats: readonly SeatPlan[]) => void;
}

/** Some who can be asked, one below the other. */
const Seats = ({ seats, named, spare, least, set }: SeatsProps) =>
  seats.map((seat, at) => (
    // biome-ignore lint/suspicious/noArrayIndexKey: seats have no names, and the same group can be asked twice.
    <div key={at} className="mb-1.5 flex items-center gap-3">
      <SeatOf
        label={named(at + 1)}
        seat={seat}
        isAgain={seats.slice(0, at).some((each) => seatWord(each) === seatWord(seat))}
        set={(next) => set(changeSeat(seats, at, next))}
      />
      {seats.length > least ? (
        <button
          type="button"
          className="text-green underline"
          aria-label={spare(at + 1)}
          onClick={() => set(seats.filter((_, each) => each !== at))}
        >
          {say('workshop:spare')}
        </button>
      ) : null}
    </div>
  ));

function Asked({ step: { label, seats }, groups, edit }: Editing & { groups: readonly string[] }) {
  return (
    <>
      <span className="pt-1.5 text-soft">{say('workshop:approvedBy')}</span>
      <div>
        <Seats
          seats={seats}
          named={(place) => say('workshop:approvedByAt', { place, step: label })}
          spare={(place) => say('workshop:spareAt', { place, step: label })}
          least={1}
          set={(next) => edit({ seats: next })}
        />
        <p className="flex flex-wrap gap-x-5">
          <button
            type="button"
            className={LINK}
            onClick={() => edit({ seats: [...seats, seatBesides(seats, groups)] })}
          >
            {say('workshop:askBesides')}
          </button>
          <GroupOnTheSpot made={(group) => edit({ seats: changeSeat(seats, seats.length - 1, { group }) })} />
        </p>
      </div>
    </>
  );
}

function Agreeing({ step: { seats, needed, against }, edit, name }: Editing & { name: string }) {
  if (seats.length < 2) return null;
  // So many may be against, and one more makes it impossible anyway.
  const most = seats.length - needed;
  return (
    <>
      <label htmlFor={`${name}-needed`} className="self-center text-soft">
        {say('workshop:haveToAgree')}
      </label>
      <span className="flex flex-wrap items-center gap-x-3 gap-y-2">
        <select
          id={`${name}-needed`}
          className="input w-auto"
          value={needed}
          onChange={(event) => edit({ needed: Number(event.target.value) })}
        >
          {seats.map((_, at) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: one for each number.
            <option key={at} value={at + 1}>
              {at + 1 === seats.length
                ? say('workshop:allOfThem', { count: seats.length })
                : say('workshop:someOfThem', { some: at + 1, of: seats.length })}
            </option>
          ))}
        </select>
        {most > 0 ? (
          <select
            aria-label={say('workshop:mayBeAgainst')}
            className="input w-auto"
            value={against ?? most}
            onChange={(event) => edit({ against: Number(event.target.value) })}
          >
            {Array.from({ length: most + 1 }, (_, count) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: one for each number.
              <option key={count} value={count}>
                {count === most
                  ? say('workshop:againstAny')
                  : count === 0
                    ? say('workshop:againstNobody')
                    : say('workshop:againstAtMost', { count })}
              </option>
            ))}
          </select>
        ) : null}
      </span>
    </>
  );
}

function Instead({ step: { label, seats, instead = [] }, groups, edit }: Editing & { groups: readonly string[] }) {
  const add = (): void => edit({ instead: [...instead, seatBesides([...seats, ...instead], groups)] });
  return (
    <>
      <span className="pt-0.5 text-soft">{say('workshop:stepInstead')}</span>
      <div>
        {instead.length === 0 ? <span className="mr-3">{say('workshop:nobodyInstead')}</span> : null}
        <Seats
          seats={instead}
          named={(place) => say('workshop:insteadAt', { place, step: label })}
          spare={(place) => say('workshop:spareInsteadAt', { place, step: label })}
          least={0}
          set={(next) => edit({ instead: next })}
        />
        <button type="button" className={LINK} onClick={add}>
          {say(instead.length === 0 ? 'workshop:addInstead' : 'workshop:addInsteadThen')}
        </button>
        {instead.length === 0 ? null : <p className="mt-1 text-[13px] text-soft">{say('workshop:insteadHint')}</p>}
      </div>
    </>
  );
}

function Until({ step, edit, name }: Editing & { name: string }) {
  const { limit, label } = step;
  return (
    <>
      <span className="pt-1.5 text-soft">{say('workshop:stepUntil')}</span>
      {limit ? (
        <fieldset>
          <legend className="sr-only">{say('workshop:stepUntilOf', { step: label })}</legend>
          <span className="flex flex-wrap items-center gap-2">
            <input
              type="number"
              min={1}
              max={2_000}
              aria-label={say('workshop:limitHours')}
              className="input w-20"
              value={limit.within / HOUR}
              onChange={(event) => edit({ limit: withHours(limit, { within: Number(event.target.value) || 1 }) })}
            />
            <label htmlFor={`${name}-silence`}>{say('workshop:workingHours')}</label>
            <select
              id={`${name}-silence`}
              className="input w-auto"
              value={limit.silence}
              onChange={(event) => edit({ limit: { ...limit, silence: event.target.value as Silence } })}
            >
              {SILENCES.map((silence) => (
                <option key={silence} value={silence}>
                  {say(`workshop:silence.${silence}`)}
                </option>
              ))}
            </select>
          </span>
          <span className="mt-1.5 flex flex-wrap items-center gap-2">
            {say('workshop:remindFirst')}
            <input
              type="number"
              min={0}
              max={2_000}
              aria-label={say('workshop:remindHours')}
              className="input w-20"
              value={(limit.remind ?? 0) / HOUR}
              onChange={(event) => edit({ limit: withHours(limit, { remind: Number(event.target.value) || 0 }) })}
            />
            {say('workshop:hoursBefore')}
            <button type="button" className={`ml-1 ${LINK}`} onClick={() => edit({ limit: undefined })}>
              {say('workshop:dropLimit')}
            </button>
          </span>
        </fieldset>
      ) : (
        <p className="pt-1.5">
          <span className="mr-3">{say('workshop:noLimit')}</span>
          <button type="button" className={LINK} onClick={() => edit({ limit: firstLimit(step) })}>
            {say('workshop:addLimit')}
          </button>
        </p>
      )}
    </>
  );
}

function When({ step: { label, when }, edit }: Editing) {
  const { proof } = useBinder().editing;
  return (
    <>
      <span className="pt-0.5 text-soft">
        {say(when === undefined ? 'workshop:stepWhen' : 'workshop:stepOnlyWhen')}
      </span>
      <fieldset>
        <legend className="sr-only">{say('workshop:stepWhenOf', { step: label })}</legend>
        {when === undefined ? <span className="mr-3">{say('workshop:stepAlways')}</span> : null}
        <OptionalCondition condition={when ?? ''} scope={proof.scope} set={(next) => edit({ when: next })} />
      </fieldset>
    </>
  );
}
