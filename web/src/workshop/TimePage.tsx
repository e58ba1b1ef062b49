import type { ApprovalStep } from '@tolvek/core/approval';
import { holderOf, wordOf } from '@tolvek/core/people';
import { say } from '../wire/words.ts';
import { useBinder } from './binder.ts';
import { GroupOnTheSpot } from './groundwork/NewGroup.tsx';
import { OwnOrUsual } from './Reaches.tsx';

const HOUR = 3_600_000;
const LABEL = 'self-center text-soft';

/** Who decides when a row of the routing table asks for it, and how deadlines are kept. */
export function TimePage() {
  const { editing, form } = useBinder();
  const { draft, change } = editing;
  const { approval, deadline } = draft;
  const [first, ...later] = approval.steps;
  const asked = first?.seats[0];
  const changeFirst = (edit: (step: ApprovalStep) => ApprovalStep): void =>
    change((before) => ({
      ...before,
      approval: { steps: before.approval.steps.map((step, place) => (place === 0 ? edit(step) : step)) },
    }));
  const hours = (ms: number): number => ms / HOUR;
  return (
    <>
      <h2 className="section-head">{say('workshop:approval')}</h2>
      <OwnOrUsual part="approval" draft={draft} change={change} others={form.others} />
      <div className="mt-3 grid max-w-[36rem] grid-cols-[190px_1fr] gap-x-3 gap-y-2" id="at-step">
        <label htmlFor="step-label" className={LABEL}>
          {say('workshop:stepName')}
        </label>
        <input
          id="step-label"
          className="input"
          value={first?.label ?? ''}
          onChange={(event) => changeFirst((step) => ({ ...step, label: event.target.value }))}
        />
        <label htmlFor="step-group" className={LABEL}>
          {say('workshop:approvedBy')}
        </label>
        <select
          id="step-group"
          className="input"
          value={asked ? wordOf(asked) : ''}
          onChange={(event) =>
            changeFirst((step) => ({ ...step, seats: [holderOf(event.target.value), ...step.seats.slice(1)] }))
          }
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
            {asked && 'person' in asked && !form.people.some(({ key }) => key === asked.person) ? (
              <option value={wordOf(asked)}>{say('workshop:personGone')}</option>
            ) : null}
          </optgroup>
        </select>
      </div>
      <p className="mt-2">
        <GroupOnTheSpot
          made={(group) => changeFirst((step) => ({ ...step, seats: [{ group }, ...step.seats.slice(1)] }))}
        />
      </p>
      {later.length > 0 ? (
        <p className="mt-2 text-soft">
          {say('workshop:thenSteps', { steps: later.map((step) => step.label).join(', ') })}
        </p>
      ) : null}
      <p className="mt-2 text-soft">{say('workshop:approvalHint')}</p>
      <h2 className="section-head mt-8">{say('workshop:deadline')}</h2>
      <OwnOrUsual part="deadline" draft={draft} change={change} others={form.others} />
      <p className="mt-2 text-soft">
        {say('workshop:deadlineHint', { calendar: form.calendar.name, zone: form.calendar.zone })}
      </p>
      <div className="mt-3 grid max-w-[36rem] grid-cols-[190px_1fr] gap-x-3 gap-y-2">
        <label htmlFor="remind" className={LABEL}>
          {say('workshop:remindBefore')}
        </label>
        <span className="flex items-center gap-2">
          <input
            id="remind"
            type="number"
            min={0}
            max={80}
            className="input w-20"
            value={hours(deadline.remindBefore)}
            onChange={(event) =>
              change((before) => ({
                ...before,
                deadline: { ...before.deadline, remindBefore: Math.max(0, Number(event.target.value) || 0) * HOUR },
              }))
            }
          />{' '}
          {say('workshop:hoursBefore')}
        </span>
        <label htmlFor="escalate" className={LABEL}>
          {say('workshop:tellAfter')}
        </label>
        <span className="flex items-center gap-2">
          <input
            id="escalate"
            type="number"
            min={0}
            max={80}
            className="input w-20"
            value={hours(deadline.escalateAfter)}
            onChange={(event) =>
              change((before) => ({
                ...before,
                deadline: { ...before.deadline, escalateAfter: Math.max(0, Number(event.target.value) || 0) * HOUR },
              }))
            }
          />{' '}
          {say('workshop:hoursAfter')}
        </span>
        <label htmlFor="lead" className={LABEL}>
          {say('workshop:leadsAre')}
        </label>
        <select
          id="lead"
          className="input"
          value={deadline.escalateTo}
          onChange={(event) =>
            change((before) => ({ ...before, deadline: { ...before.deadline, escalateTo: event.target.value } }))
          }
        >
          {form.groups.map((group) => (
            <option key={group.key} value={group.key}>
              {group.name}
            </option>
          ))}
        </select>
      </div>
    </>
  );
}
