/** How long somebody may be away. */
export const MOST_ABSENCE = 30_000;

/** Watches whether one browser is still there, by what it says every few seconds. */
export class Presence {
  private browser: string | undefined;
  private timer: NodeJS.Timeout | undefined;

  constructor(private readonly lost: () => void) {}

  /** @param browser undefined: nobody is watched */
  begin(browser: string | undefined): void {
    this.end();
    this.browser = browser;
    this.here(browser);
  }

  here(browser: string | undefined): void {
    if (browser === undefined || browser !== this.browser) return;
    clearTimeout(this.timer);
    this.timer = setTimeout(() => {
      this.end();
      this.lost();
    }, MOST_ABSENCE);
    this.timer.unref();
  }

  end(): void {
    clearTimeout(this.timer);
    this.browser = undefined;
  }
}
