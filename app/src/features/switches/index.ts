// What other features use of this one; its screens are for the routes alone.
export { DeviceSwitches } from './DeviceSwitches';
export { SwitchReader } from './SwitchCard';
