// The one door to the server. Types come from its own description; a refusal keeps its code, sentence and problems.
import { gate } from '$lib/gate.svelte';
import type { components } from './schema.generated';

type Schemas = components['schemas'];
export type CarView = Omit<Schemas['CarView'], 'plan' | 'corners'> & {
  plan: Plan;
  corners: Record<Corner, CornerView>;
};
type CarChange = Partial<CarView> & { rows: Record<string, Record<string, unknown>> };
type Recorded = { number: number; since: null; car: CarView } | { number: number; since: number; car: CarChange };

/** Lay what has changed on a car: parts as they come, and of a part in rows (a list, or by a key) only those rows. */
function laid(known: CarView, { rows, ...parts }: CarChange): CarView {
  const found: Record<string, unknown> = { ...known, ...parts };
  for (const [part, changed] of Object.entries(rows)) {
    const was = found[part];
    found[part] = Array.isArray(was) ? was.map((row, i) => changed[i] ?? row) : { ...(was as object), ...changed };
  }
  return found as CarView;
}
export type CarLine = Schemas['CarLineView'];
export type MarkView = Schemas['MarkView'];
export type AskView = Schemas['AskView'];
export type CornerView = Schemas['CornerView'];
export type AdjusterView = Schemas['AdjusterView'];
export type PreviewView = Schemas['PreviewView'];
export type LogLine = Schemas['LogLine'];
export type Plan = Required<Schemas['PlanModel']>;
export type EntryIn = Schemas['EntryIn'];
export type What = EntryIn['what'];
export type Corner = AskView['corner'];
export type Quantity = AskView['quantity'];
export type MarkWord = NonNullable<MarkView['state']>;
export type Units = Required<Schemas['UnitsModel']>;
export type FigureKind = Schemas['FigureIn']['kind'];
export type Spans = Partial<Record<'rim' | 'tyre', number | null>>;
export type Problem = Schemas['Problem'];

export type Linkage = Schemas['LinkageModel'];
export type Loads = Schemas['LoadsModel'];
export type JigView = Schemas['JigView'];
export type StanceView = Schemas['StanceView'];
export type StanceAsk =
  | Schemas['SpringAsk']
  | Schemas['DamperAsk']
  | Schemas['TorsionAsk']
  | Schemas['BarAsk']
  | Schemas['TubeAsk']
  | Schemas['HeightsAsk'];
export type Pickup = Schemas['PickupView'];
export type Proposal = Schemas['ProposalView'];
export type SurveyRead = Schemas['SurveyReadIn'];
export type Wanting = Schemas['WantingView'];
export type Layout = Schemas['LayoutView'];
export type Study = Schemas['StudyView'];
export type Change = Schemas['ChangeIn'];
export type Found = Schemas['FoundView'];
export type Truth = Schemas['TruthView'];
export type Practices = Schemas['ChoicesView'];
export type Lever = Schemas['LeverView'];
export type Standing = Schemas['StandingView'];
export type Latest = Schemas['Latest'];
export type BodyMoving = Schemas['BodyView'];
export type Device = Schemas['DeviceView'];

const PATIENCE_MS = 8000;
const FILE_PATIENCE_MS = 120_000; // a whole workshop is read, judged and kept before the answer
const AWAY = new Set([502, 503, 504]); // whatever else is answered is an answer

const AWAY_WORDS = 'The server is away.';

/** The server said no, in a sentence. */
export class Refused extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    sentence: string,
    readonly problems: Problem[],
  ) {
    super(sentence);
  }
}

/** The server (or its database) is not there just now. */
export class Away extends Error {}

async function call<T>(
  method: string,
  path: string,
  body?: unknown,
  more: Record<string, string> = {},
  patience = PATIENCE_MS,
): Promise<T> {
  let answer: Response;
  let text: string;
  try {
    answer = await fetch(`/api${path}`, {
      method,
      headers: body === undefined ? more : { 'content-type': 'application/json', ...more },
      body: body === undefined ? null : typeof body === 'string' ? body : JSON.stringify(body),
      signal: AbortSignal.timeout(patience),
    });
    text = await answer.text();
  } catch {
    throw new Away(AWAY_WORDS);
  }
  const said = read<T>(text);
  // An answer cut short tells nothing of what became of what was sent: it is asked for again, and what is sent again is kept once.
  if (answer.ok && said === undefined) throw new Away(AWAY_WORDS);
  if (answer.ok) return said as T;
  return refused(answer.status, said as Schemas['Refusal'] | undefined);
}

/** Read an answer; undefined where it is none. */
function read<T>(text: string): T | undefined {
  try {
    return JSON.parse(text) as T;
  } catch {
    return undefined;
  }
}

function refused(status: number, said: Schemas['Refusal'] | undefined): never {
  if (said?.code === 'locked') {
    gate.locked = true; // whatever was to be sent waits for the passphrase
    throw new Away(said.sentence);
  }
  if (AWAY.has(status)) throw new Away(said?.sentence ?? AWAY_WORDS);
  throw new Refused(
    status,
    said?.code ?? 'fault',
    said?.sentence ?? `The server answered ${status} and did not say why.`,
    said?.problems ?? [],
  );
}

