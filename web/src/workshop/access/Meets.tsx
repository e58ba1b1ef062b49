import { say } from '../../wire/words.ts';
import type { Plan } from './usePlan.ts';

/** Whom a rule means today, by name; nobody, and those whom its exception catches, are said. `short`: many are only counted. */
export function Meets({ told, short = false }: { told: Plan['told'][string] | undefined; short?: boolean }) {
  if (!told) return <span className="text-soft">…</span>;
  const { people, names, caught, byRequest } = told;
  const more = people - names.length;
  // Who is meant by what they are to a request is somebody else on each.
  if (people === 0 && byRequest) return <span className="text-soft">{say('accessPlan:otherOnEach')}</span>;
  return (
    <span aria-live="polite">
      {people === 0 ? (
        <span className="text-brick">{say('accessPlan:nobodyToday')}</span>
      ) : (
        say(more === 0 ? 'accessPlan:people' : short ? 'accessPlan:peopleCount' : 'accessPlan:peopleAndMore', {
          count: people,
          names,
          more,
        })
      )}
      {caught.length > 0 ? (
        <span className="block text-brick">{say('accessPlan:caught', { names: caught })}</span>
      ) : null}
    </span>
  );
}
