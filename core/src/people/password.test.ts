import { describe, expect, it } from 'vitest';
import { passwordProblem } from './password.ts';

const known = ['Maren Okafor', 'maren.okafor@skerrow.example', 'Field Operations Desk'];
const problem = (password: string): string | null => {
  const found = passwordProblem(password, known);
  return found && String(found.say).replace('start:password', '');
};

describe('a password', () => {
  it('needs length, and no mixture of signs', () => {
    expect(problem('gull on the')).toBeNull();
    expect(problem('тихая гавань')).toBeNull();
    expect(problem('gull on t')).toBe('Short');
    // Counted in signs, as people count them: ten pictures are enough in number, however plain.
    expect(problem('🌊🌊🌊🌊🌊🌊🌊🌊🌊')).toBe('Short');
    expect(problem('x'.repeat(201))).toBe('Long');
  });

  it('is none that everybody would guess', () => {
    for (const plain of [
      'aaaaaaaaaaaa',
      '1212121212',
      'abcdefghijkl',
      '9876543210',
      'MarenOkafor',
      'okafor2026!',
      'operations1',
    ])
      expect([plain, problem(plain)]).toEqual([plain, 'Plain']);
    expect(problem('okafor feeds the grey gulls')).toBeNull();
  });
});
