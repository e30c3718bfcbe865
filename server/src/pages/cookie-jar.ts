const MOST = 50;
const MOST_BYTES = 4096;

/**
 * The cookies that one device sets in one opening of its page (RFC 6265 §5.3, of one host and without their paths). They
 * stay here: browsers hold cookies for a host whatever its port, so what one device set would be sent to another, and
 * to Ipsonomo.
 */
export class CookieJar {
  private readonly values = new Map<string, string>();

  /** @param headers of Set-Cookie, as they came */
  take(headers: readonly string[] | undefined): void {
    for (const header of headers ?? []) {
      const [pair = '', ...attributes] = header.split(';');
      const at = pair.indexOf('=');
      const name = pair.slice(0, at).trim();
      if (at < 1 || name === '' || header.length > MOST_BYTES) continue;
      if (attributes.some(isOver)) this.values.delete(name);
      else if (this.values.size < MOST || this.values.has(name))
        this.values.set(name, pair.slice(at + 1).trim());
    }
  }

  /** As a request carries them; undefined where there is none. */
  get header(): string | undefined {
    if (this.values.size === 0) return undefined;
    return [...this.values].map(([name, value]) => `${name}=${value}`).join('; ');
  }
}

/** An attribute that takes the cookie away: an age of nothing, or a date that has passed. */
function isOver(attribute: string): boolean {
  const [name = '', value = ''] = attribute.split('=').map((part) => part.trim());
  if (/^max-age$/i.test(name)) return Number(value) <= 0;
  return /^expires$/i.test(name) && Date.parse(value) <= Date.now();
}
