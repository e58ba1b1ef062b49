import { absenceRoutes } from './absences.ts';
import { accountRoutes } from './account.ts';
import { groundDeletionRoutes } from './deletion.ts';
import { importRoutes } from './imports.ts';
import { peopleRoutes } from './people.ts';
import { pictureRoutes } from './pictures.ts';
import { profileRoutes } from './profile.ts';
import { rightRoutes } from './rights.ts';
import { settingRoutes } from './settings.ts';
import { signInRoutes } from './signIn.ts';
import { startRoutes } from './start.ts';
import { stepBackRoutes } from './stepBack.ts';

/** Laying the ground: the first start, the desk, people and groups. */
export const groundworkRoutes = {
  ...startRoutes,
  ...accountRoutes,
  ...signInRoutes,
  ...pictureRoutes,
  ...settingRoutes,
  ...absenceRoutes,
  ...importRoutes,
  ...groundDeletionRoutes,
  ...stepBackRoutes,
  ...profileRoutes,
  ...peopleRoutes,
  ...rightRoutes,
} as const;
