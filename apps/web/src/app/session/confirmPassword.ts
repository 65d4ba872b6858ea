/** How somebody is asked for the password again; null while no page is there to ask. */
let ask: (() => Promise<boolean>) | null = null;

export function askPasswordBy(way: (() => Promise<boolean>) | null): void {
  ask = way;
}

/** @returns whether the password was given, so that what was refused can be tried again */
export function confirmPassword(): Promise<boolean> {
  return ask?.() ?? Promise.resolve(false);
}
