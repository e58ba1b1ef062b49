import type { AnswerOf, BodyOf } from '@tolvek/contract';
import { absenceInWords } from '@tolvek/core/people';
import { useDeferredValue, useState } from 'react';
import { DaySpan } from '../fields/DaySpan.tsx';
import { FindWho } from '../fields/FindWho.tsx';
import { useDaysMeant } from '../fields/useDaysMeant.ts';
import { Button } from '../ui/Button.tsx';
import { ProblemsAt } from '../ui/ProblemsAt.tsx';
import { WholeTrouble } from '../ui/Trouble.tsx';
import { say, told } from '../wire/words.ts';
import { startApi } from './endpoints.ts';

type Absence = AnswerOf<'account'>['absences'][number];

interface AbsencesProps {
  readonly absences: readonly Absence[];
  /** Whose place they take today, by name. */
  readonly standsIn: readonly string[];
  /** Who is away, by id: nobody takes their own place. */
  readonly person: string;
  /** Says that they are away; whether that was taken. */
  readonly add: (body: BodyOf<'addAbsence'>) => Promise<boolean>;
  readonly end: (id: string) => void;
  readonly busy: boolean;
  /** What was wrong with what was added. */
  readonly error: unknown;
}

/** When somebody is away, and who decides in their place meanwhile. */
export function Absences({ absences, standsIn, person, add, end, busy, error }: AbsencesProps) {
  const [open, setOpen] = useState(false);
  return (
    <>
      {standsIn.length > 0 ? <p className="mt-2">{say('absences:standsInFor', { names: standsIn })}</p> : null}
      <ul>
        {absences.map(({ id, from, until, substitute, now }) => (
          <li key={id} className="flex flex-wrap items-baseline justify-between gap-3 border-b border-rule py-2">
            <span>
              {told(absenceInWords({ from, until }))}
              {now ? <strong> · {say('absences:awayNow')}</strong> : null}
              <span className="block text-[12.5px] text-soft">
                {substitute ? say('absences:awayWith', { name: substitute.name }) : say('absences:awayAlone')}
              </span>
            </span>
            <Button disabled={busy} onClick={() => end(id)}>
              {say('absences:endAbsence')}
            </Button>
          </li>
        ))}
        {absences.length === 0 ? <li className="py-1.5 text-soft">{say('absences:noAbsence')}</li> : null}
      </ul>
      {open ? (
        <NewAbsence
          {...{ person, busy, error }}
          add={async (body) => {
            if (await add(body)) setOpen(false);
          }}
          cancel={() => setOpen(false)}
        />
      ) : (
        <p className="mt-2.5">
          <Button onClick={() => setOpen(true)}>{say('absences:addAbsence')}</Button>
        </p>
      )}
    </>
  );
}

interface NewAbsenceProps extends Pick<AbsencesProps, 'person' | 'busy' | 'error'> {
  readonly add: (body: BodyOf<'addAbsence'>) => Promise<void>;
  readonly cancel: () => void;
}

function NewAbsence({ person, busy, error, add, cancel }: NewAbsenceProps) {
  const [days, setDays] = useState({ from: '', until: '' });
  const [substitute, setSubstitute] = useState<string | null>(null);
  const meant = useDaysMeant();
  return (
    <div className="mt-2.5 grid max-w-[26rem] gap-2 border-l-[3px] border-green pl-3">
      <p className="text-[13px] text-soft">{say('absences:absencesHint')}</p>
      <DaySpan
        id="away"
        labels={{ from: say('absences:firstDay'), until: say('absences:lastDay') }}
        days={days}
        set={setDays}
        error={error}
      />
      <div>
        <PickColleague label={say('absences:substitute')} not={person} choose={setSubstitute} />
        <ProblemsAt error={error} field="substitute" />
      </div>
      <WholeTrouble error={error} />
      <p className="mt-2 flex gap-2">
        <Button
          look="main"
          disabled={busy || days.from === ''}
          onClick={async () => {
            const { from, until } = await meant(days);
            await add({ from, until: until || null, substitute });
          }}
        >
          {say('absences:addAbsence')}
        </Button>
        <Button onClick={cancel}>{say('common:cancel')}</Button>
      </p>
    </div>
  );
}

interface PickColleagueProps {
  readonly label: string;
  /** Who is not offered, by id. */
  readonly not: string;
  readonly choose: (id: string | null) => void;
}

/** One of the staff, found by typing; each with the address, so that namesakes are told apart. */
function PickColleague({ label, not, choose }: PickColleagueProps) {
  const [find, setFind] = useState('');
  const looking = useDeferredValue(find.trim());
  const { data } = startApi.useColleaguesQuery({ query: { find: looking } });
  return (
    <FindWho
      id="colleague"
      label={label}
      placeholder={say('absences:findColleague')}
      none={say('absences:nobodyFound')}
      people={(data?.people ?? [])
        .filter(({ id }) => id !== not)
        .map(({ id, name, email, away, portrait }) => ({
          ...{ id, name, portrait },
          detail: away ? `${email} · ${say('absences:awayNow')}` : email,
        }))}
      find={setFind}
      choose={(who) => choose(who && 'person' in who ? who.person : null)}
    />
  );
}
