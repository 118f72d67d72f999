import { useEffect, useLayoutEffect, useRef, useState } from 'react';
import { WordDrawing } from './drawings';
import { WORDS, type Word } from './glossary';

/** So long a pointer rests on a word before it is told, ms. */
const RESTS_MS = 300;
const GAP = 6;

interface Told {
  word: Word;
  /** Where the word stands on the screen. */
  at: DOMRect;
}

/** What a word of the glossary is, beside it, for as long as it is pointed at or until the next press. */
export function WordTip() {
  const [told, setTold] = useState<Told | null>(null);
  const box = useRef<HTMLDivElement>(null);
  useEffect(() => {
    let rests: ReturnType<typeof setTimeout> | undefined;
    const tellOf = (target: EventTarget | null): Told | null => {
      const on = (target as Element | null)?.closest?.<HTMLElement>('[data-word]');
      const word = on && WORDS.find((w) => w.word === on.dataset.word);
      return word ? { word, at: on.getBoundingClientRect() } : null;
    };
    const over = (event: PointerEvent): void => {
      if (event.pointerType !== 'mouse') return;
      clearTimeout(rests);
      const next = tellOf(event.target);
      if (next) rests = setTimeout(() => setTold(next), RESTS_MS);
      else setTold(null);
    };
    const press = (event: MouseEvent): void => {
      clearTimeout(rests);
      setTold(tellOf(event.target));
    };
    const away = (): void => {
      clearTimeout(rests);
      setTold(null);
    };
    document.addEventListener('pointerover', over);
    document.addEventListener('click', press);
    document.addEventListener('keydown', away);
    document.addEventListener('scroll', away, true);
    return () => {
      clearTimeout(rests);
      document.removeEventListener('pointerover', over);
      document.removeEventListener('click', press);
      document.removeEventListener('keydown', away);
      document.removeEventListener('scroll', away, true);
    };
  }, []);
  useLayoutEffect(() => {
    const tip = box.current;
    if (!tip || !told) return;
    // Over a sheet as well: what is shown last lies on top.
    if (!tip.matches(':popover-open')) tip.showPopover();
    const { width, height } = tip.getBoundingClientRect();
    const below = told.at.bottom + GAP + height <= window.innerHeight;
    tip.style.top = `${below ? told.at.bottom + GAP : Math.max(GAP, told.at.top - GAP - height)}px`;
    tip.style.left = `${Math.max(GAP, Math.min(told.at.left, window.innerWidth - width - GAP))}px`;
  }, [told]);
  if (!told) return null;
  return (
    <div
      ref={box}
      popover="manual"
      role="status"
      className="pointer-events-none fixed inset-auto m-0 w-64 border border-rule bg-sheet p-3 text-ink shadow-md print:hidden"
    >
      <strong className="first-letter:uppercase">{told.word.word}</strong>
      <p>{told.word.says}</p>
      {told.word.drawing && <WordDrawing of={told.word.drawing} />}
    </div>
  );
}
