/** What is wrong in a form, in the form's own words, and the cursor where it can be put right. */
import { tick } from 'svelte';
import type { Problem } from '../api/client';

/** Puts the cursor into the first field that was refused. */
export function toFault(problem: Problem | undefined, form: HTMLElement | undefined) {
  if (!problem || !form) return;
  void tick().then(() => {
    const at = form.querySelector<HTMLElement>('[aria-invalid="true"]');
    at?.closest('details')?.setAttribute('open', '');
    at?.focus();
  });
}
