import { Drill } from './cold-start/cold-start';
import { PathAsking } from './cip/path-asking';
import { PathWalks, type PathWalkEvents } from './trace/trace';
import type { TalkEvents } from './talk/patience';
import { RegisterAsking } from './modbus/register-asking';
import { VigilUnit, type VigilEvents } from './ping-monitor/ping-monitor';

/** What is asked of the wire besides giving and proving: each by itself, none of them changes anything. */
export const askingUnits = (
  wire: ConstructorParameters<typeof Drill>[0] & PathWalkEvents & TalkEvents & VigilEvents,
) => ({
  drill: new Drill(wire),
  walks: new PathWalks(wire),
  paths: new PathAsking(wire),
  registers: new RegisterAsking(wire),
  vigil: new VigilUnit(wire),
});
