/** How the form to sign in again is opened; null while nothing shows it. */
let open: (() => void) | null = null;

export function signInBy(way: (() => void) | null): void {
  open = way;
}

/** Opens the form to sign in again, for a button that needs somebody to be signed in. */
export function requestSignIn(): void {
  open?.();
}
