<script lang="ts">
  /** The camera's live picture, until it is held: what is held is given as a file, as one from the album would be. */
  import { Button } from 'flowbite-svelte';
  import { onDestroy } from 'svelte';

  let { onheld, onback }: { onheld: (file: File) => void; onback: (why: string) => void } = $props();

  let video = $state<HTMLVideoElement>();
  let ready = $state(false);
  let gone = false;
  let stream: MediaStream | undefined;
  const stop = () => stream?.getTracks().forEach((t) => t.stop());
  onDestroy(() => {
    gone = true;
    stop();
  });

  /** Why there is no live picture, and what to do. */
  const refused = (e: unknown) =>
    (e as Error).name === 'NotAllowedError'
      ? 'The camera may not be used here: allow it in the browser’s settings of this page, or choose a picture.'
      : (e as Error).name === 'NotFoundError'
        ? 'This device has no camera: choose a picture.'
        : `The camera cannot be used: ${(e as Error).message}. Choose a picture.`;
  navigator.mediaDevices.getUserMedia({ video: { facingMode: 'environment', width: { ideal: 1600 } }, audio: false }).then(
    (s) => {
      stream = s;
      if (gone) stop();
      else video!.srcObject = s;
    },
    (e) => !gone && onback(refused(e)),
  );

  function hold() {
    const still = document.createElement('canvas');
    [still.width, still.height] = [video!.videoWidth, video!.videoHeight];
    still.getContext('2d')!.drawImage(video!, 0, 0);
    still.toBlob(
      (b) => (b ? onheld(new File([b], 'crown.jpg', { type: b.type })) : onback('The picture could not be held. Choose one.')),
      'image/jpeg',
      0.92,
    );
  }
</script>

<!-- svelte-ignore a11y_media_has_caption: it is what the camera sees, without sound -->
<video
  bind:this={video}
  class="max-h-[60dvh] w-full border border-rule bg-sheet object-contain"
  autoplay
  playsinline
  muted
  aria-label="What the camera sees"
  onloadeddata={() => (ready = true)}
></video>
<div class="mt-2 flex flex-wrap gap-2">
  <Button disabled={!ready} onclick={hold}>Hold this picture</Button>
  <Button color="light" onclick={() => onback('')}>Back</Button>
</div>
