/** An answer that is a file: offered for keeping under its name, or shown where it has none. Long ones come in pieces. */
export class FileAnswer {
  constructor(
    readonly name: string | null,
    readonly mediaType: string,
    readonly content: Buffer | string | AsyncIterable<string>,
    /** Named after its content, so that whoever has it never asks again. */
    readonly lasting = false,
  ) {}
}
