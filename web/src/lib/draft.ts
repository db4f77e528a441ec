/** What was typed into a form and not kept: it is there again when the form is opened anew, as long as this page lives. */
const key = (of: string) => `draft ${of}`;

export function draftOf<T>(of: string): T | undefined {
  const kept = sessionStorage.getItem(key(of));
  return kept ? (JSON.parse(kept) as T) : undefined;
}

/** Keeps a draft; one that is as the form began is none. */
export function keepDraft<T>(of: string, now: T, began: T) {
  const text = JSON.stringify(now);
  if (text === JSON.stringify(began)) sessionStorage.removeItem(key(of));
  else sessionStorage.setItem(key(of), text);
}

export const dropDraft = (of: string) => sessionStorage.removeItem(key(of));
