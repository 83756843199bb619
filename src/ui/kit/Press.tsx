import type { ComponentProps } from 'react';

/** A button that keeps the focus while it may not be pressed, so that whoever pressed it stays where they were. */
export function Press({ disabled = false, onClick, ...rest }: ComponentProps<'button'>) {
  return (
    <button
      {...rest}
      aria-disabled={disabled}
      onClick={(e) => {
        if (disabled) e.preventDefault();
        else onClick?.(e);
      }}
    />
  );
}
