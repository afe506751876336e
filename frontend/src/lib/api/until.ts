// Asking until an answer comes.
import { Away } from './client';

const AGAIN_MS = 1500;

/** Ask, show what is found or why not, and ask again for as long as the server is away. Returns how to stop: what is answered after that shows nothing. */
export function until<T>(
  ask: () => Promise<T>,
  show: (found: T) => void,
  said: (why: string, error: Error) => void = () => {},
): () => void {
  let stopped = false;
  let timer = 0;
  const go = (): void =>
    void ask().then(
      (found) => stopped || show(found),
      (error: Error) => {
        if (stopped) return;
        said(error.message, error);
        if (error instanceof Away) timer = window.setTimeout(go, AGAIN_MS);
      },
    );
  go();
  return () => {
    stopped = true;
    clearTimeout(timer);
  };
}
