import type { WalkStop } from '@ustle/contract';
import { useSilhouette } from '../shared/queries';

/** The tree from its front with the branch in question, and the other one of its piece. */
export function StopPicture({ stop }: { stop: WalkStop }) {
  const silhouette = useSilhouette({ id: stop.tree, revision: stop.revision, recorded: stop.recorded }, true);
  return (
    <svg viewBox="-3 -3 106 106" width={112} height={112} className="shrink-0" role="img" aria-label={`${stop.treeName} from its front, ${stop.name} marked`}>
      {silhouette && (
        <>
          <path d={silhouette.foliage} fill="var(--color-moss)" opacity="0.28" />
          <path d={silhouette.wood} fill="var(--color-bark)" opacity="0.5" />
          <path d={silhouette.pot} fill="#7d5f52" opacity="0.6" />
        </>
      )}
      {stop.otherOutline && <path d={stop.otherOutline} fill="none" stroke="var(--color-copper)" strokeWidth="1.4" strokeDasharray="2.5 2" />}
      {stop.outline && <path d={stop.outline} fill="var(--color-copper)" stroke="var(--color-copper)" strokeWidth="2.4" strokeLinejoin="round" />}
    </svg>
  );
}
