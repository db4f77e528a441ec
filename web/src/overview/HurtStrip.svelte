<script lang="ts">
  /** The plants of a property as a strip, as long as they are many: those hurt deep filled, other looks hatched, the rest open. */
  interface Props {
    plants: number;
    looks: number;
    deep: number;
    most: number; // plants of the largest property: the whole width
  }
  let { plants, looks, deep, most }: Props = $props();
  const id = $props.id();
  const wide = 112;
  const per = $derived((wide - 2) / Math.max(1, most));
</script>

<svg
  viewBox="0 0 {wide} 14"
  width={wide}
  height="14"
  role="img"
  aria-label="Of {plants} plants or groups {looks} to look at, {deep} hurt deep"
>
  <pattern id="{id}-h" width="4" height="4" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
    <line x1="0" y1="0" x2="0" y2="4" stroke="var(--color-ink)" stroke-width="1.4" />
  </pattern>
  <rect x="1" y="1" width={looks * per} height="12" fill="url(#{id}-h)" />
  <rect x="1" y="1" width={deep * per} height="12" fill="var(--color-ink)" />
  <rect x="1" y="1" width={Math.max(1, plants * per)} height="12" fill="none" stroke="var(--color-soft)" />
</svg>
