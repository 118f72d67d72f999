import { Bar, PanelHead, Skeleton } from '../../shared/parts';
import { useDesk } from '../tree-context';
import { speciesOf } from '@ustle/core';

const VERDICTS = {
  go: { word: 'Go', text: 'Strong enough, and a fair time for it.' },
  light: { word: 'Only light work', text: 'Clean, look, plan; keep cuts and bends small.' },
  leave: { word: 'Leave it alone', text: 'Let it grow. Feed, water, wait.' },
} as const;

export function ReadPanel() {
  const { plan, tree } = useDesk();
  const species = speciesOf(tree.species);
  if (!plan) return <Skeleton lines={7} />;
  const { read } = plan;
  const verdict = VERDICTS[read.verdict];
  return (
    <>
      <PanelHead title={verdict.word}>{verdict.text}</PanelHead>
      <ul className="list-disc space-y-1.5 pl-5">
        {read.because.map((b) => (
          <li key={b}>{b}</li>
        ))}
      </ul>
      <h3 className="mt-6 text-lg">Work for one session</h3>
      <p className="mb-2 text-quiet">
        The plan asks for {read.used.toFixed(2)} of the {read.capacity.toFixed(2)} this tree bears today (1 is a full session on a tree of ordinary strength).
      </p>
      <Bar share={read.used / 1.4} limit={read.capacity / 1.4} tone={read.used > read.capacity ? 'ochre' : 'moss'} />
      {species.hazards.length > 0 && (
        <>
          <h3 className="mt-6 text-lg">Mind yourself</h3>
          <ul className="mt-1 list-disc space-y-1 pl-5">
            {species.hazards.map((h) => (
              <li key={h}>{h}</li>
            ))}
          </ul>
        </>
      )}
      <p className="mt-6 text-[14px] text-quiet">{plan.notes[0]}</p>
    </>
  );
}
