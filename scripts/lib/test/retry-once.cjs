if (process.env.IPSONOMO_RETRY === '1') jest.retryTimes(1);
