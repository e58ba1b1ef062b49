import { Button } from '../ui/Button.tsx';
import type { Keeping } from './useEditing.ts';

type Edited = Pick<Keeping<object>, 'state' | 'trouble' | 'keepMine' | 'keepTheirs'>;

/** Where what was typed stands, and what to do where somebody else changed the same. */
export function Kept({ editing, className = '' }: { editing: Edited; className?: string }) {
  const words = {
    kept: 'All kept',
    keeping: 'Keeping …',
    'not kept': 'Not kept',
    'changed elsewhere': 'Changed by somebody else',
  }[editing.state];
  const bad = editing.state === 'not kept' || editing.state === 'changed elsewhere';
  return (
    <div className={`text-[12.5px] ${bad ? 'text-brick' : 'text-soft'} ${className}`} aria-live="polite">
      {words}
      {bad ? <p className="mt-1">{editing.trouble}</p> : null}
      {editing.state === 'changed elsewhere' ? (
        <p className="mt-2 flex flex-col items-start gap-1">
          <Button onClick={() => void editing.keepMine()}>Keep mine</Button>
          <Button onClick={() => void editing.keepTheirs()}>Take theirs</Button>
        </p>
      ) : null}
    </div>
  );
}
