import type { FormDesign } from './design.ts';

/** What a draft would change against a release, in words, in the order of work. */
export function compareDesigns(before: FormDesign | null, after: FormDesign): readonly string[] {
  if (!before) return [`First release: ${after.questions.length} questions.`];
  const changes: string[] = [];
  const label = (key: string): string => after.fields.find((field) => field.key === key)?.label ?? before.fields.find((field) => field.key === key)?.label ?? key;
  const differs = (a: unknown, b: unknown): boolean => JSON.stringify(a) !== JSON.stringify(b);

  if (before.title !== after.title) changes.push(`Title: “${before.title}” becomes “${after.title}”.`);
  if (before.intro !== after.intro) changes.push('The introduction changes.');
  if (before.subject !== after.subject) changes.push('What requests are called in lists changes.');
  for (const field of after.fields) {
    const old = before.fields.find((each) => each.key === field.key);
    if (!old) changes.push(`New field in the register: “${field.label}”${field.source === 'desk-only' ? ', desk-only' : ''}.`);
    else if (old.label !== field.label) changes.push(`Field “${old.label}” is now called “${field.label}”.`);
    if (old && differs(old.type, field.type)) changes.push(`“${field.label}”: its options or limits change.`);
  }
  for (const question of after.questions) {
    const old = before.questions.find((each) => each.field === question.field);
    if (!old) changes.push(`“${label(question.field)}” is asked.`);
    else {
      if (old.required !== question.required) changes.push(`“${label(question.field)}” ${question.required ? 'becomes required' : 'is no longer required'}.`);
      if (old.asks !== question.asks || old.help !== question.help) changes.push(`“${label(question.field)}”: its wording changes.`);
    }
  }
  for (const question of before.questions) {
    if (!after.questions.some((each) => each.field === question.field)) changes.push(`“${label(question.field)}” is no longer asked; what was answered stays.`);
  }
  const kept = (design: FormDesign, other: FormDesign): string[] => design.questions.map((q) => q.field).filter((key) => other.questions.some((q) => q.field === key));
  if (differs(kept(before, after), kept(after, before))) changes.push('The order of the questions changes.');
  if (differs(before.rules, after.rules)) changes.push('The form rules change.');
  if (differs(before.routing, after.routing)) changes.push('The routing table changes.');
  if (differs(before.approval, after.approval)) changes.push('The approval path changes.');
  if (differs(before.deadline, after.deadline)) changes.push('The deadline plan changes.');
  return changes;
}
