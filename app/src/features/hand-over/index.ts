export { PackageCard } from './PackageCard';
