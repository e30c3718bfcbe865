export const CORE_DOORS: Readonly<Record<string, string>>;
