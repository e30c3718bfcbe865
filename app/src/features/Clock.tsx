import { useWire } from '../data';

/** What changes with the time alone, drawn every second by the server's clock; what stands around it is left as it is. */
export function Clock({ children }: { readonly children: (now: number) => React.ReactNode }) {
  return <>{children(useWire().now)}</>;
}
