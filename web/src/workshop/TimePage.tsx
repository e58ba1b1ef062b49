import { say } from '../wire/words.ts';
import { ApprovalSteps } from './ApprovalSteps.tsx';
import { useBinder } from './binder.ts';
import { HOUR } from './hours.ts';
import { OwnOrUsual } from './Reaches.tsx';

const LABEL = 'self-center text-soft';

/** Who decides when a row of the routing table asks for it, and how deadlines are kept. */
export function TimePage() {
  const { editing, form } = useBinder();
  const { draft, change } = editing;
  const { deadline } = draft;
  const hours = (ms: number): number => ms / HOUR;
  return (
    <>
      <h2 className="section-head">{say('workshop:approval')}</h2>
      <OwnOrUsual part="approval" draft={draft} change={change} others={form.others} />
      <p className="mt-2 text-soft">{say('workshop:approvalHint')}</p>
      <ApprovalSteps />
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
