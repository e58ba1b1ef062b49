import type { FormDesign, OwnPart } from './design.ts';

/** Whether a form says something of its own where its register has something usual. */
export const hasOwn = ({ own }: Pick<FormDesign, 'own'>, part: OwnPart): boolean => own?.includes(part) ?? false;
