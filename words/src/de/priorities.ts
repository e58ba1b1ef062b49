import type { priorities as english } from '../en/priorities.ts';
import type { Same } from '../same.ts';

export const priorities: Same<typeof english> = {
  high: 'hoch',
  normal: 'normal',
  low: 'niedrig',
};
