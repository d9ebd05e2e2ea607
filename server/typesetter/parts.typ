// What the template is made of that needs nothing of the book.
#let ink = rgb("#1c1a17")
#let rule = 0.5pt + rgb("#8a857a")

#let hotspot-frame(frame) = {
  if frame.line == "none" { return (:) }
  let paint = (paint: rgb(frame.colour), thickness: frame.thickness * 0.75pt)
  if frame.line == "dashed" { paint.insert("dash", "dashed") }
  (stroke: if frame.line == "underlined" { (bottom: paint) } else { paint })
}

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
