/** A text as it begins a sentence. */
export const capital = (t: string) => t.charAt(0).toUpperCase() + t.slice(1);
/** A name as it stands within a sentence. */
export const small = (t: string) => t.charAt(0).toLowerCase() + t.slice(1);
