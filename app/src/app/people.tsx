export { PeopleScreen as default } from '../features/start/door/PeopleScreen';
