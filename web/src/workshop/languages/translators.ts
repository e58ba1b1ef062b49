import type { TextUnit, UnitOut } from '@tolvek/core/form';
import type { Language } from '../../wire/words.ts';

/** What a file for translators holds: one language into another. */
export interface TranslatorsFile {
  readonly from: string;
  readonly to: string;
  readonly units: readonly TextUnit[];
}

type Piece = string | { readonly [kind: string]: { readonly contents?: Text } };
type Text = string | readonly Piece[] | null | undefined;

/** What is written in a text, without what a translator’s tool marked in it. */
function plain(text: Text): string {
  if (text === null || text === undefined) return '';
  if (typeof text === 'string') return text;
  return text
    .map((piece) =>
      typeof piece === 'string'
        ? piece
        : Object.values(piece)
            .map(({ contents }) => plain(contents))
            .join(''),
    )
    .join('');
}

/**
 * Texts as a file of the open standard for translators (XLIFF 2, OASIS). `noteOf`: what a text is, beside it.
 */
export async function writeTranslators(
  units: readonly UnitOut[],
  { from, to, noteOf }: { readonly from: Language; readonly to: Language; readonly noteOf: (unit: UnitOut) => string },
): Promise<string> {
  const { js2xliff } = await import('xliff');
  const form = Object.fromEntries(
    units.map((unit) => [
      unit.id,
      { source: unit.source, ...(unit.target === '' ? {} : { target: unit.target }), note: noteOf(unit) },
    ]),
  );
  return await js2xliff({ resources: { form }, sourceLanguage: from, targetLanguage: to });
}

/** Reads such a file; null where it is none. */
export async function readTranslators(content: string): Promise<TranslatorsFile | null> {
  const { xliff2js } = await import('xliff');
  try {
    const { resources, sourceLanguage: from, targetLanguage: to } = await xliff2js(content);
    if (!resources) return null;
    const units = Object.values(resources).flatMap((form) =>
      Object.entries(form).map(([id, { source, target }]) => ({
        ...{ id, source: plain(source as Text), target: plain(target as Text) },
      })),
    );
    return units.length > 0 ? { from: from ?? '', to: to ?? '', units } : null;
  } catch {
    return null;
  }
}
