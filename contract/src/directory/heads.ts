import type { Heads } from '../wire/route.ts';

/** What is set of a directory that keeps people in step. */
export const directoryHeads = {
  directory: { method: 'GET', path: '/api/groundwork/directory', caller: 'staff', right: 'people' },
  addDirectoryToken: {
    method: 'POST',
    path: '/api/groundwork/directory/tokens',
    caller: 'staff',
    right: 'rights',
  },
  endDirectoryToken: {
    method: 'POST',
    path: '/api/groundwork/directory/tokens/:id/end',
    caller: 'staff',
    right: 'rights',
  },
  fillFromDirectory: { method: 'POST', path: '/api/groundwork/directory/fill', caller: 'staff', right: 'people' },
} as const satisfies Heads;