export const api = {
  gate: () => call<Schemas['GateView']>('GET', '/gate'),
  letIn: (passphrase: string, who: string) => call<Schemas['GateView']>('POST', '/gate', { passphrase, who }),
  devices: () => call<Device[]>('GET', '/gate/devices'),
  letGo: (id: string) => call<Device[]>('POST', '/gate/let-go', { id }),
  cars: () => call<CarLine[]>('GET', '/cars'),
  car: (slug: string) => call<CarView>('GET', `/cars/${slug}`),
  purposes: (front: string | undefined, rear: string | undefined, inches: boolean) => {
    const ends = Object.entries({ front, rear }).flatMap(([end, layout]) =>
      layout ? [`&${end}=${encodeURIComponent(layout)}`] : [],
    );
    return call<Record<string, Plan['aims']>>('GET', `/purposes?inches=${inches}${ends.join('')}`);
  },
  opened: (slug: string) => call<Schemas['Opened']>('GET', `/cars/${slug}/opened`),
  /** How a car stands in a few words, and who has written what down after a line of its log. */
  standing: (slug: string, after = 0) => call<Standing>('GET', `/cars/${slug}/standing?after=${after}`),
  latest: (slug: string) => call<Latest>('GET', `/cars/${slug}/latest`),
  planOf: (slug: string) => call<Plan>('GET', `/cars/${slug}/plan.json`),
  begin: (entry: EntryIn) => call<{ slug: string }>('POST', '/cars', entry),
  bringIn: (file: string) => call<Schemas['BroughtView'][]>('POST', '/workshop', file, {}, FILE_PATIENCE_MS),
  /** Take an entry; the answer is the car as it is then: what has changed since ``known``, laid on it, or the whole. */
  record: async (slug: string, entry: EntryIn, known: CarView | null): Promise<CarView> => {
    const since: Record<string, string> = known ? { 'x-since-entry': String(known.number) } : {};
    const told = await call<Recorded>('POST', `/cars/${slug}/entries`, entry, since);
    return told.since === null ? told.car : laid(known!, told.car);
  },
  practices: () => call<Practices>('GET', '/practice'),
  practise: (asked: Schemas['PracticeIn']) => call<{ slug: string }>('POST', '/practice', asked),
  truth: (slug: string) => call<Truth>('GET', `/cars/${slug}/practice`),
  /** What the tool at the end of the line shows, as it would be typed. */
  take: (slug: string, asked: Schemas['TakeIn']) => call<{ typed: string }>('POST', `/cars/${slug}/take`, asked),
  liftOf: (slug: string, end: 'front' | 'rear') => call<CarView['lift']>('GET', `/cars/${slug}/lift/${end}`),
  preview: (slug: string, what: What) => call<PreviewView>('POST', `/cars/${slug}/preview`, what),
  revision: (slug: string, entry: EntryIn) => call<Schemas['RevisionView']>('POST', `/cars/${slug}/revision`, entry),
  found: (slug: string) => call<Found[]>('GET', `/cars/${slug}/found`),
  log: (slug: string, before?: number) =>
    call<LogLine[]>('GET', `/cars/${slug}/log${before ? `?before=${before}` : ''}`),
  layouts: () => call<Layout[]>('GET', '/layouts'),
  /** What the plan of a car leaves open, and the stage that will want it. */
  wantingOf: (slug: string) => call<Wanting[]>('GET', `/cars/${slug}/wanting`),
  /** What a plan that is still given leaves open; refused where its figures contradict each other. */
  wanting: (plan: Plan) => call<Wanting[]>('POST', '/plan/wanting', plan),
  example: (name: string, end: 'front' | 'rear') =>
    call<Schemas['ExampleView']>('GET', `/layouts/${encodeURIComponent(name)}/example?end=${end}`),
  points: (text: string, units: Units) =>
    call<Record<string, [number, number, number]>>('POST', '/points/read', { text, units }),
  travel: (slug: string, asked: Schemas['StudyIn']) => call<Study>('POST', `/cars/${slug}/travel`, asked),
  askPoints: (slug: string, asked: Schemas['AskedIn']) =>
    call<Schemas['ToldView']>('POST', `/cars/${slug}/jig/points`, asked),
  moving: (slug: string, asked: Schemas['StudyIn']) => call<BodyMoving[]>('POST', `/cars/${slug}/travel/moving`, asked),
  levers: (slug: string, end: 'front' | 'rear', answer: string) =>
    call<Lever[]>('GET', `/cars/${slug}/levers?end=${end}&answer=${encodeURIComponent(answer)}`),
  stance: (slug: string) => call<StanceView>('GET', `/cars/${slug}/stance`),
  reckon: (slug: string, asked: StanceAsk) =>
    call<{ lines: [string, string][] }>('POST', `/cars/${slug}/stance/reckon`, asked),
  jig: (slug: string) => call<JigView>('GET', `/cars/${slug}/jig`),
  jigPreview: (slug: string, what: SurveyRead) =>
    call<{ said: string; means: string }>('POST', `/cars/${slug}/jig/preview`, what),
  proposal: (slug: string, asked: Schemas['ProposalIn']) => call<Proposal>('POST', `/cars/${slug}/jig/proposal`, asked),
  lost: (slug: string, prefix: string) =>
    call<{ say: string }>('GET', `/cars/${slug}/jig/lost?prefix=${encodeURIComponent(prefix)}`),
  spread: (slug: string, end: 'front' | 'rear', typed: string) =>
    call<Schemas['SpreadView'][]>('GET', `/cars/${slug}/spread?end=${end}&typed=${encodeURIComponent(typed)}`),
  tools: (inches: boolean) => call<Plan['tools']>('GET', `/tools?inches=${inches}`),
  read: (text: string, kind: FigureKind, units: Units, spans: Spans = {}) =>
    call<Required<Schemas['FigureView']>>('POST', '/shop/read', { text, kind, units, spans }),
  say: (figures: { value: number; kind: FigureKind }[], units: Units) =>
    call<string[]>('POST', '/shop/say', { figures, units }),
};
