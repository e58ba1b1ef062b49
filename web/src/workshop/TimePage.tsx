import { useState } from 'react';
import { say } from '../wire/words.ts';
import { ApprovalSteps } from './ApprovalSteps.tsx';
import { useBinder } from './binder.ts';
import { CourseAhead } from './course/CourseAhead.tsx';
import { DeadlineList } from './deadlines/DeadlineList.tsx';
import { OwnOrUsual } from './Reaches.tsx';

/** Who decides when a row of the routing table asks for it, and what a request is due by. */
export function TimePage() {
  const { editing, form } = useBinder();
  const { draft, change } = editing;
  /** The step and the deadline that are being changed. */
  const [step, setStep] = useState<string | null>(null);
  const [deadline, setDeadline] = useState<string | null>(null);
  const goTo = (id: string): void =>
    void requestAnimationFrame(() => document.getElementById(id)?.scrollIntoView({ block: 'center' }));
  const opens = {
    step: (id: string): void => {
      setStep(id);
      goTo(`at-${id}`);
    },
    deadline: (key: string): void => {
      setDeadline(key);
      goTo(`at-${key}`);
    },
  };
  return (
    <>
      <CourseAhead opens={opens} />
      <h2 className="section-head mt-8">{say('workshop:approval')}</h2>
      <OwnOrUsual part="approval" draft={draft} change={change} others={form.others} />
      <p className="mt-2 text-soft">{say('workshop:approvalHint')}</p>
      <ApprovalSteps open={step} setOpen={setStep} />
      <h2 className="section-head mt-8">{say('workshop:deadlines')}</h2>
      <OwnOrUsual part="deadline" draft={draft} change={change} others={form.others} />
      <p className="mt-2 text-soft">
        {say('workshop:deadlineHint', { calendar: form.calendar.name, zone: form.calendar.zone })}
      </p>
      <DeadlineList open={deadline} setOpen={setDeadline} />
    </>
  );
}
