// What a stage asks of the plan at its own tape.
import type { Car } from '$lib/car.svelte';

export const BAY = 'frame.bay'; // the corners of a frame of which nothing is known

export class Here {
  path = $state(''); // what is asked for; nothing while the stage's own tape is there
  now = $state(''); // which figure of it is in hand
  passed = $state.raw<ReadonlySet<string>>(new Set()); // what was put off
  constructor(readonly car: Car) {}

  ask(path: string): void {
    this.path = path;
  }
  pass(path: string): void {
    this.passed = new Set([...this.passed, path]);
  }
  done(): void {
    this.path = this.now = '';
  }
}
