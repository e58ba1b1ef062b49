import { readdirSync, readFileSync } from 'node:fs';
import { dirname, join, relative, resolve } from 'node:path';
import { parseSync } from 'oxc-parser';
import { describe, expect, it } from 'vitest';
import { sourcesIn } from './sources.ts';

/**
 * Which workspaces a workspace may import. Nothing imports web; only demo, e2e and bench may import
 * the server.
 */
const MAY_IMPORT: Readonly<Record<string, readonly string[]>> = {
  words: [],
  core: ['words'],
  contract: ['core', 'words'],
  server: ['contract', 'core', 'words'],
  web: ['contract', 'core', 'words'],
  demo: ['server', 'contract', 'core', 'words'],
  e2e: ['demo', 'server', 'contract', 'core', 'words'],
  bench: ['demo', 'server', 'contract', 'core', 'words'],
};

/**
 * The areas of the server by rank: each knows only those below it, and `house` alone knows all.
 * Tables may refer to tables of any rank, as the database does.
 */
const RANKS: readonly (readonly string[])[] = [
  ['platform'],
  ['design'],
  ['settings'],
  ['people', 'calendar', 'vocabulary'],
  ['register', 'roster', 'program'],
  ['form'],
  ['door', 'files'],
  ['request'],
  ['approval', 'assignment', 'deadline', 'mailing', 'proposal'],
  ['notice'],
  ['intake', 'desk'],
  ['incoming'],
  ['view'],
  ['duty', 'find', 'forecast', 'service', 'workshop'],
  ['report'],
  ['groundwork'],
  ['directory'],
  ['house'],
];
/** Imports against the ranks, each with its reason. The list only gets shorter. */
const AGAINST_RANK: Readonly<Record<string, string>> = {};

interface Import {
  readonly from: string;
  readonly specifier: string;
}

const root = resolve(import.meta.dirname, '..');
const imports = Object.keys(MAY_IMPORT).flatMap((workspace) => sourcesIn(join(root, workspace)).flatMap(importsOf));

