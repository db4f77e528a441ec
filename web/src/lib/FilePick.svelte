<script lang="ts">
  /** A link that asks for a file. */
  let { name, accept, onfile }: { name: string; accept: string; onfile: (file: File) => Promise<void> } = $props();

  async function take(e: Event) {
    const input = e.currentTarget as HTMLInputElement;
    const file = input.files?.[0];
    if (!file) return;
    await onfile(file);
    input.value = ''; // the same file can be given again, mended
  }
</script>

<label
  class="inline-flex min-h-11 cursor-pointer items-center text-moss underline focus-within:outline-3 focus-within:outline-cold"
  >{name}<input type="file" {accept} class="sr-only" onchange={take} /></label
>
