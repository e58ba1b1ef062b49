import type { ApprovalStep } from '@tolvek/core/approval';
import { holderOf, wordOf } from '@tolvek/core/people';
import { useBinder } from './binder.ts';
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
      <h2 className="section-head">Approval</h2>
      <OwnOrUsual part="approval" draft={draft} change={change} others={form.others} />
      <div className="mt-3 grid max-w-[36rem] grid-cols-[190px_1fr] gap-x-3 gap-y-2" id="at-step">
        <label htmlFor="step-label" className={LABEL}>
          The step is called
        </label>
        <input
          id="step-label"
          className="input"
          value={first?.label ?? ''}
          onChange={(event) => changeFirst((step) => ({ ...step, label: event.target.value }))}
        />
        <label htmlFor="step-group" className={LABEL}>
          Decided by
        </label>
        <select
          id="step-group"
          className="input"
          value={asked ? wordOf(asked) : ''}
          onChange={(event) =>
            changeFirst((step) => ({ ...step, seats: [holderOf(event.target.value), ...step.seats.slice(1)] }))
          }
        >
          <optgroup label="Any member of a group">
            {form.groups.map((group) => (
              <option key={group.key} value={group.key}>
                {group.name}, {group.members} {group.members === 1 ? 'person' : 'people'}
              </option>
            ))}
          </optgroup>
          <optgroup label="One person">
            {form.people.map((person) => (
              <option key={person.key} value={wordOf({ person: person.key })}>
                {person.label}
              </option>
            ))}
            {/* Somebody who is not here any more stays shown until another is chosen. */}
            {asked && 'person' in asked && !form.people.some(({ key }) => key === asked.person) ? (
              <option value={wordOf(asked)}>somebody who is not here</option>
            ) : null}
          </optgroup>
        </select>
      </div>
      {later.length > 0 ? <p className="mt-2 text-soft">Then: {later.map((step) => step.label).join(', ')}.</p> : null}
      <p className="mt-2 text-soft">Rows of the routing table say which requests need it. Nobody decides their own.</p>
      <h2 className="section-head mt-8">Deadline</h2>
      <OwnOrUsual part="deadline" draft={draft} change={change} others={form.others} />
      <p className="mt-2 text-soft">
        Rows of the routing table allow a number of working days; a request is due when the last of them closes. Counted
        in “{form.calendar.name}”, {form.calendar.zone}.
      </p>
      <div className="mt-3 grid max-w-[36rem] grid-cols-[190px_1fr] gap-x-3 gap-y-2">
        <label htmlFor="remind" className={LABEL}>
          Remind the handler before
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
          hours of working time
        </span>
        <label htmlFor="escalate" className={LABEL}>
          Tell the lead after
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
          hours past the deadline
        </span>
        <label htmlFor="lead" className={LABEL}>
          The lead is
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
