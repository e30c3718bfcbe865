import { COMMON_WORDS } from '@ipsonomo/language/screens/common';
import { NotFound } from '../features/frame/NotFound';

export default function Route() {
  return <NotFound back="/" title={COMMON_WORDS.allJobs} />;
}
