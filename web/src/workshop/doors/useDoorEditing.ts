import type { AnswerOf } from '@tolvek/contract';
import { DOOR, type DoorDesign } from '@tolvek/core/door';
import { useState } from 'react';
import { toast } from 'sonner';
import { say } from '../../wire/words.ts';
import { workshopApi } from '../endpoints.ts';

/** A door that is being changed: what it would be, what is wrong with that, and the step that puts it in force. */
export function useDoorEditing(opened: AnswerOf<'doorDesign'>) {
  const [door, setDoor] = useState<DoorDesign>(opened.door);
  const [note, setNote] = useState('');
  const [put, { isLoading, error, reset }] = workshopApi.useChangeDoorMutation();
  return {
    ...{ door, note, setNote, isLoading, error },
    set: (change: (before: DoorDesign) => DoorDesign): void => {
      reset();
      setDoor(change);
    },
    changes: DOOR.compare(opened.door, door),
    found: DOOR.findings(door, null),
    /** Whether it is in force now. */
    save: async (): Promise<boolean> => {
      const saved = await put({ slug: opened.slug, version: opened.version, body: { door, note } });
      if ('error' in saved) return false;
      toast(say('workshop:doors.saved'));
      return true;
    },
  };
}
