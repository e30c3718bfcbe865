/** With it where it was not, without it where it was. */
export const toggled = (all: readonly string[], one: string): readonly string[] =>
  all.includes(one) ? all.filter((other) => other !== one) : [...all, one];