/** Every import of a file: of values and of types, static and dynamic. */
function importsOf(path: string): readonly Import[] {
  const source = readFileSync(path, 'utf8');
  const { module } = parseSync(path, source);
  const fixed = [
    ...module.staticImports.map((each) => each.moduleRequest.value),
    ...module.staticExports.flatMap((each) => each.entries.flatMap((entry) => entry.moduleRequest?.value ?? [])),
  ];
  const dynamic = module.dynamicImports.map((each) =>
    source.slice(each.moduleRequest.start, each.moduleRequest.end).replace(/^['"]|['"]$/g, ''),
  );
  return [...fixed, ...dynamic].map((specifier) => ({ from: relative(root, path), specifier }));
}

const isTest = (path: string): boolean => /\.test\.tsx?$/.test(path);
const workspaceOf = (path: string): string => path.split('/')[0] ?? '';
const targetOf = ({ from, specifier }: Import): string => {
  if (specifier.startsWith('@tolvek/')) return specifier.split('/')[1] ?? '';
  return specifier.startsWith('.') ? workspaceOf(relative(root, resolve(root, dirname(from), specifier))) : '';
};
const words = (found: readonly Import[]): readonly string[] =>
  found.map((each) => `${each.from} imports ${each.specifier}`);

describe('the import borders', () => {
  it('lead one way: web → contract → core, server → contract → core', () => {
    const crossing = imports.filter((each) => {
      const [here, there] = [workspaceOf(each.from), targetOf(each)];
      return there !== '' && there !== here && !MAY_IMPORT[here]?.includes(there);
    });
    expect(words(crossing)).toEqual([]);
  });

  // Of the words it knows the keys, and speaks no language.
  it('keep core pure: no module of Node, no interface, no database, no language', () => {
    const allowed =
      /^(\.|@bpmn-io\/lezer-feel$|@lezer\/common$|temporal-polyfill$|fflate$|read-excel-file\/universal$|scim2-parse-filter$|@tolvek\/words$)/;
    expect(
      words(
        imports.filter(
          (each) => each.from.startsWith('core/src/') && !isTest(each.from) && !allowed.test(each.specifier),
        ),
      ),
    ).toEqual([]);
  });

  it('let an area of core be entered by its index only', () => {
    const deep = imports.filter((each) => {
      if (!each.from.startsWith('core/src/') || !each.specifier.startsWith('.')) return false;
      const target = relative(root, resolve(root, dirname(each.from), each.specifier)).split('/');
      return target[2] !== each.from.split('/')[2] && target[3] !== 'index.ts';
    });
    expect(words(deep)).toEqual([]);
  });

  it('let each area of the server know only those of a lower rank', () => {
    const rankOf = new Map(RANKS.flatMap((areas, rank) => areas.map((area) => [area, rank] as const)));
    const folders = readdirSync(join(root, 'server/src'), { withFileTypes: true }).filter((each) => each.isDirectory());
    expect(folders.map(({ name }) => name).filter((name) => !rankOf.has(name))).toEqual([]);
    const inside = imports.filter((each) => each.from.startsWith('server/src/') && each.specifier.startsWith('.'));
    const upward = inside.filter((each) => {
      const target = relative(root, resolve(root, dirname(each.from), each.specifier));
      const [here, there] = [each.from.split('/')[2] ?? '', target.split('/')[2] ?? ''];
      const [mine, theirs] = [rankOf.get(here), rankOf.get(there)];
      const isTables = each.from.endsWith('/tables.ts') && target.endsWith('/tables.ts');
      return here !== there && mine !== undefined && theirs !== undefined && theirs >= mine && !isTables;
    });
    expect(inside.length).toBeGreaterThan(500);
    expect(words(upward.filter((each) => !isTest(each.from)))).toEqual(Object.keys(AGAINST_RANK));
  });

  it('give the areas of the contract the names of the server’s, and their heads no schema', () => {
    const folders = readdirSync(join(root, 'contract/src'), { withFileTypes: true }).filter((each) =>
      each.isDirectory(),
    );
    const known = [...RANKS.flat(), 'wire', 'openapi'];
    expect(folders.map(({ name }) => name).filter((name) => !known.includes(name))).toEqual([]);
    const heads = imports.filter(({ from }) => from.startsWith('contract/src/') && /[hH]eads\.ts$/.test(from));
    expect(heads.length).toBeGreaterThan(10);
    expect(words(heads.filter(({ specifier }) => !/\/(heads|frontHeads|route)\.ts$/.test(specifier)))).toEqual([]);
    const web = imports.filter(
      ({ from, specifier }) => from.startsWith('web/src/') && /^@tolvek\/contract\/(front-)?heads$/.test(specifier),
    );
    // What a phone needs before one can type, and the whole of them for pages that come later.
    expect(
      web.flatMap(({ from, specifier }) => (isTest(from) ? [] : [`${from} ${specifier.replace(/.*\//, '')}`])).sort(),
    ).toEqual(['web/src/wire/call.ts front-heads', 'web/src/wire/callAny.ts heads']);
  });

  it('let one file of the server write stored requests', () => {
    const writes = /\.(insert|update|delete)\(\s*requests\s*\)|\b(insert into|update|delete from)\s+[`"]?requests\b/i;
    const writers = sourcesIn(join(root, 'server/src'))
      .map((path) => relative(root, path))
      .filter((path) => !isTest(path) && !path.includes('/upgrade/steps/'))
      .filter((path) => writes.test(readFileSync(join(root, path), 'utf8')));
    // The fixture is of tests alone; upgrades write rows as they were, before anything runs.
    expect(writers).toEqual(['server/src/request/change.ts', 'server/src/request/fixture.ts']);
    expect(words(imports.filter((each) => each.specifier.endsWith('/fixture.ts') && !isTest(each.from)))).toEqual([]);
  });

  it('let stored requests be opened by one door, and what was revealed be made in one place', () => {
    const opening = /\b(prepareAccess|accessTo|relationTo|revealReferred|labelOf)\b[^;]*from '@tolvek\/core\/access'/;
    const uses = (found: RegExp): readonly string[] =>
      sourcesIn(join(root, 'server/src'))
        .map((path) => relative(root, path))
        .filter((path) => !isTest(path) && found.test(readFileSync(join(root, path), 'utf8')));
    expect([...uses(opening)].sort()).toEqual([
      'server/src/request/names.ts',
      'server/src/request/open.ts',
      'server/src/request/references.ts',
      // These look at a plan, at no request.
      'server/src/request/sharedResults.ts',
      'server/src/workshop/accessView.ts',
      'server/src/workshop/plan.ts',
    ]);
    expect(uses(/\bas (unknown as )?(readonly )?Revealed</)).toEqual([]);
  });

  it('keep the zones of the web apart', () => {
    const zones = ['front-desk', 'floor', 'workshop', 'mailroom'];
    const across = imports.filter((each) => {
      if (!each.from.startsWith('web/src/') || !each.specifier.startsWith('.')) return false;
      const target = relative(root, resolve(root, dirname(each.from), each.specifier)).split('/')[2] ?? '';
      const here = each.from.split('/')[2] ?? '';
      return zones.includes(target) && target !== here && !['app', 'find'].includes(here);
    });
    expect(words(across)).toEqual([]);
  });
});
