import { createContext, useCallback, useContext, useMemo, useState, type ReactNode } from 'react';
import { ApiError } from '../shared/http';

interface Notices {
  /** Runs something that may be refused; says so in the words of the refusal. Resolves to whether it worked. */
  attempt: (work: () => Promise<unknown>) => Promise<boolean>;
}

const Context = createContext<Notices>({ attempt: async () => true });
export const useNotice = (): Notices => useContext(Context);

const wordsOf = (error: unknown): string => (error instanceof ApiError ? error.message : 'Something went wrong on this page. What is stored is safe.');

/** One line at the foot of the page for what was refused, until it is read. */
export function NoticeBoard({ children }: { children: ReactNode }) {
  const [text, setText] = useState<string | null>(null);
  const attempt = useCallback(async (work: () => Promise<unknown>) => {
    try {
      await work();
      setText(null);
      return true;
    } catch (error) {
      setText(wordsOf(error));
      return false;
    }
  }, []);
  const value = useMemo(() => ({ attempt }), [attempt]);
  return (
    <Context value={value}>
      {children}
      {text && (
        <div
          role="alert"
          className="fixed bottom-20 left-1/2 z-30 flex max-w-[90vw] -translate-x-1/2 items-center gap-4 border border-madder bg-sheet px-4 py-2 shadow-md"
        >
          <span>{text}</span>
          <button type="button" className="btn btn-ghost btn-sm" onClick={() => setText(null)}>
            I see
          </button>
        </div>
      )}
    </Context>
  );
}
