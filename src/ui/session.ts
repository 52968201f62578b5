/** Who this browser is to the application: the page says it. */

/** Whether this device was let in by a code, for the bench alone. */
export const isBenchDevice = (): boolean => document.documentElement.dataset.session === 'bench';
