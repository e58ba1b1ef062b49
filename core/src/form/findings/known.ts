import { said } from '@tolvek/words';
import type { Scope } from '../../expression/index.ts';
import { type Field, isFilled, type ProfileField } from '../../register/index.ts';
import { type FormDesign, questionsOf } from '../design.ts';
import { presetFindings } from './fields.ts';
import type { Add } from './finding.ts';
import { presetFromProfile } from './fix.ts';

const plain = (label: string): string => label.trim().toLowerCase();

/** Whether a field and one of people’s profiles hold the same: of a choice, the same options. */
const holdsAlike = (field: Field, { type }: ProfileField): boolean =>
  field.type.kind === type.kind &&
  (field.type.kind !== 'choice' ||
    type.kind !== 'choice' ||
    field.type.options.every(({ key }) => type.options.some((option) => option.key === key)));

/**
 * Questions that ask what is known of whoever fills the form in: what stands in their profile, or what they say at a door
 * for people from outside before they send. Nothing is found where the answer is filled in beforehand.
 */
export function knownFindings(
  design: FormDesign,
  {
    profile,
    outside,
    scope,
  }: { readonly profile: readonly ProfileField[]; readonly outside: boolean; readonly scope: Scope },
  add: Add,
): void {
  const asked = new Map(questionsOf(design.parts).map((question) => [question.field, question]));
  for (const field of design.fields) {
    const question = asked.get(field.key);
    if (!question || !isFilled(field) || field.preset) continue;
    const { label } = field;
    const known = profile.find((each) => plain(each.label) === plain(label) && holdsAlike(field, each));
    if (known) {
      const fix = { fix: 'preset-profile', field: field.key, profile: known.key } as const;
      add(
        'caution',
        'questions',
        field.key,
        said('findings:knownFromProfile', { label }),
        canPreset(design, fix, scope) ? fix : undefined,
      );
    } else if (outside && field.type.kind === 'email' && question.required)
      add('caution', 'questions', field.key, said('findings:knownFromDoor', { label }));
  }
}

/** Whether what stands in the profile can be filled in as it is. */
function canPreset(
  design: FormDesign,
  { field: key, profile }: { readonly field: string; readonly profile: string },
  scope: Scope,
): boolean {
  const after = presetFromProfile(design, key, profile);
  const field = after.fields.find((each) => each.key === key);
  let isFine = field !== undefined;
  if (field && isFilled(field)) presetFindings(field, after, scope, () => void (isFine = false));
  return isFine;
}
