import { said } from '@tolvek/words';
import { type AccessPlan, prepareAccess } from '../../access/index.ts';
import { STRANGER } from '../../people/index.ts';
import { type FormDesign, fieldsAsked } from '../design.ts';
import { protectionOf } from '../protection.ts';
import type { Add } from './finding.ts';

/**
 * Fields that nobody is asked and that people from outside read on their page by the desk’s own name for them: computed ones,
 * and those that staff fill in where the plan opens them to whoever asked. What is asked is worded where it is asked, by this form or
 * another one of its register.
 */
export function publicNameFindings(
  design: FormDesign,
  {
    plan,
    outside,
    askedElsewhere,
  }: { readonly plan: AccessPlan; readonly outside: boolean; readonly askedElsewhere: readonly string[] },
  add: Add,
): void {
  if (!outside) return;
  const asked = new Set([...fieldsAsked(design.parts), ...askedElsewhere]);
  const unnamed = design.fields.filter(({ key, called }) => !asked.has(key) && (called ?? '').trim() === '');
  if (unnamed.length === 0) return;
  const { fields } = design;
  const reading = prepareAccess(protectionOf(plan, { fields, release: null }))({
    viewer: STRANGER,
    relation: { isDesk: false, isRequester: true },
    purpose: 'following',
    at: { stage: '', day: '', holds: () => false },
  });
  const read = unnamed.filter(({ key }) => reading.levelOf(key).level !== 'hidden');
  const [first] = read;
  if (!first) return;
  const message = said('findings:publicNames', { fields: read.map(({ label }) => label), count: read.length });
  add('caution', 'questions', first.key, message, { fix: 'call-so', fields: read.map(({ key }) => key) });
}
