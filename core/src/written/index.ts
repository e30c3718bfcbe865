export { PLACE_KINDS, writtenPlaces, type PlaceKind, type WrittenPlace } from './places';
