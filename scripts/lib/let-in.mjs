/** Who starts a server by hand sees a key, with which phones come in; whoever has none meets a door that is shut. */
export const letIn = () => ({ HOST: process.env.HOST ?? '0.0.0.0', IPSONOMO_TELL_KEY: '1' });
