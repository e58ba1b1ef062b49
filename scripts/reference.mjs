// Writes docs/expressions.md from the tables the expression engine runs on.
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { register } from 'tsx/esm/api';

register();
const { referenceInMarkdown } = await import('../core/src/expression/reference.ts');
writeFileSync(join(import.meta.dirname, '../docs/expressions.md'), referenceInMarkdown());
