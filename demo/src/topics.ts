import type { FormDesign } from '@tolvek/core/form';

/** Under which heading a form stands on the Front desk, by its title; the others stand under none. */
const TOPICS: Readonly<Record<string, string>> = {
  'Come on site': 'Visits',
  'School visit': 'Visits',
  'Vessel time': 'Boats and diving',
  'Dive plan': 'Boats and diving',
  'Sample analysis': 'The laboratory',
  Purchase: 'Kit and purchases',
  'Field kit loan': 'Kit and purchases',
};

/** A form under its heading. */
export function underTopic(design: FormDesign): FormDesign {
  const topic = TOPICS[design.title];
  return topic === undefined ? design : { ...design, topic };
}
