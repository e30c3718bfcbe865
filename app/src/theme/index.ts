export * from './colours';
export * from './type';
export * from './use-colours';
export { elementsTheme } from './elements';
