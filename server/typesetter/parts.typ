// What the template is made of that needs nothing of the book.
#let ink = rgb("#1c1a17")
#let rule = 0.5pt + rgb("#8a857a")

// Words in runs of a few, parted at blanks. Of a run in kerned letters all that a line holds of it is shaped anew for each line
// that is tried, which was most of the work. Two runs side by side would be one if nothing were said of every other one: what
// is said is so anyway.
#let words-of-run = 6
#let in-short-runs(words) = {
  let parts = words.split(" ")
  if parts.len() <= 2 * words-of-run { return text(words) }
  for (i, part) in parts.chunks(words-of-run).enumerate() {
    let letters = part.join(" ") + if (i + 1) * words-of-run < parts.len() { " " }
    if calc.even(i) { text(letters) } else { text(overhang: true, letters) }
  }
}

#let labelled(element, name) = if name == none { element } else [#element#label(name)]
#let here-is(name) = labelled(metadata(none), name)
// Of what is not on a line, but begins here.
#let here-is-top(name) = labelled(metadata("top"), name)

// The contents repeat headings, whose notes and pictures are set where the heading is, and only there.
#let in-contents = state("in-contents", false)
#let outside-contents(body) = context if not in-contents.get() { body }

#let is-struck(content) = content.any(item => item.kind == "text" and "struck" in item.at("marks", default: ()))

// Drawn, since few fonts have it; its words are the sign itself.
#let task-sign(item) = {
  let tick = if item.done { "<path d='M2.4 5.2l2 2 3.4-4.4' fill='none' stroke='#1c1a17'/>" } else { "" }
  let drawn = "<svg xmlns='http://www.w3.org/2000/svg' viewBox='0 0 10 10'><rect x='.7' y='.7' width='8.6' height='8.6' fill='none' stroke='#1c1a17' stroke-width='.7'/>" + tick + "</svg>"
  box(baseline: 8%, image(bytes(drawn), format: "svg", height: 0.8em, alt: item.sign))
}

// What is set off from the text around it.
#let set-off(look, direction, body) = {
  if look == "verse" { block(inset: (left: 2em), { set par(justify: false); body }) }
  else if look == "epigraph" {
    let side = if direction == "rtl" { "right" } else { "left" }
    set text(style: "italic")
    set par(justify: false)
    pad(..((side): 35%), quote(block: true, body))
  }
  else if look == "notice" { block(width: 100%, stroke: rule, inset: (x: 10pt, y: 8pt), body) }
  else { quote(block: true, body) }
}

// The items of a list, parted before those that are to begin on the next page.
#let in-parts(items, inside) = {
  let parts = ((),)
  for item in items {
    let parts-here = not inside and item.any(part => part.at("keep", default: none) == "next-page")
    if parts-here { parts.push(()) }
    parts.last().push(item)
  }
  parts
}

#let set-cell(cell, set-blocks) = table.cell(
  colspan: cell.colspan,
  rowspan: cell.rowspan,
  breakable: cell.breaks,
  align: if cell.align == none { auto } else if cell.align == "center" { center } else if cell.align == "right" { right } else { left },
  {
    set par(justify: false)
    if cell.head { strong(set-blocks(cell.content)) } else { set-blocks(cell.content) }
  },
)
