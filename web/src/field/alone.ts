/** Runs f while no other page of this device sends; false where another does. Without locks there is no telling. */
export async function alone(f: () => Promise<void>, lock = 'mezzadro-sends'): Promise<boolean> {
  if (!navigator.locks) return f().then(() => true);
  return navigator.locks.request(lock, { ifAvailable: true }, async (held) => {
    if (held) await f();
    return !!held;
  });
}
