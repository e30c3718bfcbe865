import { Platform } from 'react-native';

// React Native Elements reads this on every platform; react-native-web has no such field.
const platform = Platform as { constants?: unknown };
platform.constants ??= { reactNativeVersion: { major: 0, minor: 86, patch: 3 } };
