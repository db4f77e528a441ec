/** What is open for typing, the innermost last: Escape closes that one, and no shortcut of a place acts meanwhile. */
interface Open {
  close: () => void;
  back: HTMLElement | null; // what opened it, and gets the focus back
}

const stack: Open[] = [];

export const opened = {
  get any(): boolean {
    return stack.length > 0;
  },
  /** Closes the innermost one; false where nothing is open. */
  close(): boolean {
    const last = stack.at(-1);
    last?.close();
    return !!last;
  },
};

/** Notes that something is open until the returned function is called. Use as the body of an effect or on mount. */
export function whileOpen(close: () => void): () => void {
  const at = document.activeElement;
  const one: Open = { close, back: at instanceof HTMLElement && at !== document.body ? at : null };
  stack.push(one);
  return () => {
    stack.splice(stack.indexOf(one), 1);
    // What was focused inside is gone by now, and the focus with it.
    requestAnimationFrame(() => {
      if (one.back?.isConnected && (!document.activeElement || document.activeElement === document.body)) one.back.focus();
    });
  };
}
