import { dataTask, type RestAfterNow } from '../platform/apart.ts';
import type { keptNow, lookAtCopy, lookAtReport, sentNow } from './look.ts';

/** What a report tells of some days. */
export const REPORT_LOOK = dataTask<RestAfterNow<typeof lookAtReport>, ReturnType<typeof lookAtReport>>('reportLook');
/** The same as it is kept. */
export const REPORT_KEPT = dataTask<RestAfterNow<typeof keptNow>, ReturnType<typeof keptNow>>('reportKept');
/** What somebody reads of a frozen copy. */
export const COPY_LOOK = dataTask<RestAfterNow<typeof lookAtCopy>, ReturnType<typeof lookAtCopy>>('copyLook');
/** What goes out of a report. */
export const REPORT_SENT = dataTask<RestAfterNow<typeof sentNow>, ReturnType<typeof sentNow>>('reportSent');
