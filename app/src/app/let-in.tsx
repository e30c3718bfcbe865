export { LetInScreen as default } from '../screens/door/LetInScreen';
