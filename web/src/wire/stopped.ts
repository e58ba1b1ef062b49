/** What comes of a device that gives no key: whoever uses it stopped, or it has none. */
export const STOPPED = { status: 'CUSTOM_ERROR', error: 'stopped' } as const;

export const isStopped = (error: unknown): boolean => error === STOPPED;
