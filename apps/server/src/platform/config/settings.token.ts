/** Injection token of {@link Settings}: an interface has no value at run time. */
export const SETTINGS = Symbol('settings');
