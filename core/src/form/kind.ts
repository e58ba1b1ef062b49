import { said } from '@tolvek/words';
import { calendarsOf } from '../deadline/index.ts';
import type { DesignKind } from '../design/index.ts';
import { designsNamed } from '../register/index.ts';
import { programsOf, USUAL_NOTICES } from '../telling/index.ts';
import { compareDesigns } from './compare.ts';
import type { FormDesign } from './design.ts';
import { findingsOf, type Surroundings } from './findings/findings.ts';
import { mergeDesigns } from './merge.ts';
import { profileNamed } from './requesterRead.ts';
import { rostersNamed } from './rostersNamed.ts';
import { groupsNamed } from './takeAlong.ts';

/** Forms as designs. */
export const FORM: DesignKind<FormDesign, Surroundings> = {
  kind: 'form',
  titleOf: (form) => form.title,
  compare: compareDesigns,
  merge: mergeDesigns,
  findings: findingsOf,
  refersTo: (form) => [
    ...designsNamed(form.fields),
    ...groupsNamed(form),
    ...profileNamed(form),
    ...calendarsOf(form.deadline).map((key) => ({ kind: 'calendar' as const, key, at: said('pages:approval') })),
    ...rostersNamed(form),
    ...programsOf(form.notices ?? USUAL_NOTICES).map((key) => ({ kind: 'program', key, at: said('pages:notices') })),
  ],
};
