import { desc, eq } from 'drizzle-orm';
import type { Reader } from '../platform/database.ts';
import { approvals } from './tables.ts';

export type ApprovalRow = typeof approvals.$inferSelect;

export function approvalOf(db: Reader, requestId: string): ApprovalRow | undefined {
  return db.select().from(approvals).where(eq(approvals.requestId, requestId)).orderBy(desc(approvals.id)).get();
}
