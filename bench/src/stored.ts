/** What a submit stores rows in, each table after those it refers to. */
export const STORED_TABLES: readonly string[] = [
  ...['requests', 'history', 'deadlines', 'timers', 'approval_rounds', 'approval_steps', 'seats', 'links'],
  ...['notices', 'idempotency', 'claims', 'pointers'],
];
