// The browser's own small storage, which may be full, forbidden or spoilt: then there is simply nothing in it.
export function kept<T>(key: string): T | null {
  try {
    const text = localStorage.getItem(key);
    return text === null ? null : (JSON.parse(text) as T);
  } catch {
    return null;
  }
}

export function keep(key: string, value: unknown): boolean {
  try {
    localStorage.setItem(key, JSON.stringify(value));
    return true;
  } catch {
    return false;
  }
}

export function forget(key: string): void {
  try {
    localStorage.removeItem(key);
  } catch {
    // nothing can be kept there, so nothing is
  }
}

export function keysOf(prefix: string): string[] {
  try {
    return Object.keys(localStorage).filter((key) => key.startsWith(prefix));
  } catch {
    return [];
  }
}

const SIGNED = 'ready-corner/signed';

/** Who measures, as typed at the top of the page. */
export const who = (): string => kept<{ name: string }>(SIGNED)?.name ?? '';
export const signAs = (name: string): boolean => keep(SIGNED, { name });
