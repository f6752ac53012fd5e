/** How fast a foreign page may speak: each of its messages is work for whoever listens. */

const AT_ONCE = 20;
const A_SECOND = 3; // a page that is redrawn all the time tells of its inputs some two times a second

export class Pace {
  private left = AT_ONCE;
  private at: number;

  constructor(now: number) {
    this.at = now;
  }

  /** Whether one more message is taken at a time in milliseconds. */
  takes(now: number): boolean {
    this.left = Math.min(AT_ONCE, this.left + ((now - this.at) / 1000) * A_SECOND);
    this.at = now;
    if (this.left < 1) return false;
    this.left--;
    return true;
  }
}
