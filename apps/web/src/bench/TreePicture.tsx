import type { TreeSummary } from '@ustle/contract';
import { useEffect, useRef, useState } from 'react';
import { useSilhouette } from '../shared/queries';

/** A tree's outline from its front; asked for when it comes into sight. */
export function TreePicture({ tree, size }: { tree: Pick<TreeSummary, 'id' | 'revision' | 'recorded'>; size: number }) {
  const box = useRef<SVGSVGElement>(null);
  const [seen, setSeen] = useState(false);
  useEffect(() => {
    const watcher = new IntersectionObserver((entries) => entries.some((e) => e.isIntersecting) && setSeen(true), { rootMargin: '200px' });
    watcher.observe(box.current!);
    return () => watcher.disconnect();
  }, []);
  const silhouette = useSilhouette(tree, seen);
  return (
    <svg ref={box} width={size} height={size} viewBox="0 0 100 100" aria-hidden="true" className="shrink-0">
      {silhouette && (
        <>
          <path d={silhouette.wood} fill="var(--color-bark)" />
          <path d={silhouette.foliage} fill="var(--color-moss)" opacity="0.62" />
          <path d={silhouette.pot} fill="#7d5f52" />
        </>
      )}
    </svg>
  );
}
