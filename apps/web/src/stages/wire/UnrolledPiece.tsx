import { useMemo } from 'react';
import { fileName } from '@ustle/contract';
import { ON_PAPER, pieceStrip, stripSvg, type Names, type PlanDocument, type PlanRun, type Tree } from '@ustle/core';
import { Quiet } from '../../shared/parts';
import { saveFile } from '../../shared/save-file';
import { Strip } from '../../shared/Strip';

/** One piece of wire laid out straight and to scale, which can be kept as a file. */
export function UnrolledPiece({ run, tree, plan, short }: { run: PlanRun; tree: Tree; plan: PlanDocument; short: Names }) {
  const strip = useMemo(() => pieceStrip(run, tree, plan, short), [run, tree, plan, short]);
  if (!strip) return null;
  const keep = (): void =>
    saveFile(
      new Blob([stripSvg(strip, ON_PAPER)], { type: 'image/svg+xml' }),
      `${fileName(`${tree.name} ${run.branches.map((b) => short(b.branch)).join(' ')}`)}.svg`,
    );
  return (
    <>
      <Strip strip={strip} />
      <Quiet onClick={keep}>keep this drawing as a file (SVG)</Quiet>
    </>
  );
}
