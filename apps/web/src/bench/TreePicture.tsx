import type { Silhouette } from '@ustle/contract';

/** A tree's outline from its front. */
export function TreePicture({ silhouette, size }: { silhouette: Silhouette; size: number }) {
  return (
    <svg width={size} height={size} viewBox="0 0 100 100" aria-hidden="true" className="shrink-0">
      <path d={silhouette.wood} fill="var(--color-bark)" />
      <path d={silhouette.foliage} fill="var(--color-moss)" opacity="0.62" />
      <path d={silhouette.pot} fill="#7d5f52" />
    </svg>
  );
}
