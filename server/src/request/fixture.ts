import type { Database } from '../platform/database.ts';

/**
 * For tests: puts a bare request in, past the one writer, with what a test is about and nothing else.
 * Foreign keys have to be off.
 *
 * @param as columns by their names in the database
 */
export function insertRow(db: Database['$client'], id: string, as: Readonly<Record<string, unknown>>): void {
  const row: Record<string, unknown> = {
    number: id,
    register_id: '',
    form_id: '',
    release_id: '',
    door_id: '',
    requester_id: '',
    stage: '',
    phase: 'arrived',
    team: '',
    priority: 'normal',
    values: '{}',
    due: 0,
    created_at: 0,
    updated_at: 0,
    ...as,
    id,
  };
  const names = Object.keys(row);
  db.prepare(
    `INSERT INTO requests (${names.map((name) => `"${name}"`).join(', ')}) VALUES (${names.map(() => '?').join(', ')})`,
  ).run(...Object.values(row));
}
