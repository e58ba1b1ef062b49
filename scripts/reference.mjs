// Writes the pages of docs that are made from tables: the expressions, from those the engine runs
// on; the kinds, from those that are tried; the form file.
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { register } from 'tsx/esm/api';

register();
const { referenceInMarkdown } = await import('../core/src/expression/reference.ts');
const { english } = await import('../words/src/english.ts');
writeFileSync(join(import.meta.dirname, '../docs/expressions.md'), referenceInMarkdown(english));
const { matrixPage } = await import('../e2e/house/kindMatrix.ts');
writeFileSync(join(import.meta.dirname, '../docs/kinds.md'), matrixPage());
const { formFileJsonSchema } = await import('../contract/src/index.ts');
writeFileSync(
  join(import.meta.dirname, '../docs/form-file.schema.json'),
  `${JSON.stringify(formFileJsonSchema(), null, 2)}\n`,
);
