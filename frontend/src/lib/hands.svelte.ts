// Whether a hand or a mouse is at work: on touch the tape has its own keys, and the system's keyboard stays away.
class Hands {
  touch = $state(matchMedia('(pointer: coarse)').matches);

  constructor() {
    addEventListener('pointerdown', (e) => e.pointerType === 'touch' && (this.touch = true), { capture: true });
    matchMedia('(pointer: coarse)').addEventListener('change', (e) => (this.touch = e.matches));
  }
}

export const hands = new Hands();
