/** A transaction that reads several things as they stood at one moment. */
export const AT_ONE_MOMENT = { isolationLevel: 'repeatable read', readOnly: true } as const;
