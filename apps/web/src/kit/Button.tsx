import type { ComponentProps, ReactNode } from 'react';

type Look = 'primary' | 'plain' | 'quiet' | 'destructive';

const LOOKS: Readonly<Record<Look, string>> = {
  primary: 'bg-iodine text-on-iodine border-iodine font-medium hover:opacity-90',
  plain: 'bg-paper text-ink border-edge hover:bg-crust',
  quiet: 'border-transparent text-ink hover:bg-crust',
  destructive: 'bg-paper text-madder border-madder hover:bg-crust',
};

export interface ButtonProps extends ComponentProps<'button'> {
  /** One `primary` per view: the thing to do next. */
  readonly look?: Look;
  readonly busy?: boolean;
  readonly small?: boolean;
  readonly children: ReactNode;
}

export function Button({
  look = 'plain',
  busy = false,
  small = false,
  className = '',
  disabled,
  type = 'button',
  ...rest
}: ButtonProps) {
  return (
    <button
      {...rest}
      type={type}
      disabled={disabled === true || busy}
      aria-busy={busy || undefined}
      className={`${buttonClass(look, small)} ${busy ? 'breathing' : ''} ${className}`}
    />
  );
}

/** For links that look like buttons. */
export function buttonClass(look: Look = 'plain', small = false): string {
  const size = small ? 'px-2 py-0.5 text-sm' : 'px-3 py-1.5';
  return `inline-flex items-center justify-center gap-1.5 rounded border ${size} whitespace-nowrap no-underline transition-colors disabled:cursor-not-allowed disabled:opacity-55 ${LOOKS[look]}`;
}
