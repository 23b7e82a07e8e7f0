/** A step is said with its time when it has taken so long, s: shorter ones would only flicker. */
const LONG = 2;

/** What is being done to a part, and since when: a long step is said with its seconds, so that it is seen to go on. */
export class ReadingSteps {
  private share = 0;
  private what = '';
  private since = 0;
  private said = '';

  /** `now` in ms, from whatever beginning. */
  constructor(private readonly tell: (share: number, text: string) => void) {}

  /** A new step has begun, or the same has come farther. */
  step(share: number, what: string, now: number): void {
    if (what !== this.what) this.since = now;
    this.share = share;
    this.what = what;
    this.say(now);
  }

  /** Time went by. */
  tick(now: number): void {
    if (this.what !== '' && this.text(now) !== this.said) this.say(now);
  }

  private text(now: number): string {
    const seconds = Math.floor((now - this.since) / 1000);
    return seconds < LONG ? this.what : `${this.what}, ${seconds} s`;
  }

  private say(now: number): void {
    this.said = this.text(now);
    this.tell(this.share, this.said);
  }
}
