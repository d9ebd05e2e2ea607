// Sets a book from JSON. The author's text is data here and is never parsed as markup.
#import "formula.typ": set-formula
#import "parts.typ": here-is, in-contents, in-parts, in-short-runs, ink, is-struck, labelled, outside-contents, rule, set-cell, set-off, task-sign
#import "pictures.typ": set-alone, set-in-line
#let book = json("book.json")
#let blue = rgb("#1d4f8f")

#let text-width = (book.layout.width - book.layout.inner - book.layout.outer) * 1mm
#let text-height = (book.layout.height - book.layout.top - book.layout.bottom) * 1mm

#set document(title: book.name, author: book.writer, date: none)
#set text(
  font: book.fonts.text,
  size: book.layout.fontSize * 1pt,
  fill: ink,
  lang: book.lang,
  region: book.region,
  dir: if book.direction == "rtl" { rtl } else { ltr },
  hyphenate: book.layout.hyphenate,
)
#set page(
  width: book.layout.width * 1mm,
  height: book.layout.height * 1mm,
  binding: if book.direction == "rtl" { right } else { left },
  margin: (
    inside: book.layout.inner * 1mm,
    outside: book.layout.outer * 1mm,
    top: book.layout.top * 1mm,
    bottom: book.layout.bottom * 1mm,
  ),
)
#set par(justify: true, leading: 0.68em, spacing: 0.95em)
#set table(stroke: rule, inset: 5pt)
#set footnote.entry(separator: line(length: 25%, stroke: rule))
#set raw(theme: none)
#set list(indent: 0.4em)
#set enum(indent: 0.4em)
// Signs of code stay apart, where the face would draw two of them as one.
#let in-code = (font: book.fonts.code, size: 8.6pt, hyphenate: false, features: (calt: 0))
#show raw: set text(..in-code)
#show heading: set text(font: book.fonts.headings, hyphenate: false)
#show heading: set par(justify: false)
#show heading: set block(above: 1.5em, below: 0.8em)
#let opens-part = state("opens-part", false)
#show heading.where(level: 1): it => {
  pagebreak(weak: true)
  context if opens-part.get() {
    v(45mm)
    align(center, text(size: 1.8em, it))
  } else {
    v(10mm)
    text(size: 1.4em, it)
    v(4mm)
  }
}
#show outline.entry: set text(hyphenate: false)
// An entry of the contents is a link itself; links in a heading's words would be links inside it.
#show outline.entry: it => {
  show link: inner => if type(inner.dest) == str { inner.body } else { inner }
  // The signs of direction that the typesetter puts around words and number make some readers drop letters beside them.
  show regex("[\u{202a}-\u{202e}\u{2060}]"): none
  // All numbers have one width, so that how long the contents are does not hang on them: where it did, long contents moved
  // the pages that they tell of, again and again. A number is joined to what fills its line.
  show regex("^\u{2060}\d+$"): number => box(width: 2.2em, align(end, number))
  // One that could be broken leaves a link of no height at the foot of a page.
  block(breakable: false, it)
}

// Words, or runs of them each of which has fonts for its script.
#let spell(words, by: text, usual: auto) = {
  let usual = if usual == auto { by } else { usual }
  if type(words) == str { return usual(words) }
  for run in words {
    if run.fonts == none { usual(run.letters) } else {
      let families = book.fonts.scripts.at(run.fonts)
      show raw: set text(font: families)
      text(font: families, by(run.letters))
    }
  }
}

// `lined` in a link that is underlined: what is struck through or underlined cannot be so once more in a tagged PDF.
#let set-text(run, parted, lined) = {
  let marks = run.at("marks", default: ())
  let by = if "code" in marks { raw } else { text }
  let body = spell(run.words, by: by, usual: if parted and marks.len() == 0 { in-short-runs } else { by })
  for mark in marks {
    if mark == "emphasis" { body = emph(body) }
    if mark == "strong" { body = strong(body) }
    // Letters made for it are missing in many fonts for some words of a book: all are raised in one way.
    if mark == "raised" { body = super(typographic: false, body) }
    if mark == "lowered" { body = sub(typographic: false, body) }
    if mark == "struck" { body = strike(body) }
    if mark == "underlined" and not lined and "struck" not in marks { body = underline(body) }
    if mark == "small-capitals" { body = smallcaps(body) }
  }
  if "whole" in run { body = text(hyphenate: false, body) }
  if "parted" in run { body = text(hyphenate: true, body) }
  if "language" in run { body = text(lang: run.language.lang, region: run.language.region, body) }
  body
}

