// The parts of React Native Elements that are used. The bundler takes this in place of the library's own door, which brings
// fifty more and what they need (metro.config.js); the types are those of the library.

export { default as Button } from '@rneui/themed/dist/Button';
export { default as ButtonGroup } from '@rneui/themed/dist/ButtonGroup';
export { default as Input } from '@rneui/themed/dist/Input';
export { default as LinearProgress } from '@rneui/themed/dist/LinearProgress';
export { createTheme, ThemeProvider, useThemeMode } from '@rneui/themed/dist/config';
