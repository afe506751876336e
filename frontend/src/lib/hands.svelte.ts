// Whether a hand or a mouse is at work: on touch the tape has its own keys, and the system's keyboard stays away.
const SMALL = matchMedia('(max-width: 1000px), (max-height: 560px)');

class Hands {
  touch = $state(matchMedia('(pointer: coarse)').matches);
  /** Whether the page is a small one, on which the tape is docked at its lower edge. */
  small = $state(SMALL.matches);

  constructor() {
    addEventListener('pointerdown', (e) => e.pointerType === 'touch' && (this.touch = true), { capture: true });
    matchMedia('(pointer: coarse)').addEventListener('change', (e) => (this.touch = e.matches));
    SMALL.addEventListener('change', (e) => (this.small = e.matches));
  }
}

export const hands = new Hands();

/** Keep the screen on for as long as the tape is open, where the browser can; returns what lets it sleep again. */
export function stayAwake(): () => void {
  let lock: WakeLockSentinel | null = null;
  let over = false;
  const ask = async () => {
    if (document.hidden || over || !('wakeLock' in navigator)) return;
    try {
      lock = await navigator.wakeLock.request('screen');
      if (over) void lock.release();
    } catch {
      // the battery is low, or it is not allowed: then the screen goes dark as ever
    }
  };
  void ask();
  document.addEventListener('visibilitychange', ask);
  return () => {
    over = true;
    document.removeEventListener('visibilitychange', ask);
    void lock?.release();
  };
}
