import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { join, relative, resolve } from 'node:path';
import { all } from '@tolvek/words/all';
import { parseSync } from 'oxc-parser';
import { describe, expect, it } from 'vitest';
import { type Node, sourcesOf, walk } from './sources.ts';

/** Texts stand in the catalogues: a page says keys. */
const root = resolve(import.meta.dirname, '..');

/** Attributes that people read or hear. */
const READ = ['aria-label', 'title', 'placeholder', 'alt', 'label', 'aria-description', 'name'];
/** Texts that stand in a page all the same, each with its reason. The list only gets shorter. */
const STAY: Readonly<Record<string, string>> = {
  Tolvek: 'the name of the product',
  'name@example.org': 'an address that reads the same everywhere',
  'it.': 'what an expression writes',
  name: 'the same, where a register has no field yet',
};
/** Words of any language: two letters or more, and not a lone sign, name of a field in a form or a code. */
const isWords = (text: string): boolean => /\p{L}{2,}/u.test(text) && !Object.hasOwn(STAY, text.trim());
const isKey = (text: string): boolean => /^[a-z][A-Za-z]+:[\w.-]+$/.test(text);

/** The texts that an expression can come to, as far as they stand in it: the ways of a condition, and what is joined. */
function leaves(node: Node): readonly string[] {
  switch (node?.type) {
    case 'Literal':
      return typeof node.value === 'string' ? [node.value] : [];
    case 'ConditionalExpression':
      return [...leaves(node.consequent), ...leaves(node.alternate)];
    case 'LogicalExpression':
      return [...leaves(node.left), ...leaves(node.right)];
    case 'ParenthesizedExpression':
      return leaves(node.expression);
    case 'TemplateLiteral':
      return [...node.quasis.map((quasi: Node) => quasi.value.cooked), ...node.expressions.flatMap(leaves)];
    default:
      return [];
  }
}

describe('a page', () => {
  const files = sourcesOf(join(root, 'web/src')).filter((path) => path.endsWith('.tsx'));
  const trees = files.map(
    (path) => [relative(root, path), parseSync(path, readFileSync(path, 'utf8')).program] as const,
  );

  it('has no text of its own, in its elements or in what is read out', () => {
    const found: string[] = [];
    let looked = 0;
    for (const [path, tree] of trees)
      walk(tree, (node, parents) => {
        if (node.type === 'JSXText') {
          looked += 1;
          if (isWords(node.value)) found.push(`${path}: ${node.value.trim()}`);
        }
        if (node.type === 'JSXAttribute' && node.value?.type === 'Literal' && READ.includes(String(node.name.name))) {
          looked += 1;
          const element = parents.find((each) => each.type === 'JSXOpeningElement')?.name?.name;
          // What a program reads: the name of an input in its form.
          const isProgram = node.name.name === 'name' && typeof element === 'string' && /^[a-z]/.test(element);
          if (!isProgram && isWords(String(node.value.value)) && !isKey(String(node.value.value)))
            found.push(`${path}: ${node.name.name}="${node.value.value}"`);
        }
        // `${label}: ${text}` joins words of others; a word between them would be its own.
        if (node.type === 'TemplateLiteral') {
          const at = parents.find((each) => each.type === 'JSXAttribute' || each.type === 'JSXElement');
          const isRead = at?.type === 'JSXAttribute' && READ.includes(String(at.name.name));
          const inCall = parents.slice(0, parents.indexOf(at)).some((each) => each.type === 'CallExpression');
          const own = node.quasis.map((quasi: Node) => quasi.value.cooked).filter(isWords);
          if (isRead) looked += 1;
          if (isRead && !inCall && own.length > 0) found.push(`${path}: ${at.name.name}={\`${own.join('…')}\`}`);
        }
        if (node.type === 'Property' && ['label', 'title', 'says'].includes(node.key?.name)) {
          looked += 1;
          const value = node.value?.type === 'Literal' ? node.value.value : null;
          if (typeof value === 'string' && isWords(value) && !isKey(value))
            found.push(`${path}: ${node.key.name}: '${value}'`);
        }
        if (node.type === 'JSXExpressionContainer') {
          const at = parents[0];
          const isRead = at?.type === 'JSXAttribute' ? READ.includes(String(at.name.name)) : true;
          for (const text of isRead ? leaves(node.expression) : [])
            if (isWords(text) && !isKey(text)) found.push(`${path}: {${text}}`);
        }
      });
    console.log(`${files.length} files of pages, ${looked} places looked at`);
    expect(looked).toBeGreaterThan(500);
    expect(found).toEqual([]);
  });

  it('says the texts of its tables of keys, and never shows the keys', () => {
    const shown: string[] = [];
    let tables = 0;
    for (const [path, tree] of trees) {
      const names = new Set<string>();
      walk(tree, (node) => {
        const object = node.type === 'VariableDeclarator' ? unwrapped(node.init) : null;
        if (object?.type !== 'ObjectExpression') return;
        const values = object.properties
          .map((each: Node) => each.value?.value)
          .filter((each: unknown) => typeof each === 'string');
        if (values.length > 0 && values.every(isKey)) names.add(node.id.name);
      });
      tables += names.size;
      // In an element, a key stands in a call that says it.
      walk(tree, (node, parents) => {
        if (node.type !== 'MemberExpression' || !names.has(node.object?.name)) return;
        const upTo = parents.findIndex((each) => each.type.startsWith('JSX'));
        const between = upTo < 0 ? parents : parents.slice(0, upTo);
        if (upTo >= 0 && !between.some((each) => each.type === 'CallExpression')) {
          const attribute = parents.find((each) => each.type === 'JSXAttribute');
          if (attribute?.name.name !== 'text') shown.push(`${path}: ${node.object.name}`);
        }
      });
      walk(tree, (node) => {
        if (node.type !== 'CallExpression' || node.callee?.property?.name !== 'map') return;
        const source = node.callee.object;
        const table =
          source?.type === 'CallExpression' && source.callee?.object?.name === 'Object'
            ? source.arguments[0]?.name
            : null;
        if (!names.has(table)) return;
        const parameter = node.arguments[0]?.params?.[0];
        const value = parameter?.type === 'ArrayPattern' ? parameter.elements[1]?.name : parameter?.name;
        walk(node.arguments[0].body, (inner, parents) => {
          if (inner.type === 'Identifier' && inner.name === value && parents[0]?.type === 'JSXExpressionContainer')
            shown.push(`${path}: ${table}`);
        });
      });
    }
    expect(tables).toBeGreaterThan(8);
    expect(shown).toEqual([]);
  });
});

