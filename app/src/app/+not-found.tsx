import { NotFound } from '../screens/frame/NotFound';

export default function Route() {
  return <NotFound back="/" title="All jobs" />;
}
