/** Not the demo's own port, so that tests can run beside it. */
export const PORT = 4611;
