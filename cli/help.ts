/** What --help prints: every verb with its options and an example. */
export const HELP = `dripline VERB FILE [FILE ...] [options]

JSON on standard output. Errors are one JSON object {code, message, where} on standard error,
exit status 2. Several files print one line each, {file, result} or {file, error}; a bad file
does not stop the rest.

read FILE [--url URL] [--as feed|article|transcript|writing]
    A feed with its items, or a piece with its text, blocks, sentences and images.
    The kind is recognised when not given; --url resolves relative addresses.
      dripline read journal.xml --url https://example.org/feed

passages FILE [--count N] [--as KIND] [--item N]
    The passages worth quoting, best first: text, kind, score, reasons, start, end.
      dripline passages article.html --count 5

captions FILE [--networks a,b,…] [--rhythm NAME] [--seed N] [--house FILE] [--item N]
    A caption for every beat and network. Rhythms: Trickle, Tide, Swell, Shower, Echo.
    --house is a JSON file: {"hashtags": [], "neverSay": [], "closingLines": [], "brand": ""}.
    A feed needs --item N, the first is 1.
      dripline captions chapter.md --networks murmur,guildhall --rhythm Swell

plan FILE
    From {now, accounts, posts} to {posts: [{id, at, reasons}]}; at is null where a post
    cannot be placed, with the rule that stands in its way.
      dripline plan week.json

--help
    This text.`
