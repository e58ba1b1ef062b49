import type { AnswerOf } from '@tolvek/contract';
import type { DoorDesign } from '@tolvek/core/door';
import { useEffect } from 'react';
import { say } from '../../wire/words.ts';
import { workshopApi } from '../endpoints.ts';

/** How long typing rests before it is asked whom a door would mean. */
const REST = 400;

type Some = AnswerOf<'tryDoor'>['comeIn'];

/** How many people a door means as it is written, and who comes in, drops out or is left out by that. */
export function DoorReach({ slug, door }: { slug: string; door: DoorDesign }) {
  const [look, { data }] = workshopApi.useTryDoorMutation();
  const { audience, proof, onlySent } = door;
  const asked = JSON.stringify({ audience, proof, onlySent });
  // biome-ignore lint/correctness/useExhaustiveDependencies: what else is set of a door changes nothing about whom it means
  useEffect(() => {
    const waiting = setTimeout(() => void look({ slug, body: { door } }), REST);
    return () => clearTimeout(waiting);
  }, [slug, asked, look]);
  if (!data) return null;
  const line = (words: 'comeIn' | 'dropOut' | 'leftOut', { n, names }: Some, look_ = '') =>
    n === 0 ? null : (
      <span className={`block ${look_}`}>
        {say(n > names.length ? `workshop:doors.${words}More` : `workshop:doors.${words}`, {
          names,
          count: n - names.length,
        })}
      </span>
    );
  return (
    <span className="block text-[13px]" aria-live="polite">
      <span className="text-soft">
        {onlySent
          ? say('workshop:doors.meansSent')
          : proof === 'sign-in'
            ? say('workshop:doors.meansStaff', { count: data.staff })
            : say('workshop:doors.means', { staff: data.staff, contacts: data.contacts })}
      </span>
      {line('comeIn', data.comeIn)}
      {line('dropOut', data.dropOut, 'text-brick')}
      {line('leftOut', data.leftOut, 'text-soft')}
    </span>
  );
}
