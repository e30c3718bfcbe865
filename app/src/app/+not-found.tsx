import { NotFound } from '../features/frame/NotFound';

export default function Route() {
  return <NotFound back="/" title="All jobs" />;
}
