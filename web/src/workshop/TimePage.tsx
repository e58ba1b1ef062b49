import { say } from '../wire/words.ts';
import { ApprovalSteps } from './ApprovalSteps.tsx';
import { useBinder } from './binder.ts';
import { DeadlineList } from './deadlines/DeadlineList.tsx';
import { OwnOrUsual } from './Reaches.tsx';

/** Who decides when a row of the routing table asks for it, and what a request is due by. */
export function TimePage() {
  const { editing, form } = useBinder();
  const { draft, change } = editing;
  return (
    <>
      <h2 className="section-head">{say('workshop:approval')}</h2>
      <OwnOrUsual part="approval" draft={draft} change={change} others={form.others} />
      <p className="mt-2 text-soft">{say('workshop:approvalHint')}</p>
      <ApprovalSteps />
      <h2 className="section-head mt-8">{say('workshop:deadlines')}</h2>
      <OwnOrUsual part="deadline" draft={draft} change={change} others={form.others} />
      <p className="mt-2 text-soft">
        {say('workshop:deadlineHint', { calendar: form.calendar.name, zone: form.calendar.zone })}
      </p>
      <DeadlineList />
    </>
  );
}
