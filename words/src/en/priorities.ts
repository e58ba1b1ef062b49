export const priorities = {
  high: 'high',
  normal: 'normal',
  low: 'low',
} as const;
