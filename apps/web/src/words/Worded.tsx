import { wordsIn } from './glossary';

/** A sentence whose words of the glossary say what they are, under the pointer or a finger; for keyboards they stand in the sheet of keys. */
export function Worded({ children }: { children: string }) {
  return (
    <>
      {wordsIn(children).map((part, i) =>
        typeof part === 'string' ? (
          part
        ) : (
          <span key={i} data-word={part.word.word} className="cursor-help underline decoration-rule decoration-dotted underline-offset-4">
            {part.text}
          </span>
        ),
      )}
    </>
  );
}
