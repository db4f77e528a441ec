/** Tells how wide something is, at first and whenever that changes: in the turn in which the page is laid out anyway. */
export function measured(node: HTMLElement, tell: (width: number) => void) {
  const watch = new ResizeObserver(() => tell(node.clientWidth));
  watch.observe(node);
  return { destroy: () => watch.disconnect() };
}