// The number of the page on which a place falls.
#let page-of(place) = context {
  let at = label(book.held.at(place, default: place))
  if query(at).len() > 0 { numbering("1", ..counter(page).at(at)) }
  else { book.alone.pages.at(place, default: "?") }
}

#let look-of(given) = if type(given) == str { book.looks.at(given) } else { given }

// What is struck through tells more than the line below a link does.
#let is-lined(given, content) = given != "text" and look-of(given).underline != "none" and not is-struck(content)

// A link in the look that the author gave it or its kind.
#let set-look(given, body, lined: true) = {
  if given == "text" { return body }
  let look = look-of(given)
  let paint = rgb(look.colour)
  let inked = if look.bold { text(fill: paint, weight: "bold", body) } else { text(fill: paint, body) }
  if look.underline == "none" or not lined { return inked }
  underline(offset: 2pt, stroke: (paint: paint, thickness: 0.5pt, dash: look.underline), inked)
}

// A note's words, with the ways back to the text at their end. `opens` makes its first paragraph: at the foot of a
// page it stands on the line of its number.
#let set-note(note, opens, set-inlines, set-blocks) = {
  let back = for way in note.returns { h(0.4em); link(way.url, spell(way.words)) }
  let first = note.content.at(0)
  let rest = note.content.slice(1)
  if first.kind != "paragraph" {
    opens(here-is(note.label))
    set-blocks(note.content)
    par(back)
  } else if rest.len() == 0 {
    opens({ here-is(note.label); set-inlines(first.content, set-blocks); back })
  } else {
    opens({ here-is(note.label); set-inlines(first.content, set-blocks) })
    set-blocks(rest)
    par(back)
  }
}

// `parted` for long text from left to right, in which no link is and nothing that is drawn along its words.
#let set-inlines(items, set-blocks, parted: false, lined: false) = for item in items {
  if item.kind == "text" { set-text(item, parted, lined) }
  else if item.kind == "break" { linebreak() }
  else if item.kind == "formula" {
    let body = set-formula(item.math)
    if item.display { linebreak(); math.equation(alt: item.alt, math.display(body)); linebreak() }
    else { math.equation(alt: item.alt, body) }
  }
  else if item.kind == "task" { task-sign(item); h(0.4em) }
  else if item.kind == "anchor" { here-is(item.label) }
  // Nothing, at which a line may end.
  else if item.kind == "may-break" { box(width: 0pt) }
  else if item.kind == "link" and item.content.len() == 1 and item.content.at(0).kind == "picture" and item.content.at(0).alone {
    set-alone(item.content.at(0), item.url, text-height)
  }
  else if item.kind == "link" {
    let lined = is-lined(item.look, item.content)
    set-look(item.look, lined: lined, link(item.url, set-inlines(item.content, set-blocks, lined: lined)))
  }
  else if item.kind == "page" { page-of(item.place) }
  else if item.kind == "raised-link" { super(link(item.url, spell(item.words))) }
  else if item.kind == "text-link" { link(item.url, spell(item.words)) }
  else if item.kind == "address" {
    // For print: the address as words, in a note or by its number in the list at the end.
    let sign = "[" + str(item.number) + "]"
    if item.address == none { super(sign) } else { footnote(numbering: _ => sign, text(hyphenate: false, item.address.join(box(width: 0pt)))) }
  }
  else if item.kind == "note" {
    labelled(footnote(numbering: _ => item.number, set-note(item, it => it, set-inlines, set-blocks)), item.footnote)
  }
  else if item.kind == "note-again" { footnote(numbering: _ => item.number, label(item.footnote)) }
  else if item.kind == "picture" {
    outside-contents(if item.alone { set-alone(item, none, text-height) } else {
      set-in-line(item, text-width, text-height, book.layout.fontSize * 1pt)
    })
  }
}

