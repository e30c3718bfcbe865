/** Migrations live in the bundle, so an installed server needs no files beside it. */
export interface Migration {
  readonly name: string;
  readonly up: string;
  readonly down: string;
}