/** What each zone’s texts come with, and whose words it says: folders of pages, and of what answers them. */
const SAID_IN: readonly {
  readonly zone: string;
  readonly bundles: readonly string[];
  readonly folders: readonly string[];
}[] = [
  {
    zone: 'Front desk',
    bundles: ['front'],
    folders: [
      'web/src/front-desk',
      'web/src/app',
      'web/src/ui',
      'web/src/fields',
      'web/src/wire',
      'server/src/intake',
      'server/src/platform',
      'server/src/files',
      'server/src/door',
      'core/src/door',
      'core/src/files',
      'contract/src',
    ],
  },
  {
    zone: 'Floor',
    bundles: ['front', 'floorZone'],
    folders: [
      'web/src/floor',
      'web/src/mailroom',
      'server/src/view',
      'server/src/desk',
      'server/src/request',
      'server/src/notice',
      'core/src/approval',
      'core/src/deadline/deadline.ts',
    ],
  },
  // It goes to pages of all zones, by their names.
  { zone: 'Find', bundles: ['front', 'floorZone', 'workshopZone'], folders: ['web/src/find', 'server/src/find'] },
];
/** Said in such a folder and read elsewhere. */
const READ_ELSEWHERE: Readonly<Record<string, string>> = {
  'server/src/intake/takeInRows.ts work': 'rows that are imported are read in the Workshop',
  'server/src/notice emails': 'an email is spoken by the server',
  'server/src/platform emails': 'an email is spoken by the server',
  'server/src/platform commands': 'the command line is spoken by the server',
  'server/src/platform troubles': 'what is wrong with the house is read on the Floor',
  'server/src/view sheets': 'the heads of a file that is exported are spoken by the server',
};

describe('the texts of a zone', () => {
  it.each(SAID_IN)('come with everything that the $zone says', ({ bundles, folders }) => {
    const loaded = new Set(
      bundles.flatMap((bundle) =>
        [...readFileSync(join(root, `words/src/en/${bundle}.ts`), 'utf8').matchAll(/export \{ (\w+) \}/g)].map(
          ([, area]) => area,
        ),
      ),
    );
    const areas = new Set(readdirSync(join(root, 'words/src/en')).map((name) => name.replace(/\.ts$/, '')));
    const found = folders.flatMap((folder) =>
      (folder.endsWith('.ts')
        ? [join(root, folder)]
        : existsSync(join(root, folder))
          ? sourcesOf(join(root, folder))
          : []
      ).flatMap((path) =>
        [...readFileSync(path, 'utf8').matchAll(/(?:say |['"`])([a-z][A-Za-z]+):[\w.$-]/g)]
          .map(([, area]) => area ?? '')
          .filter((area) => areas.has(area) && !loaded.has(area))
          .filter(
            (area) =>
              ![relative(root, path), folder].some((place) => Object.hasOwn(READ_ELSEWHERE, `${place} ${area}`)),
          )
          .map((area) => `${relative(root, path)} says ${area}`),
      ),
    );
    expect(loaded.size).toBeGreaterThan(8);
    expect([...new Set(found)]).toEqual([]);
  });
});

describe('every text', () => {
  it('is said somewhere', () => {
    const sources = ['core/src', 'contract/src', 'server/src', 'web/src', 'demo/src', 'words/src']
      .flatMap((folder) => sourcesOf(join(root, folder)))
      .filter((path) => !/words\/src\/(en|de)\//.test(path))
      .map((path) => readFileSync(path, 'utf8'))
      .join('\n');
    const said = new Set([...sources.matchAll(/([a-z][A-Za-z]+:[\w. -]+)['`")]/g)].map(([, key]) => key));
    // A key that is made as it is said: `hops:${hop}`.
    const made = [
      ...sources.matchAll(/([a-z][A-Za-z]+):((?:[\w. -]|\$\{[^}]*\})*\$\{[^}]*\}(?:[\w. -]|\$\{[^}]*\})*)/g),
    ].map(([, area, template = '']) => {
      const parts = template.split(/\$\{[^}]*\}/).map((part) => part.replace(/[.*+?^()|[\]\\]/g, '\\$&'));
      return { area, fits: new RegExp(`^${parts.join('.+')}$`) };
    });
    const dead = Object.entries(all.en).flatMap(([area, texts]) =>
      [...new Set(Object.keys(texts).map((name) => name.replace(/_(one|other)$/, '')))]
        .filter((name) => !said.has(`${area}:${name}`))
        .filter((name) => !made.some((each) => each.area === area && each.fits.test(name)))
        .map((name) => `${area}:${name}`),
    );
    expect(made.length).toBeGreaterThan(20);
    expect(dead).toEqual([]);
  });
});

const unwrapped = (node: Node): Node =>
  node?.type === 'TSAsExpression' || node?.type === 'TSSatisfiesExpression' ? unwrapped(node.expression) : node;
