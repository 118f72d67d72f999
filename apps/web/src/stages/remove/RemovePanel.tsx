import { sayOldWood } from '@ustle/core';
import { PanelHead, Skeleton, Tabs } from '../../shared/parts';
import { count } from '../../shared/say';
import { useDesk } from '../desk';
import { useRemove, type Sheet } from './kit';
import { CutSheet } from './CutSheet';
import { DecideSheet } from './DecideSheet';
import { GreenTally } from './GreenTally';
import { OutcomeSheet } from './OutcomeSheet';

export function RemovePanel() {
  const { tree } = useDesk();
  const { weighed, sheet, setSheet } = useRemove();
  if (!weighed) return <Skeleton lines={9} />;
  const found = new Set(weighed.findings.map((f) => f.branch)).size;
  const sheets: { key: Sheet; name: string }[] = [
    { key: 'decide', name: 'Decide' },
    { key: 'outcome', name: 'What follows' },
    { key: 'cut', name: weighed.cuts.length ? `To cut (${weighed.cuts.length})` : 'To cut' },
  ];
  return (
    <>
      <PanelHead title="What to remove">
        {found
          ? `Something speaks against ${count(found, 'branch', 'branches')}. You decide; nothing here is a must.`
          : 'Nothing was found against any branch.'}{' '}
        {sayOldWood(tree)}
      </PanelHead>
      <GreenTally green={weighed.green} />
      <Tabs label="Remove" sheets={sheets} open={sheet} onOpen={setSheet} />
      {sheet === 'decide' && <DecideSheet />}
      {sheet === 'outcome' && <OutcomeSheet weighed={weighed} />}
      {sheet === 'cut' && <CutSheet weighed={weighed} />}
    </>
  );
}
