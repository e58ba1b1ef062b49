import type { AboutRegister } from '@tolvek/contract';
import { registerOfDoor } from '../door/queries.ts';
import { formByKey } from '../form/queries.ts';
import { registerOfMailing } from '../mailing/queries.ts';
import type { Reader } from '../platform/database.ts';
import { registerByKey } from '../register/queries.ts';

/** The register that a form, a register, a door or a mailing is about. */
export function registerAbout(db: Reader, by: AboutRegister['by'], key: string): string | null {
  switch (by) {
    case 'register':
      return registerByKey(db, key)?.id ?? null;
    case 'form':
      return formByKey(db, key)?.registerId ?? null;
    case 'door':
      return registerOfDoor(db, key);
    case 'mailing':
      return registerOfMailing(db, key);
  }
}
