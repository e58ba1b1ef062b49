import { type AskedForm, addedParts, type Edition, type FormDesign, type Instruction, partKey } from '../design.ts';
import { placesOf } from '../layout.ts';
import { editionOf } from './editionOf.ts';

/** How an edition lays out a request that is there: what it leaves out and locks, and what it says. It protects nothing. */
export interface Layout {
  readonly edition: Edition;
  /** Whether a field is not shown. */
  readonly leavesOut: (field: string) => boolean;
  /** Whether a field is shown and can’t be changed. */
  readonly locks: (field: string) => boolean;
  /** The form as the edition has it. */
  readonly form: AskedForm;
  /** What it says beside the request. */
  readonly words: readonly Instruction[];
}

/**
 * How an edition lays out requests by a form. What it hides or locks may be any field, asked or not; what stands under a
 * heading that it hides is not shown either.
 */
export function layoutOf(design: Pick<FormDesign, 'fields' | 'parts' | 'rules'>, edition: Edition): Layout {
  const { differences, readOnly } = edition;
  const form = editionOf(design, edition);
  const there = new Set(form.parts.map(partKey));
  const gone = new Set(
    placesOf(design.parts).flatMap(({ part, key }) => (part.part === 'question' && !there.has(key) ? [key] : [])),
  );
  const named = (does: 'hide' | 'lock'): ReadonlySet<string> =>
    new Set(differences.flatMap((each) => (each.does === does ? [each.part] : [])));
  const [hidden, locked] = [named('hide'), named('lock')];
  const only = differences.find((each) => each.does === 'only');
  const shows = only && new Set(only.shows);
  const added = addedParts(differences).filter((adds) => adds.part === 'instruction');
  return {
    ...{ edition, form },
    leavesOut: (field) => gone.has(field) || hidden.has(field) || (shows !== undefined && !shows.has(field)),
    locks: (field) => readOnly === true || locked.has(field),
    words: added.filter(({ id }) => there.has(id)),
  };
}
