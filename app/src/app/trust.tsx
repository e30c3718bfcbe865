export { TrustScreen as default } from '../features/waiting/TrustScreen';
