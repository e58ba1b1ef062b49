import { count, type SQL, sql } from 'drizzle-orm';
import { emailFiles } from '../files/tables.ts';
import type { Reader } from '../platform/database.ts';
import { prepared } from '../platform/prepared.ts';
import { incomingEmails } from './tables.ts';

const held = prepared((db) => db.select({ n: count() }).from(incomingEmails).where(sql`state = 'held'`).prepare());

/** How many emails wait for somebody to say what becomes of them. */
export const emailsHeld = (db: Reader): number => held(db).get()?.n ?? 0;

const HOUR = 3_600_000;

/** Files whose email is kept no longer, or never came to be kept: they come before it, and it comes at once. */
export const filesOfNoEmail = (now: number): SQL =>
  sql`${emailFiles.createdAt} < ${now - HOUR} and ${emailFiles.emailId} not in (select ${incomingEmails.id} from ${incomingEmails})`;
