// How far each log has come, told by the server as it happens: one line a browser, whatever the number of its pages, since a browser holds but a
// few. One page that is looked at listens and tells the others; where it is left another takes its place.

const CHANNEL = 'ready-corner/news';
const NEWS = '/api/news';
const AGAIN_MS = 15_000; // before news that were refused are asked for again

type Numbers = Readonly<Record<string, number>>;
type Told = { numbers: Numbers; live: boolean };

class News {
  live = false; // whether the server tells this browser what happens
  #numbers: Numbers = {};
  #hearers = new Set<() => void>();
  #tabs: BroadcastChannel | null = null;
  #source: EventSource | null = null;
  #leave: () => void = () => {};
  #asked = false;

  constructor() {
    try {
      this.#tabs = new BroadcastChannel(CHANNEL);
      this.#tabs.onmessage = ({ data }: MessageEvent<Told | 'hello'>) =>
        data === 'hello' ? this.#source && this.#tell(this.#numbers) : this.#heard(data);
      this.#tabs.postMessage('hello');
    } catch {
      // no other page can be told; each listens by itself
    }
    document.addEventListener('visibilitychange', () => (document.hidden ? this.#leave() : this.#wait()));
    this.#wait();
  }

  /** The number of the latest entry of a car, as far as it was told; 0 where nothing was. */
  of(slug: string): number {
    return this.#numbers[slug] ?? 0;
  }

  /** Call whenever something was told; returns how to stop that. */
  hear(told: () => void): () => void {
    this.#hearers.add(told);
    return () => void this.#hearers.delete(told);
  }

  /** Listen as soon as no other page of this browser does; without locks, or other pages, at once. */
  #wait(): void {
    if (this.#asked || document.hidden) return;
    this.#asked = true;
    const listen = () => (document.hidden ? Promise.resolve() : this.#listen());
    void ('locks' in navigator && this.#tabs ? navigator.locks.request(CHANNEL, listen) : listen()).finally(() => {
      this.#asked = false;
      this.#wait();
    });
  }

  /** Listen until the page is left. */
  #listen(): Promise<void> {
    return new Promise((done) => {
      const hear = () => {
        this.#source?.close();
        this.#source = new EventSource(NEWS);
        this.#source.onmessage = ({ data }) => this.#tell({ ...this.#numbers, ...JSON.parse(data as string) });
        this.#source.onerror = () => this.#tell(this.#numbers);
      };
      hear();
      const again = setInterval(() => this.#source?.readyState === EventSource.CLOSED && hear(), AGAIN_MS);
      this.#leave = () => {
        clearInterval(again);
        this.#source?.close();
        this.#source = null;
        this.#leave = () => {};
        this.#tell(this.#numbers);
        done();
      };
    });
  }

  #tell(numbers: Numbers): void {
    const told = { numbers, live: this.#source?.readyState === EventSource.OPEN };
    this.#tabs?.postMessage(told);
    this.#heard(told);
  }

  #heard({ numbers, live }: Told): void {
    this.#numbers = { ...this.#numbers, ...numbers };
    this.live = live;
    this.#hearers.forEach((told) => told());
  }
}

export const news = new News();
