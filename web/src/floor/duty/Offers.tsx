import { toast } from 'sonner';
import { Button } from '../../ui/Button.tsx';
import { WholeTrouble } from '../../ui/Trouble.tsx';
import { say } from '../../wire/words.ts';
import { floorApi } from '../endpoints.ts';
import { type Duty, fromTo } from './duty.ts';

/** What others ask the reader to take over. */
export function Offers({ duty: { offered, rosters } }: { duty: Duty }) {
  const [answer, { isLoading, error }] = floorApi.useAnswerOfferMutation();
  if (offered.length === 0) return error ? <WholeTrouble error={error} className="mt-4" /> : null;
  const take = async (id: string): Promise<void> => {
    const answered = await answer({ id, body: { answer: 'take' } });
    if (!('error' in answered)) toast(say('rosters:taken'));
  };
  const asked = ({
    by,
    roster: key,
    ...when
  }: Pick<Duty['offered'][number], 'by' | 'roster' | 'from' | 'to'>): string => {
    const roster = rosters.find((each) => each.key === key);
    return say('rosters:asksYou', { by, roster: roster?.name ?? key, when: fromTo(when, roster?.zone ?? 'UTC') });
  };
  return (
    <section
      aria-label={say('rosters:asked')}
      className="mt-4 border-l-[3px] border-brass-mark bg-brass-wash px-4 py-2.5"
    >
      <ul>
        {offered.map(({ id, by, roster, from, to, note, person }) => (
          <li key={id} className="flex flex-wrap items-center gap-x-4 gap-y-1.5 py-1">
            <span className="min-w-0 flex-1">
              {asked({ by, roster, from, to })}
              {note ? <span className="block text-soft">{note}</span> : null}
            </span>
            <Button look="main" disabled={isLoading} onClick={() => void take(id)}>
              {say('rosters:take')}
            </Button>
            {person === null ? null : (
              <Button disabled={isLoading} onClick={() => void answer({ id, body: { answer: 'decline' } })}>
                {say('rosters:decline')}
              </Button>
            )}
          </li>
        ))}
      </ul>
      <WholeTrouble error={error} className="mt-2" />
    </section>
  );
}