// Notes that stand at the end of a chapter or of the book.
#let set-notes(notes, set-blocks, ruled: true) = block(above: if ruled { 1.6em } else { 0.8em }, {
  if ruled { line(length: 25%, stroke: rule) }
  set text(size: 9pt)
  for note in notes {
    grid(
      columns: (2em, 1fr),
      note.number,
      set-note(note, par, set-inlines, set-blocks),
    )
  }
})

#let set-caption(caption, set-blocks) = {
  set text(size: 9.2pt)
  set par(justify: false)
  if caption.lead != none { strong(spell(caption.lead)); h(0.5em) }
  set-inlines(caption.content, set-blocks)
}

#let set-blocks(blocks, inside: true) = for block-data in blocks {
  let kind = block-data.kind
  // Set before the paragraph: within one, each piece would get signs of direction.
  set text(dir: if block-data.at("direction", default: book.direction) == "rtl" { rtl } else { ltr })
  if kind == "paragraph" {
    let keep = block-data.at("keep", default: none)
    set text(costs: (widow: 0%, orphan: 0%)) if keep != none
    // Nothing but the page itself can be broken.
    if keep == "next-page" and not inside { colbreak(weak: true) }
    let aligned = block-data.at("align", default: none)
    let content = block-data.content
    if content.len() == 1 and content.at(0).kind == "formula" and content.at(0).display {
      math.equation(block: true, alt: content.at(0).alt, set-formula(content.at(0).math))
    } else if aligned == none {
      let parted = block-data.at("direction", default: book.direction) != "rtl"
      par(set-inlines(content, set-blocks, parted: parted))
    } else {
      set par(justify: false)
      align(if aligned == "center" { center } else { end }, par(set-inlines(content, set-blocks)))
    }
  }
  else if kind == "heading" {
    let words = block-data.content.map(item => {
      let piece = set-inlines((item,), set-blocks)
      if item.kind in ("note", "note-again") { outside-contents(piece) } else { piece }
    }).join()
    let numbered = if block-data.number == none { words } else { block-data.number + " " + h(0.35em) + words }
    if block-data.part { opens-part.update(true) }
    labelled(heading(level: block-data.level, numbered), block-data.label)
    if block-data.part { opens-part.update(false) }
  }
  else if kind == "quote" { set-off(block-data.look, book.direction, set-blocks(block-data.content)) }
  else if kind == "listing" {
    block(
      width: 100%,
      inset: (x: 6pt, y: 5pt),
      stroke: (left: 1.5pt + rgb("#c9c3b4")),
      {
        set par(justify: false)
        set text(..in-code)
        // A paragraph to screen readers too: loose words may be read behind a link that stands after them.
        par(set-inlines(block-data.content, set-blocks))
      },
    )
  }
  else if kind == "bullets" {
    for (i, part) in in-parts(block-data.items, inside).enumerate() {
      if i > 0 { colbreak(weak: true) }
      let marker = if block-data.at("marked", default: false) { (marker: none, body-indent: 0pt) } else { (:) }
      if part.len() > 0 { list(..marker, ..part.map(item => set-blocks(item))) }
    }
  }
  else if kind == "numbers" {
    let start = block-data.start
    for (i, part) in in-parts(block-data.items, inside).enumerate() {
      if i > 0 { colbreak(weak: true) }
      if part.len() > 0 { enum(start: start, ..part.map(item => set-blocks(item))) }
      start += part.len()
    }
  }
  else if kind == "definitions" {
    terms(separator: linebreak(), ..block-data.entries.map(entry => terms.item(
      set-inlines(entry.term, set-blocks),
      set-blocks(entry.meaning),
    )))
  }
  else if kind == "credit" { par(text(size: 8.2pt, set-inlines(block-data.content, set-blocks))) }
  else if kind == "page-break" { if not inside { pagebreak(weak: true) } }
  else if kind == "table" {
    let rows = block-data.rows.map(row => row.map(cell => set-cell(cell, set-blocks))).flatten()
    let head = block-data.head.map(row => row.map(cell => set-cell(cell, set-blocks))).flatten()
    if head.len() > 0 { table(columns: block-data.columns, table.header(repeat: block-data.repeats, ..head), ..rows) }
    else { table(columns: block-data.columns, ..rows) }
  }
  else if kind == "caption" { par(set-caption(block-data, set-blocks)) }
  else if kind == "captioned" {
    let parts = (set-blocks(block-data.body), par(set-caption(block-data.caption, set-blocks)))
    if block-data.first { parts = parts.rev() }
    // A caption stays with what it is about, also where a table breaks over pages.
    block(sticky: true, below: 0.5em, parts.at(0))
    parts.at(1)
  }
  else if kind == "signposts" {
    block(above: 1.2em, below: 1.2em, {
      set par(justify: false, spacing: 0.62em)
      par({
        here-is(block-data.label)
        strong(spell(block-data.heading))
      })
      for entry in block-data.entries {
        block(breakable: false, par(hanging-indent: 1.2em * entry.depth + 1em, {
          h(1.2em * entry.depth)
          link(entry.url, {
            spell(entry.words)
            box(width: 1fr, inset: (x: 0.5em), text(fill: rgb("#8a857a"), repeat(gap: 0.35em, justify: false)[.]))
            page-of(entry.page)
          })
        }))
      }
    })
  }
  else if kind == "return" { par(text(size: 9.2pt, set-look("place", link(block-data.url, spell(block-data.words))))) }
  else if kind == "notes" { set-notes(block-data.notes, set-blocks) }
  else if kind == "deep" {
    let body = set-blocks(block-data.content)
    block(inset: (left: block-data.step * 1em), if block-data.marker == none { body } else {
      grid(columns: (1.6em, 1fr), block-data.marker, body)
    })
  }
  else if kind == "section-break" { align(center, line(length: 30%, stroke: rule)) }
}

