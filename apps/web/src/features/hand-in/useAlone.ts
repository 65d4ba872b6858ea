import { useEffect, type RefObject } from 'react';

/** As long as something fills the window alone, the focus stays in it, and Escape leaves it. */
export function useAlone(frame: RefObject<HTMLElement | null>, alone: boolean, leave: () => void): void {
  useEffect(() => {
    const element = frame.current;
    if (!alone || element === null) return;
    const beside = outside(element).filter((one) => !one.inert);
    for (const one of beside) one.inert = true;
    const press = (event: KeyboardEvent) => {
      // In the text Escape makes Tab leave it; menus and dialogs close by it.
      const target = event.target as HTMLElement;
      if (event.key !== 'Escape' || event.defaultPrevented) return;
      if (target.isContentEditable || target.closest('[role=dialog], [role=menu]') !== null) return;
      leave();
    };
    document.addEventListener('keydown', press);
    return () => {
      for (const one of beside) one.inert = false;
      document.removeEventListener('keydown', press);
    };
  }, [frame, alone, leave]);
}

/** Everything beside the element, and beside what it stands in, but for what floats over the page. */
function outside(element: HTMLElement): HTMLElement[] {
  const found: HTMLElement[] = [];
  for (let inside = element; inside.parentElement !== null && inside !== document.body; inside = inside.parentElement) {
    for (const other of inside.parentElement.children) {
      const floats = inside.parentElement === document.body;
      if (other !== inside && !floats && other instanceof HTMLElement) found.push(other);
    }
  }
  return found;
}
