import { describe, expect, it } from 'vitest';
import { inRegister, newProgram, rightsLeft, withRight } from './programDraft.ts';

describe('what a program may do', () => {
  it('begins with nothing, and reads as soon as it does anything', () => {
    const { may } = newProgram('Log');
    expect(may).toEqual([]);
    expect(withRight(may, 'move:all')).toEqual([
      { right: 'read:all', register: null },
      { right: 'move:all', register: null },
    ]);
    expect(withRight([{ right: 'read:all', register: 'r1' }], 'move:all')).toEqual([
      { right: 'read:all', register: 'r1' },
      { right: 'move:all', register: null },
    ]);
    expect(withRight(may, 'read:all')).toEqual([{ right: 'read:all', register: null }]);
  });

  it('is offered as long as it may not do it everywhere', () => {
    expect(rightsLeft([{ right: 'read:all', register: null }])).not.toContain('read:all');
    expect(rightsLeft([{ right: 'read:all', register: 'r1' }])).toContain('read:all');
  });

  it('stands once for each place', () => {
    const may = [
      { right: 'read:all', register: 'r1' },
      { right: 'read:all', register: null },
    ] as const;
    expect(inRegister(may, 1, 'r1')).toEqual([{ right: 'read:all', register: 'r1' }]);
    expect(inRegister(may, 1, 'r2')).toEqual([may[0], { right: 'read:all', register: 'r2' }]);
  });
});
