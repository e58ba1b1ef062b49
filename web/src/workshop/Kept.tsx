import { Button } from '../ui/Button.tsx';
import { say, told } from '../wire/words.ts';
import type { Keeping } from './useEditing.ts';

type Edited = Pick<Keeping<object>, 'state' | 'trouble' | 'keepMine' | 'keepTheirs'>;

/** Where what was typed stands, and what to do where somebody else changed the same. */
export function Kept({ editing, className = '' }: { editing: Edited; className?: string }) {
  const words = {
    kept: 'workshop:saved',
    keeping: 'workshop:saving',
    'not kept': 'workshop:notSaved',
    'changed elsewhere': 'workshop:changedByOther',
  } as const;
  const bad = editing.state === 'not kept' || editing.state === 'changed elsewhere';
  return (
    <div className={`text-[12.5px] ${bad ? 'text-brick' : 'text-soft'} ${className}`} aria-live="polite">
      {say(words[editing.state])}
      {bad ? <p className="mt-1">{told(editing.trouble)}</p> : null}
      {editing.state === 'changed elsewhere' ? (
        <p className="mt-2 flex flex-col items-start gap-1">
          <Button onClick={() => void editing.keepMine()}>{say('workshop:keepMine')}</Button>
          <Button onClick={() => void editing.keepTheirs()}>{say('workshop:keepTheirs')}</Button>
        </p>
      ) : null}
    </div>
  );
}
