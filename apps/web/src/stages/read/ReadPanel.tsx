import { isRead, nameInText, SEASON_STAGES, SEASON_WORDS, signsFor, speciesOf, type ReadingNotes, type SeasonStage } from '@ustle/core';
import { DateField } from '../../shared/DateField';
import { useDraft } from '../../shared/kept-draft';
import { PanelHead, Pick, Skeleton } from '../../shared/parts';
import { sayDate } from '../../shared/say';
import { Budget } from '../Budget';
import { useDesk } from '../desk';
import { SeasonWheel } from './SeasonWheel';

const VERDICTS = {
  go: { word: 'Go', text: 'Strong enough for a whole session.' },
  light: { word: 'Only light work', text: 'Clean, look, plan; keep cuts and bends small.' },
  leave: { word: 'Leave it alone', text: 'Let it grow. Feed, water, wait.' },
} as const;

const DATES = [
  ['collectedOn', 'Collected'],
  ['repottedOn', 'Repotted'],
  ['styledOn', 'Last heavy work'],
] as const;

/** What a sign changes of the work that a tree bears. */
const sayFactor = (factor: number): string => (factor < 1 ? `${Math.round((1 - factor) * 100)}% less` : `${Math.round((factor - 1) * 100)}% more`);

/** Whose tree it is. */
function Owner() {
  const { stored, tree, act } = useDesk();
  const [client, setClient] = useDraft(`client ${stored.id}`, tree.client ?? '');
  const leave = (): void => {
    const given = client.trim() || null;
    if (given !== (tree.client ?? null)) void act({ kind: 'measure', measured: { client: given } });
  };
  return (
    <label className="mt-3 block">
      <span className="mb-1 block text-quiet">Belongs to (leave empty for a tree of the yard)</span>
      <input className="input w-full bg-base-100" maxLength={120} value={client} onChange={(event) => setClient(event.target.value)} onBlur={leave} />
    </label>
  );
}

export function ReadPanel() {
  const { plan, tree, today, act } = useDesk();
  const species = speciesOf(tree.species);
  if (!plan) return <Skeleton lines={7} />;
  const { read } = plan;
  const verdict = VERDICTS[read.verdict];
  const notes: ReadingNotes = tree.plan.reading ?? { on: today, signs: [], season: null };
  const note = (changes: Partial<ReadingNotes>): void => {
    const { signs, season } = { ...notes, ...changes };
    void act({ kind: 'reading', signs, season });
  };
  const toggle = (key: string): void => note({ signs: notes.signs.includes(key) ? notes.signs.filter((s) => s !== key) : [...notes.signs, key] });
  return (
    <>
      {isRead(tree) ? (
        <PanelHead title={verdict.word}>{verdict.text}</PanelHead>
      ) : (
        <>
          <PanelHead title="Not read yet">Look at it, and say what you see; until then it is taken for a tree of normal growth.</PanelHead>
          <button type="button" className="btn btn-primary btn-sm mb-3" onClick={() => note({})}>
            Looked at: nothing stands out
          </button>
        </>
      )}
      {read.moreFrom && (
        <p className="mb-2 font-semibold">
          {VERDICTS[read.moreFrom.verdict].word} from {sayDate(read.moreFrom.on)}, by the calendar.
        </p>
      )}
      <ul className="list-disc space-y-1 pl-5">
        {read.because.map((b) => (
          <li key={b}>{b}</li>
        ))}
      </ul>
      <Budget reading={read} />
      <h3 className="mt-5 text-lg">What you see</h3>
      <div className="mt-1">
        {signsFor(species.group).map((s) => (
          <label key={s.key} className="flex items-center gap-3 py-1">
            <input type="checkbox" className="checkbox checkbox-sm" checked={notes.signs.includes(s.key)} onChange={() => toggle(s.key)} />
            <span className="flex-1">{s.text}</span>
            <span className={s.factor < 1 ? 'text-madder' : 'text-moss'}>{sayFactor(s.factor)}</span>
          </label>
        ))}
      </div>
      <Pick
        label="Where the tree is in its year, if you see it differ from the calendar (holds for four weeks)"
        value={notes.season ?? ''}
        options={[{ value: '', name: 'as the calendar says' }, ...SEASON_STAGES.map((s) => ({ value: s, name: SEASON_WORDS[s].text }))]}
        onChange={(season: SeasonStage | '') => note({ season: season || null })}
      />
      <div className="mt-4 grid grid-cols-2 gap-3">
        {DATES.map(([key, name]) => (
          <DateField
            key={key}
            label={name}
            value={tree[key] ?? null}
            today={today}
            max={today}
            open
            hemisphere={tree.site.hemisphere}
            onValue={(iso) => void act({ kind: 'measure', measured: { [key]: iso } })}
          />
        ))}
      </div>
      <Owner key={tree.client ?? ''} />
      <h3 className="mt-5 text-lg">The year of {nameInText(species)}</h3>
      <SeasonWheel species={species} hemisphere={tree.site.hemisphere} today={today} />
      {species.hazards.length > 0 && (
        <>
          <h3 className="mt-5 text-lg">Mind yourself</h3>
          <ul className="mt-1 list-disc space-y-1 pl-5">
            {species.hazards.map((h) => (
              <li key={h}>{h}</li>
            ))}
          </ul>
        </>
      )}
      <p className="mt-5 text-quiet">{plan.notes[0]}</p>
    </>
  );
}
