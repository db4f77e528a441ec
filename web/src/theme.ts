import type { ThemeConfig } from 'flowbite-svelte';

/**
 * How Flowbite's parts are dressed: flat paper, thin rules, hardly any corners, no shadows but for what floats. What stands
 * against a class of theirs says so (!): which of the two holds is not worked out on the page, that takes a phone a tenth of a second.
 */
export const theme: ThemeConfig = {
  button: { base: 'min-h-11 rounded-sm! font-semibold! focus-within:ring-0! focus-within:outline-none!' },
  input: { input: 'rounded-sm! min-h-11 bg-white! border-gray-400! text-ink! placeholder:text-gray-500' },
  modal: { base: 'rounded-sm! bg-paper! border border-ink! shadow-lg backdrop:bg-ink/40!' },
};
