// Pictures, alone on their lines and among words.
#import "parts.typ": here-is-top

#let hotspot-frame(frame) = {
  if frame.line == "none" { return (:) }
  let paint = (paint: rgb(frame.colour), thickness: frame.thickness * 0.75pt)
  if frame.line == "dashed" { paint.insert("dash", "dashed") }
  (stroke: if frame.line == "underlined" { (bottom: paint) } else { paint })
}

// A picture at a size, with its areas that are links laid over it.
#let set-picture(item, width, height) = {
  let shown = if item.decorative { pdf.artifact(image(item.file, width: width)) } else { image(item.file, width: width, alt: item.alt) }
  if item.hotspots.len() == 0 { return shown }
  block(width: width, height: height, breakable: false, {
    shown
    for spot in item.hotspots {
      let area = link(spot.url, box(width: spot.width * width, height: spot.height * height, ..hotspot-frame(spot.frame)))
      place(top + left, dx: spot.x * width, dy: spot.y * height, area)
    }
  })
}

// At a width, or at less where it would be higher than a page.
#let set-sized(item, natural, width, page-height) = {
  let height = natural.height * (width / natural.width)
  let most = page-height * 0.9
  let (width, height) = if height > most { (width * (most / height), most) } else { (width, height) }
  box(width: width, height: height, {
    for name in item.places { place(top + left, here-is-top(name)) }
    set-picture(item, width, height)
  })
}

// As it is, a picture has 96 pixels to the inch, as in all other formats.
#let of-pixel = 72 / 96

// One that is alone on its line is as it is, up to the width of the line, unless the author gave it a width. In a
// box, since the typesetter loses links inside a paragraph's bare blocks; a link of its own lies within that, on the
// picture alone.
#let set-alone(item, url, page-height) = box(width: 100%, context layout(available => {
  let natural = measure(image(item.file))
  let width = if item.percent == none { calc.min(natural.width * of-pixel, available.width) } else { available.width * item.percent / 100 }
  let shown = set-sized(item, natural, width, page-height)
  if url == none { shown } else { link(url, shown) }
}))

// Among words it is as wide as the author gave it, of the text, or as it is. In a line of a cell, where nothing tells how
// much room there is, it is as high as the line.
#let set-in-line(item, text-width, page-height, letter) = context {
  let natural = measure(image(item.file))
  let width = if item.percent != none { text-width * item.percent / 100 }
    else if item.room == none { natural.width * (1.2em.to-absolute() / natural.height) }
    else { calc.min(natural.width * of-pixel, item.room * letter) }
  set-sized(item, natural, width, page-height)
}
