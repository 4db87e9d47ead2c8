// Keeps two tabs from writing one project where the browser has no locks (a page over plain http on a host name): a lease in
// localStorage, renewed while the tab lives, and a channel on which a new tab asks whether anybody holds the project.

interface Held {
  readonly tab: string;
  readonly until: number;
}

type Message =
  | { readonly asks: string; readonly tab: string }
  | { readonly holds: string; readonly tab: string }
  | { readonly frees: string };

const KEY = 'outlet-lease:';
/** A tab in the background is woken once a minute at the worst. */
const LASTS_MS = 90_000;
const RENEW_MS = 3_000;
const ANSWER_MS = 400;
const SETTLE_MS = 120;
const AGAIN_MS = 2_500;

const pause = (ms: number): Promise<void> => new Promise((done) => setTimeout(done, ms));

/** The right of one tab to write one project. Where tabs cannot ask each other, nobody has it. */
export class Lease {
  private readonly tab = Array.from(crypto.getRandomValues(new Uint8Array(8)), (b) => b.toString(16)).join('');
  private readonly channel: BroadcastChannel | null =
    typeof BroadcastChannel === 'undefined' ? null : new BroadcastChannel('outlet-projects');
  private heldId: string | null = null;
  private answered = false;
  private waiting: { readonly id: string; readonly onLater: () => void } | null = null;

  constructor() {
    this.channel?.addEventListener('message', (e: MessageEvent<Message>) => this.hear(e.data));
    setInterval(() => {
      if (this.heldId !== null) this.renew(this.heldId);
    }, RENEW_MS);
    setInterval(() => void this.tryAgain(), AGAIN_MS);
    window.addEventListener('pagehide', () => this.free());
    // Kept frozen and shown again, a page may have lost what it held.
    window.addEventListener('pageshow', (e) => e.persisted && window.location.reload());
  }

  private hear(message: Message): void {
    if ('asks' in message && message.asks === this.heldId && message.tab !== this.tab)
      this.channel?.postMessage({ holds: message.asks, tab: this.tab });
    if ('holds' in message && message.tab !== this.tab) this.answered = true;
    if ('frees' in message) void this.tryAgain();
  }

  private read(id: string): Held | null {
    try {
      const held = JSON.parse(localStorage.getItem(KEY + id) ?? 'null') as Partial<Held> | null;
      return typeof held?.tab === 'string' && typeof held.until === 'number' ? { tab: held.tab, until: held.until } : null;
    } catch {
      return null;
    }
  }

  private write(id: string): boolean {
    try {
      localStorage.setItem(KEY + id, JSON.stringify({ tab: this.tab, until: Date.now() + LASTS_MS } satisfies Held));
      return true;
    } catch {
      return false;
    }
  }

  private free(): void {
    const id = this.heldId;
    if (id === null) return;
    this.heldId = null;
    if (this.read(id)?.tab === this.tab) localStorage.removeItem(KEY + id);
    this.channel?.postMessage({ frees: id });
  }

  async isHeldElsewhere(id: string): Promise<boolean> {
    if (!this.channel) return true;
    this.answered = false;
    this.channel.postMessage({ asks: id, tab: this.tab });
    await pause(ANSWER_MS);
    if (this.answered) return true;
    // Nobody answers: a lease that is still written belongs to a tab that crashed, or to one frozen. A frozen one wakes later.
    const held = this.read(id);
    return held !== null && held.tab !== this.tab && held.until > Date.now();
  }

  private async take(id: string): Promise<boolean> {
    if ((await this.isHeldElsewhere(id)) || !this.write(id)) return false;
    // Two tabs may write at once: the one whose word stands a moment later has it.
    await pause(SETTLE_MS);
    if (this.read(id)?.tab !== this.tab) return false;
    if (this.heldId !== id) this.free();
    this.heldId = id;
    return true;
  }

  async claim(id: string, onLater?: () => void): Promise<boolean> {
    this.waiting = null;
    if (this.heldId === id) return this.renew(id);
    if (await this.take(id)) return true;
    if (onLater) this.waiting = { id, onLater };
    return false;
  }

  private async tryAgain(): Promise<void> {
    const { waiting } = this;
    if (!waiting || !(await this.take(waiting.id)) || this.waiting !== waiting) return;
    this.waiting = null;
    waiting.onLater();
  }

  /** Puts the lease off if it is still this tab's; false once another has taken it. */
  renew(id: string): boolean {
    if (this.heldId !== id) return false;
    if (this.read(id)?.tab === this.tab) return this.write(id);
    this.heldId = null;
    return false;
  }
}
