/** Goes on when what was just drawn stands on the screen, or in a page behind others, which is not drawn, a little later. */
export function afterPaint(go: () => void) {
  let gone = false;
  const once = () => {
    if (!gone) go();
    gone = true;
  };
  requestAnimationFrame(() => setTimeout(once));
  setTimeout(once, 300);
}
