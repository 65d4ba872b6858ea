import { X } from 'lucide-react';
import { Dialog as RadixDialog, DropdownMenu, Tooltip as RadixTooltip } from 'radix-ui';
import { useLayoutEffect, useRef, type ReactNode } from 'react';
import { focusOrigin, giveFocusBack } from './focusOrigin.js';
import { say } from '../words/kit.js';

const FLOATING = 'rounded border border-line bg-paper text-ink shadow-lg z-50';

export interface DialogProps {
  readonly open: boolean;
  readonly onClose: () => void;
  readonly title: string;
  readonly description?: string;
  readonly wide?: boolean;
  /** Where the focus goes on closing; without it, back to where it came from. */
  readonly focusAfter?: () => HTMLElement | null;
  readonly children: ReactNode;
}

export function Dialog({ open, onClose, title, description, wide = false, focusAfter, children }: DialogProps) {
  const origin = useRef<HTMLElement | null>(null);
  // Before the dialog takes the focus.
  useLayoutEffect(() => {
    if (open) origin.current = focusOrigin();
  }, [open]);
  return (
    <RadixDialog.Root open={open} onOpenChange={(next) => !next && onClose()}>
      <RadixDialog.Portal>
        {/* Radix's own overlay locks scrolling with an inline style element, which the content policy blocks. */}
        <div className="fixed inset-0 z-40 overscroll-contain bg-black/35" />
        <RadixDialog.Content
          onCloseAutoFocus={(event) => {
            event.preventDefault();
            giveFocusBack(focusAfter?.() ?? origin.current);
          }}
          {...(description === undefined && { 'aria-describedby': undefined })}
          className={`${FLOATING} fixed top-1/2 left-1/2 max-h-[90vh] w-[calc(100vw-2rem)] -translate-x-1/2 -translate-y-1/2 overflow-y-auto p-5 ${wide ? 'max-w-3xl' : 'max-w-lg'}`}
        >
          <RadixDialog.Close
            aria-label={say('leaveThisDialog')}
            title={say('leaveThisDialogEsc')}
            className="float-right -mt-1 -mr-1 ml-3 rounded p-1.5 text-ink-soft hover:bg-crust hover:text-ink"
          >
            <X size={18} strokeWidth={1.75} aria-hidden="true" />
          </RadixDialog.Close>
          <RadixDialog.Title className="text-lg font-semibold">{title}</RadixDialog.Title>
          {description !== undefined && (
            <RadixDialog.Description className="mt-1 text-ink-soft">{description}</RadixDialog.Description>
          )}
          <div className="mt-4">{children}</div>
        </RadixDialog.Content>
      </RadixDialog.Portal>
    </RadixDialog.Root>
  );
}

export interface SheetProps {
  readonly onClose: () => void;
  readonly title: ReactNode;
  /** At the right of the title. */
  readonly aside?: ReactNode;
  readonly children: ReactNode;
}

/** Details beside what is being compared: the page stays in sight, and can be used. */
export function Sheet({ onClose, title, aside, children }: SheetProps) {
  const origin = useRef<HTMLElement | null>(null);
  useLayoutEffect(() => {
    origin.current = focusOrigin();
  }, []);
  return (
    <RadixDialog.Root open modal={false} onOpenChange={(next) => !next && onClose()}>
      <RadixDialog.Portal>
        <RadixDialog.Content
          aria-describedby={undefined}
          onInteractOutside={(event) => event.preventDefault()}
          onCloseAutoFocus={(event) => {
            event.preventDefault();
            giveFocusBack(origin.current);
          }}
          className={`${FLOATING} fixed inset-y-0 right-0 w-full max-w-md overflow-y-auto rounded-none p-5`}
        >
          <div className="mb-3 flex items-start justify-between gap-3">
            <RadixDialog.Title className="text-lg font-semibold">{title}</RadixDialog.Title>
            <span className="flex items-center gap-1">
              {aside}
              <RadixDialog.Close
                aria-label={say('leaveThisSheet')}
                title={say('leaveThisSheetEsc')}
                className="rounded p-1.5 text-ink-soft hover:bg-crust hover:text-ink"
              >
                <X size={18} strokeWidth={1.75} aria-hidden="true" />
              </RadixDialog.Close>
            </span>
          </div>
          {children}
        </RadixDialog.Content>
      </RadixDialog.Portal>
    </RadixDialog.Root>
  );
}

export const TooltipProvider = RadixTooltip.Provider;

export function Tooltip({ words, children }: { readonly words: ReactNode; readonly children: ReactNode }) {
  return (
    <RadixTooltip.Root>
      <RadixTooltip.Trigger asChild>{children}</RadixTooltip.Trigger>
      <RadixTooltip.Portal>
        <RadixTooltip.Content sideOffset={5} className={`${FLOATING} max-w-xs px-2 py-1 text-sm`}>
          {words}
        </RadixTooltip.Content>
      </RadixTooltip.Portal>
    </RadixTooltip.Root>
  );
}

export interface MenuItem {
  readonly words: ReactNode;
  readonly onPick: () => void;
  readonly disabled?: boolean;
}

/** Groups of items behind one button. */
export function Menu({
  trigger,
  groups,
}: {
  readonly trigger: ReactNode;
  readonly groups: ReadonlyArray<readonly MenuItem[]>;
}) {
  return (
    <DropdownMenu.Root modal={false}>
      <DropdownMenu.Trigger asChild>{trigger}</DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content align="end" sideOffset={6} className={`${FLOATING} min-w-56 py-1`}>
          {groups.map((items, index) => (
            <DropdownMenu.Group key={index} className="border-line not-first:mt-1 not-first:border-t not-first:pt-1">
              {items.map((item, at) => (
                <DropdownMenu.Item
                  key={at}
                  disabled={item.disabled ?? false}
                  onSelect={item.onPick}
                  className="cursor-pointer px-3 py-1.5 outline-none data-disabled:cursor-default data-disabled:text-ink-soft data-highlighted:bg-crust"
                >
                  {item.words}
                </DropdownMenu.Item>
              ))}
            </DropdownMenu.Group>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}

/** A key to press, as printed on it. */
export function Key({ children }: { readonly children: ReactNode }) {
  return <kbd className="rounded border border-line bg-paper px-1.5 font-sans text-xs text-ink-soft">{children}</kbd>;
}
