import { paths } from '@ustle/contract';
import { useMemo } from 'react';
import { onPhotoSvg, type OnPhoto, type Paper, type Section, type Silhouette } from '@ustle/core';
import { Caution } from '../shared/parts';
import { Strip } from '../shared/Strip';

function Picture({ picture: { wood, foliage, pot } }: { picture: Silhouette }) {
  return (
    <svg viewBox="-2 -2 104 116" className="h-64" aria-hidden="true">
      <path d={wood} fill="var(--color-bark)" />
      <path d={foliage} fill="var(--color-moss)" fillOpacity="0.75" />
      <path d={pot} fill="#8a5a44" />
    </svg>
  );
}

/** A photo with the plan drawn over it. */
function Over({ over, caption }: { over: OnPhoto; caption: string }) {
  const drawing = useMemo(() => onPhotoSvg(over, paths.photo(over.photo)), [over]);
  // Numbers and an address of our own: there is no word in it that anyone has typed.
  return <div role="img" aria-label={caption} className="[&_svg]:h-auto [&_svg]:w-full" dangerouslySetInnerHTML={{ __html: drawing }} />;
}

function Part({ section }: { section: Section }) {
  const { head, text, facts, list, ticks, pictures, photos, caution, pieces } = section;
  return (
    <section className={`mt-5 ${pieces ? '' : 'break-inside-avoid-page'}`}>
      <h2 className="text-lg">{head}</h2>
      {caution && <Caution>{caution.join(' ')}</Caution>}
      {pictures && (
        <div className="mt-2 flex flex-wrap gap-8">
          {pictures.map((p) => (
            <figure key={p.caption}>
              <Picture picture={p.picture} />
              <figcaption className="text-quiet">{p.caption}</figcaption>
            </figure>
          ))}
        </div>
      )}
      {text?.map((t) => (
        <p key={t} className="mt-1">
          {t}
        </p>
      ))}
      {facts && (
        <dl className="mt-1 grid grid-cols-[130px_1fr] gap-x-4 gap-y-1">
          {facts.map(([name, value]) => (
            <div key={name} className="contents">
              <dt className="text-quiet">{name}</dt>
              <dd>{value}</dd>
            </div>
          ))}
        </dl>
      )}
      {list && list.length > 0 && (
        <ul className="mt-1 border-b border-rule">
          {list.map((l, i) => (
            <li key={i} className="border-t border-rule py-1 first-letter:uppercase">
              {l}
            </li>
          ))}
        </ul>
      )}
      {ticks && (
        <ul className="mt-1">
          {ticks.map((t) => (
            <li key={t.head} className="flex break-inside-avoid gap-3 border-t border-rule py-1.5">
              <span className="mt-0.5 h-5 w-5 shrink-0 border border-ink" aria-hidden="true" />
              <span>
                <strong className="font-medium">{t.head}</strong>
                {t.text.map((line) => (
                  <span key={line} className="block text-quiet first-letter:uppercase">
                    {line}
                  </span>
                ))}
              </span>
            </li>
          ))}
        </ul>
      )}
      {photos && photos.length > 0 && (
        <div className="mt-2 flex flex-wrap gap-4">
          {photos.map((p) => (
            <figure key={p.photo} className={p.over ? 'w-full max-w-130' : 'w-56'}>
              {p.over ? <Over over={p.over} caption={p.caption} /> : <img src={paths.photo(p.photo, 'small')} alt={p.caption} className="w-full" />}
              <figcaption className="text-quiet first-letter:uppercase">{p.caption}</figcaption>
            </figure>
          ))}
        </div>
      )}
      {pieces && (
        <ol className="mt-2 gap-8 sm:columns-2 print:columns-2">
          {pieces.map((piece) => (
            <li key={piece.head} className="mb-6 break-inside-avoid border-t border-rule pt-2">
              <h3 className="text-lg">{piece.head}</h3>
              {piece.text.map((line, i) => (
                <p key={i} className={i ? 'text-quiet' : ''}>
                  {line}
                </p>
              ))}
              {piece.strip && <Strip strip={piece.strip} />}
            </li>
          ))}
        </ol>
      )}
    </section>
  );
}

/** A paper as a page: the same that the server makes a file of. */
export function PaperView({ paper }: { paper: Paper }) {
  return (
    <>
      {paper.sections.map((section, i) => (
        <Part key={i} section={section} />
      ))}
    </>
  );
}
