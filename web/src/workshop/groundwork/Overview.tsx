import type { AnswerOf } from '@tolvek/contract';
import { Check, CircleDashed, TriangleAlert } from 'lucide-react';
import { Link } from 'react-router';
import { Trouble } from '../../ui/Trouble.tsx';
import { useTitle } from '../../ui/useTitle.ts';
import { say } from '../../wire/words.ts';
import { groundApi } from './endpoints.ts';

type Laid = AnswerOf<'groundwork'>;

interface Step {
  readonly key: string;
  readonly state: 'laid' | 'missing' | 'wrong';
  readonly title: string;
  readonly says: string;
  readonly to: string;
  readonly go: string;
}

/** What is laid and what is missing, in the order in which a desk is laid. */
const stepsOf = ({ counts, email, calendar }: Laid): readonly Step[] => [
  {
    ...{ key: 'desk', state: 'laid', title: say('ground:step.desk'), says: say('ground:step.deskDone') },
    ...{ to: '/workshop/groundwork/desk', go: say('ground:step.deskGo') },
  },
  {
    key: 'email',
    state: email === 'sent' ? 'laid' : email === 'failed' ? 'wrong' : 'missing',
    title: say('ground:step.email'),
    says:
      email === 'sent'
        ? say('ground:step.emailDone')
        : email === 'failed'
          ? say('ground:step.emailFailed')
          : say('ground:step.emailMissing'),
    ...{ to: '/workshop/groundwork/desk#test', go: say('ground:step.emailGo') },
  },
  {
    key: 'calendar',
    state: counts.calendars > 0 ? 'laid' : 'missing',
    title: say('ground:step.calendar'),
    says:
      counts.calendars > 0
        ? say('ground:step.calendarDone', { count: counts.calendars })
        : say('ground:step.calendarMissing'),
    ...{ to: `/workshop/groundwork/calendars${calendar ? `/${calendar}` : ''}`, go: say('ground:step.calendarGo') },
  },
  {
    key: 'teams',
    state: counts.teams > 0 ? 'laid' : 'missing',
    title: say('ground:step.teams'),
    says: counts.teams > 0 ? say('ground:step.teamsDone', { count: counts.teams }) : say('ground:step.teamsMissing'),
    ...{ to: '/workshop/groundwork/groups', go: say('ground:step.teamsGo') },
  },
  {
    key: 'people',
    state: counts.people > 1 ? 'laid' : 'missing',
    title: say('ground:step.people'),
    says:
      counts.people > 1 ? say('ground:step.peopleDone', { count: counts.people }) : say('ground:step.peopleMissing'),
    ...{ to: '/workshop/groundwork/people', go: say('ground:step.peopleGo') },
  },
  {
    key: 'form',
    state: counts.forms > 0 ? 'laid' : 'missing',
    title: say('ground:step.form'),
    says: counts.forms > 0 ? say('ground:step.formDone', { count: counts.forms }) : say('ground:step.formMissing'),
    ...{ to: counts.forms > 0 ? '/workshop' : '/workshop/new', go: say('ground:step.formGo') },
  },
  {
    key: 'release',
    state: counts.released > 0 ? 'laid' : 'missing',
    title: say('ground:step.release'),
    says:
      counts.released > 0
        ? say('ground:step.releaseDone', { count: counts.released })
        : say('ground:step.releaseMissing'),
    ...{ to: '/workshop', go: say('ground:step.releaseGo') },
  },
];

/** What is laid, and what to lay next. */
export function Overview() {
  useTitle(say('ground:groundwork'));
  const { data, error, refetch } = groundApi.useGroundworkQuery();
  const steps = data ? stepsOf(data) : [];
  const next = steps.find(({ state }) => state !== 'laid');
  return (
    <main className="min-h-0 overflow-auto px-[26px] pt-5 pb-10">
      <div className="max-w-[46rem]">
        <h1>{say('ground:overview')}</h1>
        <p className="mt-1 text-soft">{next ? say('ground:nextIs', { step: next.title }) : say('ground:allLaid')}</p>
        {error ? <Trouble error={error} again={refetch} /> : null}
        <ol className="mt-5">
          {steps.map((step) => (
            <li
              key={step.key}
              className={`grid grid-cols-[26px_1fr_auto] items-baseline gap-x-3 border-b border-rule py-3.5 ${step === next ? 'bg-sheet shadow-[inset_3px_0_var(--green)]' : ''}`}
            >
              <StepMark state={step.state} />
              <span>
                <span className="subject text-[17px]">{step.title}</span>
                <span className="block text-soft">{step.says}</span>
              </span>
              <Link to={step.to} className={`pr-3 whitespace-nowrap ${step === next ? 'font-semibold' : ''}`}>
                {step.go}
              </Link>
            </li>
          ))}
        </ol>
      </div>
    </main>
  );
}

function StepMark({ state }: { state: Step['state'] }) {
  if (state === 'laid')
    return <Check aria-label={say('ground:isLaid')} size={17} className="ml-2 translate-y-1 text-green" />;
  if (state === 'wrong')
    return <TriangleAlert aria-label={say('ground:isWrong')} size={17} className="ml-2 translate-y-1 text-brick" />;
  return <CircleDashed aria-label={say('ground:isMissing')} size={17} className="ml-2 translate-y-1 text-soft" />;
}