#if book.alone == none { page(numbering: none)[
  #v(50mm)
  #align(center)[
    #par(justify: false, text(font: book.fonts.headings, size: 24pt, weight: "bold", hyphenate: false, here-is(book.top) + set-inlines(book.onTitlePage, none)))
    #v(8mm)
    #text(size: 12pt, spell(book.author))
  ]
] }

// The chapter that goes on at the top of a page.
#let running = state("running", none)
#let is-odd = () => calc.odd(here().page())
// The outer edge of a page: odd ones lie on the right in a book that is read from left to right.
#let outer = () => if is-odd() == (book.direction == "ltr") { right } else { left }
// Above even pages stands the book's title, above odd ones the chapter's; above a page that begins one, nothing.
#let running-head = context {
  let begins = query(heading.where(level: 1)).any(it => it.location().page() == here().page())
  if begins or running.get() == none { return }
  set text(size: 0.86em, style: "italic", hyphenate: false)
  align(outer(), if is-odd() { running.get() } else { spell(book.title) })
}
#let page-number = context {
  align(outer(), counter(page).display("1"))
}

#set page(
  // Pages are numbered for readers' programs and cross-references, whether the number is shown or not.
  numbering: "1",
  header: if book.layout.runningHeads { running-head } else { none },
  footer: if book.layout.pageNumbers == "outside" { page-number } else if book.layout.pageNumbers == "none" { none } else { auto },
)
#counter(page).update(1)
#if book.contents {
  in-contents.update(true)
  outline(title: spell(book.words.contents), depth: 3)
  in-contents.update(false)
}

#for path in book.chapters {
  let chapter = json(path)
  running.update(spell(chapter.title))
  set-blocks(chapter.blocks, inside: false)
}

#if book.notes.len() > 0 {
  heading(level: 1, spell(book.words.notes))
  for part in book.notes {
    par(strong(spell(part.chapter)))
    set-notes(part.notes, set-blocks, ruled: false)
  }
}

#if book.addresses.len() > 0 {
  heading(level: 1, spell(book.words.addresses))
  set par(justify: false)
  set text(size: 9pt, hyphenate: false)
  for (i, address) in book.addresses.enumerate() {
    grid(columns: (2.6em, 1fr), row-gutter: 0.6em, "[" + str(i + 1) + "]", address.join(box(width: 0pt)))
  }
}

// Where each landing place fell, for the names that the finished PDF gives them.
#context [#metadata(book.places.map(id => {
  let by = book.held.at(id, default: id)
  let element = query(label(by)).first()
  let place = element.location().position()
  // A heading is where its line begins, a picture where it does; all else stands on a line.
  let top = if element.func() == heading or element.at("value", default: none) == "top" { 2 } else { 10 }
  (id: id, by: by, page: place.page, x: place.x.pt(), y: place.y.pt() - top)
}))<places>]
