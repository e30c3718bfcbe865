import '../web-fixes';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { ThemeProvider } from '@rneui/themed';
import { Slot } from 'expo-router';
import { StatusBar } from 'expo-status-bar';
import { useMemo } from 'react';
import { useColorScheme } from 'react-native';
import { SafeAreaProvider } from 'react-native-safe-area-context';
import { usePresence, useServerEvents, useSettings } from '../data';
import { elementsTheme } from '../theme';

const client = new QueryClient({
  defaultOptions: { queries: { retry: 1, staleTime: 1000, refetchOnWindowFocus: true } },
});

function Live() {
  useServerEvents();
  usePresence();
  return <Slot />;
}

export default function Root() {
  const system = useColorScheme();
  const { mode } = useSettings();
  const shown = mode === 'auto' ? (system === 'dark' ? 'dark' : 'light') : mode;
  const theme = useMemo(() => elementsTheme(shown), [shown]);
  return (
    <SafeAreaProvider>
      <QueryClientProvider client={client}>
        <ThemeProvider key={shown} theme={theme}>
          <StatusBar style="auto" />
          <Live />
        </ThemeProvider>
      </QueryClientProvider>
    </SafeAreaProvider>
  );
}
