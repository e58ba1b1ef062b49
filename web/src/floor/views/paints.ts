import type { AnswerOf } from '@tolvek/contract';
import type { Field } from '@tolvek/core/register';
import type { ChartShape } from '@tolvek/core/view';

type Values = AnswerOf<'lookAtChart'>['steps'];

const USUAL = '--green';
/** Colours for what has none of its own, one after the other. */
const OTHERS = [USUAL, ...['sea', 'sand', 'clay', 'heather', 'moss', 'slate'].map((name) => `--mark-${name}`)];

/** The colours that options have of their own, as custom properties; null where the field gives none. */
function ownOf(subject: string | null, values: Values, fields: readonly Field[]): readonly (string | null)[] | null {
  const type = fields.find(({ key }) => key === subject)?.type;
  if (type?.kind !== 'choice' || !type.options.some(({ colour }) => colour)) return null;
  return values.map(({ value }) => {
    const colour = type.options.find(({ key }) => key === value)?.colour;
    return colour ? `--mark-${colour}` : null;
  });
}

/** In which colours a chart is drawn, as custom properties: those of its options, as in a table; others in turn. */
export function paintsFor(
  { by, parts }: ChartShape,
  fields: readonly Field[],
  looked: Pick<AnswerOf<'lookAtChart'>, 'steps' | 'parts'>,
): { readonly steps: readonly string[]; readonly parts: readonly string[] | null } {
  const steps = ownOf(by, looked.steps, fields)?.map((each) => each ?? '--mark-slate');
  const own = ownOf(parts, looked.parts, fields);
  return {
    steps: steps ?? looked.steps.map(() => USUAL),
    parts:
      looked.parts.length === 0
        ? null
        : looked.parts.map((_, place) => own?.[place] ?? OTHERS[place % OTHERS.length] ?? USUAL),
  };
}
