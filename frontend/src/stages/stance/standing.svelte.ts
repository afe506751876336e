// What stage Stance shows and does: how the car stands, and the desk for heights, loads, pads, stands and perches.
import { api, type CarView, type StanceView } from '$lib/api/client';
import { until } from '$lib/api/until';
import type { Car } from '$lib/car.svelte';
import { router } from '$lib/router.svelte';
import { RoundDesk, type Told, type Work, withPads } from '$parts/tape/round.svelte';
import { STANCE } from './texts';

export type Tab = keyof typeof STANCE.tabs;

export class Standing {
  stance = $state.raw<StanceView | null>(null);
  away = $state(''); // why it cannot be told
  readonly desk: RoundDesk;

  constructor(readonly car: Car) {
    this.desk = new RoundDesk(
      car,
      () => router.parts.slice(4),
      () => this.#work,
    );
  }

  refresh(): () => void {
    return until(
      () => api.stance(this.car.slug),
      (found) => ([this.stance, this.away] = [found, '']),
      (why) => (this.away = why),
    );
  }

  get tab(): Tab {
    const part = router.parts[3];
    return part && part in STANCE.tabs ? (part as Tab) : 'floor';
  }

  /** Whether something is read or turned here, so that the tape lies along the bottom. */
  get taped(): boolean {
    return this.tab === 'floor' || this.tab === 'stands';
  }

  /** What is read now; nothing while turning, or away from the tape. */
  get quantity(): string {
    return this.desk.turning || !this.taped ? '' : (this.desk.ask?.quantity ?? '');
  }

  get #work(): Work {
    const stands = this.tab === 'stands';
    return {
      base: `stance/${stands ? 'stands' : 'floor'}`,
      allRound: true,
      asks: (v, place) => (stands ? v.stand_round : withPads(v, v.floor_round, place)),
      adjusters: (v) => Object.values(v.corners).flatMap((c) => c.adjusters.filter((a) => a.raises)),
      told: (v) => this.#told(v),
    };
  }

  #told(view: CarView): Told[] {
    return (this.stance?.perches ?? []).map(({ corner, adjuster, amount, caution }) => ({
      adjuster,
      name: view.corners[corner].adjusters.find((a) => a.id === adjuster)?.name ?? '',
      amount: 1,
      say: amount,
      caution,
      corner,
    }));
  }
}
