import { readdirSync } from 'node:fs';
import { join } from 'node:path';

/** Every TypeScript file of a folder, at any depth; not what is installed, built or made. */
export function sourcesIn(folder: string): readonly string[] {
  return readdirSync(folder, { withFileTypes: true }).flatMap((entry) => {
    if (['node_modules', 'dist', 'migrations'].includes(entry.name)) return [];
    const path = join(folder, entry.name);
    return entry.isDirectory() ? sourcesIn(path) : /\.tsx?$/.test(entry.name) ? [path] : [];
  });
}

/** The sources of a folder but for its tests. */
export const sourcesOf = (folder: string): readonly string[] =>
  sourcesIn(folder).filter((path) => !/\.test\.tsx?$/.test(path));

// biome-ignore lint/suspicious/noExplicitAny: a syntax tree, walked as it comes.
export type Node = any;

/** Goes through a syntax tree; each node comes with those around it, the nearest first. */
export function walk(
  node: Node,
  visit: (node: Node, parents: readonly Node[]) => void,
  parents: readonly Node[] = [],
): void {
  if (Array.isArray(node)) for (const each of node) walk(each, visit, parents);
  else if (node && typeof node === 'object' && typeof node.type === 'string') {
    visit(node, parents);
    for (const value of Object.values(node))
      if (value && typeof value === 'object') walk(value, visit, [node, ...parents]);
  }
}
