export { faceDefects } from './defects';
export {
  placesOf,
  type SwitchAct,
  type SwitchElement,
  type SwitchFace,
  type SwitchMeaning,
  type SwitchUse,
} from './face';
export { addressBySwitches, nameBySwitches, readSwitches, type SwitchReading } from './read';
export {
  addressesBySwitches,
  everyPosition,
  setForAct,
  setForAddress,
  type SwitchSetting,
} from './set';
