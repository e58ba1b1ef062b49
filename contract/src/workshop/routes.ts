import { accessRoutes } from './access.ts';
import { calendarRoutes } from './calendars.ts';
import { doorRoutes } from './doors.ts';
import { formRoutes } from './forms.ts';
import { mailingRoutes } from './mailings.ts';
import { manyRoutes } from './many.ts';
import { registerRoutes } from './registers.ts';
import { tryingRoutes } from './tries.ts';
import { vocabularyRoutes } from './vocabularies.ts';
import { wayRoutes } from './ways.ts';

/** Laying what the desk works by: forms, registers, vocabularies, calendars. */
export const workshopRoutes = {
  ...formRoutes,
  ...doorRoutes,
  ...mailingRoutes,
  ...tryingRoutes,
  ...wayRoutes,
  ...manyRoutes,
  ...registerRoutes,
  ...accessRoutes,
  ...vocabularyRoutes,
  ...calendarRoutes,
} as const;
