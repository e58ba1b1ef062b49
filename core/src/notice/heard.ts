/** What the emails are about that staff choose the time of: deciding, their own work, their team’s, and so on. */
export const HEARD = ['decide', 'mine', 'team', 'due', 'late', 'news', 'own'] as const;
export type Heard = (typeof HEARD)[number];
