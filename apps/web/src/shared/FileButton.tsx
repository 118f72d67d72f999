import { useRef } from 'react';

interface Props {
  label: string;
  /** What the file is, for who cannot see the button's place; the label itself where nothing is said. */
  what?: string;
  accept: string;
  multiple?: boolean;
  disabled?: boolean;
  className?: string;
  onFiles: (files: readonly File[]) => void;
}

/** A button that asks for a file; the same file may be chosen again after it was put right. */
export function FileButton({ label, what = label, accept, multiple = false, disabled = false, className = '', onFiles }: Props) {
  const input = useRef<HTMLInputElement>(null);
  return (
    <>
      <input
        ref={input}
        type="file"
        accept={accept}
        multiple={multiple}
        className="sr-only"
        aria-label={what}
        tabIndex={-1}
        onChange={(event) => {
          const files = [...(event.target.files ?? [])];
          event.target.value = '';
          if (files.length) onFiles(files);
        }}
      />
      <button type="button" className={`btn btn-outline btn-primary ${className}`} disabled={disabled} onClick={() => input.current?.click()}>
        {label}
      </button>
    </>
  );
}
