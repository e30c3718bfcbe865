import '../web-fixes';
import { MutationCache, QueryCache, QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { ThemeProvider } from '@rneui/themed';
import { Slot } from 'expo-router';
import { StatusBar } from 'expo-status-bar';
import { useEffect, useMemo } from 'react';
import { useColorScheme } from 'react-native';
import { SafeAreaProvider } from 'react-native-safe-area-context';
import {
  askedAnew,
  isLocked,
  keepApplication,
  useDoor,
  usePresence,
  useServerEvents,
  useSettings,
} from '../data';
import { DoorScreen } from '../features/start/door/DoorScreen';
import { NameAsk } from '../features/frame/NameAsk';
import { PageFell } from '../features/frame/PageFell';
import { elementsTheme } from '../theme';

/** A cookie that was taken back shows the door, whatever was asked for; the door itself knows already. */
const onError = (error: unknown, of?: { readonly queryKey?: readonly unknown[] }): void => {
  if (isLocked(error) && of?.queryKey?.[0] !== askedAnew.queryKey[0])
    void client.invalidateQueries(askedAnew);
};

const client: QueryClient = new QueryClient({
  queryCache: new QueryCache({ onError }),
  mutationCache: new MutationCache({ onError: (error) => onError(error) }),
  defaultOptions: {
    // Whether there is a network is found out by asking: without one what was kept is shown, and what is done is kept.
    queries: { retry: 1, staleTime: 1000, refetchOnWindowFocus: true, networkMode: 'always' },
    mutations: { networkMode: 'always' },
  },
});

function Live() {
  useServerEvents();
  usePresence();
  useEffect(keepApplication, []);
  return (
    <>
      <NameAsk />
      <Slot unstable_screenErrorBoundary={PageFell} />
    </>
  );
}

/** Nothing is asked for by a browser that was not let in. */
function AtTheDoor() {
  const { state, error } = useDoor();
  if (state === 'asking') return null;
  return state === 'shut' ? <DoorScreen error={error} /> : <Live />;
}

export default function Root() {
  const system = useColorScheme();
  const { mode } = useSettings();
  const shown = mode === 'auto' ? (system === 'dark' ? 'dark' : 'light') : mode;
  const theme = useMemo(() => elementsTheme(shown), [shown]);
  // What is outside of the application: the ground behind it, the ring round what has the focus.
  useEffect(() => {
    document.documentElement.dataset['theme'] = shown;
  }, [shown]);
  return (
    <SafeAreaProvider>
      <QueryClientProvider client={client}>
        <ThemeProvider theme={theme}>
          <StatusBar style="auto" />
          <AtTheDoor />
        </ThemeProvider>
      </QueryClientProvider>
    </SafeAreaProvider>
  );
}
