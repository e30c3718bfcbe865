export { cutInTheMiddle } from './cut-in-the-middle';
export { collisionsOf, toHostLabel, toHostName, toStationName, toVariable } from './convert';
export { parseHostName } from './host-name';
export { parseDhcpName, parseVariable } from './other-names';
export { nameByPattern, parsePattern, type NamePattern, type PatternValues } from './pattern';
export { parseStationName } from './station-name';
export { rawText, unwritable, unwritableIn, visibleText } from './visible-text';
