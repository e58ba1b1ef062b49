import { said } from '@tolvek/words';
import { type FormDesign, fieldsAsked } from '../design.ts';
import { OWN_REQUESTS } from '../updates.ts';
import type { Add } from './finding.ts';

/** Where a form that changes what is there would find nothing, add what is nobody’s, or write where it can’t. */
export function updatesFindings({ updates, fields, parts }: FormDesign, outside: boolean, add: Add): void {
  if (!updates) return;
  const error = (message: Parameters<Add>[3]): void => add('error', 'questions', 'updates', message);
  const called = new Map(fields.map((field) => [field.key, field]));
  const asked = fieldsAsked(parts);
  const { whose, by, none, stamps } = updates;
  if (whose !== OWN_REQUESTS) {
    const field = called.get(whose);
    if (field?.type.kind !== 'person') error(said('findings:updatesWhose'));
    else if (none === 'add' && !asked.has(whose)) error(said('findings:updatesNobody', { label: field.label }));
    if (field && outside)
      add('caution', 'questions', 'updates', said('findings:updatesOutside', { label: field.label }));
  }
  for (const key of by) {
    const label = called.get(key)?.label ?? key;
    if (!asked.has(key)) error(said('findings:updatesBy', { label }));
    if (key === whose) error(said('findings:updatesByWhose', { label }));
  }
  if ([...asked].every((key) => key === whose || by.includes(key))) error(said('findings:updatesNothing'));
  const stamped = stamps === undefined ? undefined : called.get(stamps);
  if (stamps !== undefined && !(stamped?.type.kind === 'date' && stamped.source === 'desk-only'))
    error(said('findings:updatesStamp'));
}
