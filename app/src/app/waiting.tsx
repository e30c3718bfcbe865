export { WaitingScreen as default } from '../features/waiting/WaitingScreen';
