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

material FILE [--as KIND] [--item N]
    What the angles of captions are made of, in the order of the text: goals, instructions, steps,
    numbers, contrasts, beliefs, questions, definitions, quotations, anecdotes, lessons, warnings,
    costs, times, the claim and key phrases; each with kind, says, start, end, and under with what belongs to it.
      dripline material article.html

captions FILE [--networks a,b,…] [--rhythm NAME] [--seed N] [--house FILE] [--brief FILE]
         [--angle NAME] [--wordings N] [--item N]
    A caption for every beat and network, with title, summary, parts and tags where the network
    has them. Networks: murmur, guildhall, shutterleaf, hearthside, rackwell, loopyard, longwave,
    courier, broadside; all when not given. Rhythms: Trickle, Tide, Swell, Shower, Echo.
    text is null where no honest caption can be made, with the reason under checks; a caption
    that only lacks its picture or clip is given, with that check.
    --house is a JSON file: {"brand": "", "voice": {"formality": 0, "vividness": 0, "warmth": 0,
    "speaker": "nobody"}, "swaps": [{"from": "", "to": "", "network": null}], "neverSay": [],
    "hashtags": [], "closingLines": [{"text": "…", "where": ["word"]}], "credit": false, "spelling": "as written"}.
    --brief is a JSON file with a brief or a list of them: {"network": "murmur", "voice": {},
    "reader": "anyone", "length": {"least": 60, "most": 200}, "angles": [], "hashtags": 1,
    "emoji": "none", "link": "text", "closing": "none"}; every field but network may be left out.
    --angle writes in one angle: question, number, how-to, contrast, myth, story, checklist,
    lesson, quotation, definition. --wordings adds up to N other wordings to each row.
    A feed needs --item N, the first is 1.
      dripline captions chapter.md --networks murmur,guildhall --rhythm Swell --wordings 3

card FILE [--look FILE] [--shape W:H]
    A card drawn from {layout, head, text, items, speaker}: an SVG without text, with its width,
    height, and the letters that no typeface has. Layouts: words, quotation, number, contrast, list,
    steps, question, definition, title. --look is a JSON file with ground, ink and accent (#rrggbb),
    words and labels (typefaces), sign; --shape is width to height, 1:1 when not given.
      dripline card seam.json --shape 4:5

plan FILE
    From {now, accounts, posts} to {posts: [{id, at, reasons}]}; at is null where a post
    cannot be placed, with the rule that stands in its way.
      dripline plan week.json

--help
    This text.`
