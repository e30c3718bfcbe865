export function startPostgres(
  name: string,
  options?: { fresh?: boolean; tcp?: boolean },
): Promise<{
  url: string;
  socketUrl: string;
  port: number;
  stop(): boolean;
  stopNow(): boolean;
  start(): boolean;
  processorSeconds(): number;
}>;
