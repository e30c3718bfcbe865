import { Drill } from './drill';
import { PathAsking } from './path-asking';
import { PathWalks, type PathWalkEvents } from './path-walks';
import type { TalkEvents } from './patience';
import { RegisterAsking } from './register-asking';
import { VigilUnit, type VigilEvents } from './vigil';

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
