export { LetInScreen as default } from '../features/start/door/LetInScreen';
