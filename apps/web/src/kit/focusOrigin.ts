/** What last had the focus and will still be there when a menu has closed: items of menus go with it. */
let last: HTMLElement | null = null;

if (typeof document !== 'undefined') {
  document.addEventListener('focusin', ({ target }) => {
    if (target instanceof HTMLElement && target.closest('[role=menu]') === null) last = target;
  });
}

export function focusOrigin(): HTMLElement | null {
  return last;
}

/** Gives the focus to where it came from; where that is gone, to the page, from which the next Tab goes on. */
export function giveFocusBack(origin: HTMLElement | null): void {
  const heir = origin?.isConnected === true ? origin : document.getElementById('main');
  heir?.focus({ preventScroll: heir.id === 'main' });
}
