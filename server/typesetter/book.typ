// Sets a book from JSON. The author's text is data here and is never parsed as markup.
#let book = json("book.json")
#let ink = rgb("#1c1a17")
#let blue = rgb("#1d4f8f")
#let rule = 0.5pt + rgb("#8a857a")

#set document(title: book.title, author: book.author, date: none)
#set text(
  font: ("Literata", "Noto Sans Symbols 2", "Noto Sans Math", "Noto Emoji"),
  size: 10.5pt,
  fill: ink,
  lang: book.lang,
  hyphenate: true,
)
#set page(width: 148mm, height: 210mm, margin: (x: 19mm, top: 20mm, bottom: 22mm))
#set par(justify: true, leading: 0.68em, spacing: 0.95em)
#set table(stroke: rule, inset: 5pt)
#set footnote.entry(separator: line(length: 25%, stroke: rule))
#set raw(theme: none)
#set list(indent: 0.4em)
#set enum(indent: 0.4em)
#show raw: set text(
  font: ("JetBrains Mono", "Noto Sans Symbols 2", "Noto Sans Math", "Noto Emoji"),
  size: 8.6pt,
  hyphenate: false,
)
#show link: it => if type(it.dest) == location { it } else { underline(offset: 2pt, stroke: 0.5pt + blue, text(fill: blue, it)) }
#show heading: set text(hyphenate: false)
#show heading: set par(justify: false)
#show heading: set block(above: 1.5em, below: 0.8em)
#show heading.where(level: 1): it => {
  pagebreak(weak: true)
  v(10mm)
  text(size: 1.4em, it)
  v(4mm)
}
#show outline.entry: set text(hyphenate: false)
// An entry of the contents is a link itself; links in a heading's words would be links inside it.
#show outline.entry: it => {
  show link: inner => if type(inner.dest) == str { inner.body } else { inner }
  it
}

#let set-text(run) = {
  let body = if "code" in run { raw(run.v) } else { text(run.v) }
  if "em" in run { body = emph(body) }
  if "strong" in run { body = strong(body) }
  body
}

#let labelled(element, name) = if name == none { element } else [#element#label(name)]

#let set-inlines(items, set-blocks) = for item in items {
  if item.t == "text" { set-text(item) }
  else if item.t == "break" { linebreak() }
  else if item.t == "anchor" { labelled(metadata(none), item.label) }
  else if item.t == "link" {
    let target = if "url" in item { item.url } else { label(item.place) }
    link(target, set-inlines(item.c, set-blocks))
  }
  else if item.t == "note" {
    // A note's first paragraph stands on the line of its number.
    let first = item.c.at(0)
    let body = if first.t == "paragraph" {
      set-inlines(first.c, set-blocks)
      set-blocks(item.c.slice(1))
    } else { set-blocks(item.c) }
    labelled(footnote(body), item.label)
  }
  else if item.t == "note-again" { footnote(label(item.label)) }
  else if item.t == "picture" {
    // A picture keeps its own size up to the width of the text.
    let shown = context layout(available => {
      let natural = measure(image(item.file))
      let width = calc.min(natural.width, available.width)
      if item.decorative { pdf.artifact(image(item.file, width: width)) }
      else { image(item.file, width: width, alt: item.alt) }
    })
    if item.alone { shown } else { box(height: 1.2em, image(item.file, height: 1.2em, alt: item.alt)) }
  }
}

#let set-cell(cell, set-blocks) = table.cell(
  colspan: cell.colspan,
  rowspan: cell.rowspan,
  align: if cell.align == none { auto } else if cell.align == "center" { center } else if cell.align == "right" { right } else { left },
  {
    set par(justify: false)
    if cell.head { strong(set-blocks(cell.c)) } else { set-blocks(cell.c) }
  },
)

#let set-blocks(blocks) = for block-data in blocks {
  let kind = block-data.t
  if kind == "paragraph" { par(set-inlines(block-data.c, set-blocks)) }
  else if kind == "heading" {
    labelled(heading(level: block-data.level, set-inlines(block-data.c, set-blocks)), block-data.label)
    set-inlines(block-data.anchors, set-blocks)
  }
  else if kind == "quote" { quote(block: true, set-blocks(block-data.c)) }
  else if kind == "listing" {
    block(
      width: 100%,
      inset: (x: 6pt, y: 5pt),
      stroke: (left: 1.5pt + rgb("#c9c3b4")),
      {
        set par(justify: false)
        set-inlines(block-data.c, set-blocks)
      },
    )
  }
  else if kind == "bullets" { list(..block-data.items.map(item => set-blocks(item))) }
  else if kind == "numbers" { enum(start: block-data.start, ..block-data.items.map(item => set-blocks(item))) }
  else if kind == "table" {
    let rows = block-data.rows.map(row => row.map(cell => set-cell(cell, set-blocks))).flatten()
    let head = block-data.head.map(row => row.map(cell => set-cell(cell, set-blocks))).flatten()
    if head.len() > 0 { table(columns: block-data.columns, table.header(..head), ..rows) }
    else { table(columns: block-data.columns, ..rows) }
  }
  else if kind == "section-break" { align(center, line(length: 30%, stroke: rule)) }
}

#page(numbering: none)[
  #v(50mm)
  #align(center)[
    #par(justify: false, text(size: 24pt, weight: "bold", hyphenate: false, book.title))
    #v(8mm)
    #text(size: 12pt, book.author)
  ]
]

#set page(numbering: "1")
#counter(page).update(1)
#outline(depth: 3)

#for path in book.chapters { set-blocks(json(path).blocks) }
