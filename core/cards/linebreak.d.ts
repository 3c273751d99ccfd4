/** The line breaking algorithm of the Unicode standard (UAX #14); the package ships no types. */
declare module 'linebreak' {
  export default class LineBreaker {
    constructor(text: string)
    /** The next place where a line may or must end, by its index in the text; null after the last. */
    nextBreak(): { position: number; required: boolean } | null
  }
}
