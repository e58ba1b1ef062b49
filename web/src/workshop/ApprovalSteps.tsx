import type { ApprovalStep, SeatPlan } from '@tolvek/core/approval';
import { holderOf, wordOf } from '@tolvek/core/people';
import { Button } from '../ui/Button.tsx';
import { say, told } from '../wire/words.ts';
import { useBinder } from './binder.ts';
import { FindingLine } from './Findings.tsx';
import { GroupOnTheSpot } from './groundwork/NewGroup.tsx';
import { MoveButtons } from './MoveButtons.tsx';
import { OptionalCondition } from './OptionalCondition.tsx';
import { addStep, changeSeat, editStep, moveStep, removeStep, seatBesides } from './steps.ts';

/** Who decides, in which turn: steps, each with whom it asks, how many have to agree, and when it is asked at all. */
export function ApprovalSteps() {
  const { editing, form, keeping } = useBinder();
  const { draft, change } = editing;
  const { steps } = draft.approval;
  const groups = form.groups.map(({ key }) => key);
  const findings = keeping.findings.filter(({ page, at }) => page === 'approval' && at === 'step');
  return (
    <div id="at-step">
      <ol>
        {steps.map((step, place) => (
          <StepItem key={step.id} {...{ step, place, groups }} of={steps.length} />
        ))}
      </ol>
      {findings.map((finding) => (
        <FindingLine key={told(finding.message)} finding={finding} formKey={form.key} change={change} />
      ))}
      <p className="mt-3">
        <Button
          disabled={groups.length === 0}
          onClick={() =>
            change((before) =>
              addStep(before, say('workshop:nextStep'), seatBesides(before.approval.steps.at(-1)?.seats ?? [], groups)),
            )
          }
        >
          {say('workshop:addStep')}
        </Button>
      </p>
    </div>
  );
}

interface StepItemProps {
  readonly step: ApprovalStep;
  readonly place: number;
  readonly of: number;
  /** The keys of all groups. */
  readonly groups: readonly string[];
}

function StepItem({ step, place, of, groups }: StepItemProps) {
  const { editing } = useBinder();
  const { change, proof } = editing;
  const { id, label, seats, needed } = step;
  const edit = (next: Partial<Omit<ApprovalStep, 'id'>>): void => change((before) => editStep(before, id, next));
  const name = `step-${id}`;
  return (
    <li className="mt-3 border border-rule border-l-[3px] border-l-green bg-sheet px-4 py-3">
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
      <div className="mt-3 grid grid-cols-[120px_1fr] gap-x-3 gap-y-2">
        <span className="pt-1.5 text-soft">{say('workshop:approvedBy')}</span>
        <div>
          {seats.map((seat, at) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: seats have no names, and the same group can be asked twice.
            <div key={at} className="mb-1.5 flex items-center gap-3">
              <SeatOf
                label={say('workshop:approvedByAt', { place: at + 1, step: label })}
                seat={seat}
                isAgain={seats.slice(0, at).some((each) => wordOf(each) === wordOf(seat))}
                set={(next) => edit({ seats: changeSeat(seats, at, next) })}
              />
              {seats.length > 1 ? (
                <button
                  type="button"
                  className="text-green underline"
                  aria-label={say('workshop:spareAt', { place: at + 1, step: label })}
                  onClick={() => edit({ seats: changeSeat(seats, at, null) })}
                >
                  {say('workshop:spare')}
                </button>
              ) : null}
            </div>
          ))}
          <p className="flex flex-wrap gap-x-5">
            <button
              type="button"
              className="text-[13px] text-green underline"
              onClick={() => edit({ seats: [...seats, seatBesides(seats, groups)] })}
            >
              {say('workshop:askBesides')}
            </button>
            <GroupOnTheSpot made={(group) => edit({ seats: changeSeat(seats, seats.length - 1, { group }) })} />
          </p>
        </div>
        {seats.length > 1 ? (
          <>
            <label htmlFor={`${name}-needed`} className="self-center text-soft">
              {say('workshop:haveToAgree')}
            </label>
            <select
              id={`${name}-needed`}
              className="input w-auto justify-self-start"
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
          </>
        ) : null}
        <span className="pt-0.5 text-soft">
          {say(step.when === undefined ? 'workshop:stepWhen' : 'workshop:stepOnlyWhen')}
        </span>
        <fieldset>
          <legend className="sr-only">{say('workshop:stepWhenOf', { step: label })}</legend>
          {step.when === undefined ? <span className="mr-3">{say('workshop:stepAlways')}</span> : null}
          <OptionalCondition condition={step.when ?? ''} scope={proof.scope} set={(when) => edit({ when })} />
        </fieldset>
      </div>
    </li>
  );
}

/** Whom one is asked: any member of a group, or one person. `isAgain`: the same group stands before it. */
function SeatOf({
  label,
  seat,
  isAgain,
  set,
}: {
  label: string;
  seat: SeatPlan;
  isAgain: boolean;
  set: (seat: SeatPlan) => void;
}) {
  const { form } = useBinder();
  return (
    <>
      <select
        aria-label={label}
        className="input w-auto min-w-0"
        value={wordOf(seat)}
        onChange={(event) => set(holderOf(event.target.value))}
      >
        <optgroup label={say('workshop:anyMember')}>
          {form.groups.map((group) => (
            <option key={group.key} value={group.key}>
              {group.name}, {say('workshop:members', { count: group.members })}
            </option>
          ))}
        </optgroup>
        <optgroup label={say('workshop:onePerson')}>
          {form.people.map((person) => (
            <option key={person.key} value={wordOf({ person: person.key })}>
              {person.label}
            </option>
          ))}
          {/* Somebody who is not here any more stays shown until another is chosen. */}
          {'person' in seat && !form.people.some(({ key }) => key === seat.person) ? (
            <option value={wordOf(seat)}>{say('workshop:personGone')}</option>
          ) : null}
        </optgroup>
      </select>
      {isAgain ? <span className="text-soft">{say('workshop:anotherMember')}</span> : null}
    </>
  );
}
