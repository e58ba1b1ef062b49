import { readFileSync } from 'node:fs';
import { join, relative, resolve } from 'node:path';
import { parseSync } from 'oxc-parser';
import { describe, expect, it } from 'vitest';
import { type Node, sourcesOf, walk } from './sources.ts';

/** Words that people read stand in the catalogues: core, contract and server give codes. */
const root = resolve(import.meta.dirname, '..');

/** Files with words of their own all the same, each with its reason. The list only gets shorter. */
const STAY: Readonly<Record<string, string>> = {
  'contract/src/openapi/': 'the document of the interface for programmers, in English (OpenAPI 3.1)',
  'contract/src/desk/routes.ts': 'summaries of that document',
  'contract/src/find/routes.ts': 'summaries of that document',
  'contract/src/forecast/routes.ts': 'summaries of that document',
  'contract/src/report/routes.ts': 'summaries of that document',
  'contract/src/service/routes.ts': 'summaries of that document',
  'contract/src/program/routes.ts': 'summaries of that document',
  'contract/src/roster/routes.ts': 'summaries of that document',
  'contract/src/house/routes.ts': 'summaries of that document',
  'contract/src/incoming/routes.ts': 'summaries of that document',
  'contract/src/intake/routes.ts': 'summaries of that document',
  'contract/src/notice/routes.ts': 'summaries of that document',
  'contract/src/view/': 'summaries of that document',
  'contract/src/workshop/': 'summaries of that document',
  'contract/src/groundwork/': 'summaries of that document',
  'contract/src/directory/': 'summaries of that document',
  'contract/src/form/shapes.ts': 'the title of a JSON Schema in docs',
  'core/src/expression/reference.ts': 'a page of docs, in English',
  'core/src/expression/functions/': 'the headings of that page',
  'core/src/expression/print.ts': 'how an expression is written',
  'core/src/expression/parse.ts': 'examples of what is written in an expression',
  'server/src/directory/discovery.ts': 'the name of a scheme, as RFC 7643 writes it',
  'server/src/platform/upgrade/': 'what earlier releases wrote, read to bring it along',
  'server/src/notice/packed.ts': 'what emails were packed with: bytes that stay, or none could be unpacked',
  'server/src/house/retention.ts': 'a table of docs/guide.md, held against it by a test',
  'web/src/app/Wordmark.tsx': 'a drawing',
  'server/src/files/unclaimed.ts': 'a row of that table',
};

/** Calls whose words nobody but programmers and operators reads. */
const OPERATORS = /^(error|warn|info|debug|log|prepare|exec|pragma|sql|set|raw|plugin)$/;

/** Reads like something said: three words or more, and a capital at its start or a sign at its end. */
function isSaid(text: string): boolean {
  const words = text.match(/\p{L}[\p{L}’'-]*/gu) ?? [];
  // A path, a name of a style and a mark of code have no two spaces, or signs that no sentence has.
  if (words.length < 3 || !/\s\S+\s/.test(text.trim()) || /[{};=<>_[\]]|say [a-z]+:/.test(text)) return false;
  return /^[“"]?\p{Lu}/u.test(text.trim()) || /[.?!:…]["”]?$/.test(text.trim());
}

const textOf = (node: Node): string | null =>
  node.type === 'Literal' && typeof node.value === 'string'
    ? node.value
    : node.type === 'TemplateLiteral'
      ? node.quasis.map((quasi: Node) => quasi.value.cooked).join('…')
      : null;

describe('core, contract and server', () => {
  const files = ['core/src', 'contract/src', 'server/src', 'web/src'].flatMap((folder) =>
    sourcesOf(join(root, folder)),
  );

  it('have no words of their own that people would read', () => {
    const found: string[] = [];
    const met = new Set<string>();
    let looked = 0;
    for (const path of files) {
      const file = relative(root, path);
      walk(parseSync(path, readFileSync(path, 'utf8')).program, (node, parents) => {
        const text = textOf(node);
        if (text === null) return;
        looked += 1;
        if (!isSaid(text)) return;
        const isOurs = parents.some(
          (each) =>
            (each.type === 'NewExpression' && /Error$/.test(each.callee?.name ?? '')) ||
            each.type === 'TaggedTemplateExpression' ||
            (each.type === 'CallExpression' &&
              OPERATORS.test(each.callee?.property?.name ?? each.callee?.name ?? '')) ||
            (each.type === 'JSXAttribute' && each.name.name === 'className'),
        );
        if (isOurs) return;
        const reason = Object.keys(STAY).find((place) => file.startsWith(place));
        if (reason) met.add(reason);
        else found.push(`${file}: ${text.slice(0, 100)}`);
      });
    }
    console.log(`${files.length} files, ${looked} texts looked at, ${Object.keys(STAY).length} places with a reason`);
    expect(looked).toBeGreaterThan(5_000);
    expect(found).toEqual([]);
    // Each reason is needed still.
    expect(Object.keys(STAY).filter((place) => !met.has(place))).toEqual([]);
  });
});
