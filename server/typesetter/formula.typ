// Sets a formula from its tree of MathML. What is text in it is text here, too, and is never parsed as markup.

#let accents = ("^", "ˆ", "~", "˜", "→", "⃗", "˙", "¨", "´", "`", "ˇ", "˘")
#let lines = ("¯", "‾", "_", "̅")
#let large = "∑∏∐⋃⋂⨁⨂⋁⋀∫∬∭∮"
#let fences = "()[]{}⟨⟩⌈⌉⌊⌋|‖"

#let letters-of(node) = if type(node) == str { node } else { node.children.map(letters-of).join("") }
#let is-sign(node, among) = {
  node.name == "mo" and {
    let said = letters-of(node)
    said != none and said.clusters().len() == 1 and said in among
  }
}

// One letter is italic and a sign has its blanks as the typesetter knows them.
#let letter(said) = [#symbol(if said == "*" { "∗" } else { said })]
#let upright(said) = math.upright(said)

#let set-token(node) = {
  let said = node.children.join("")
  if said == none or said == "" { return [] }
  let alone = said.clusters().len() == 1 and said.codepoints().len() == 1
  // In a box, since a formula would look for the letters in its own font first; blanks at its ends would go.
  if "fonts" in node {
    let style = if node.name == "mi" and alone { "italic" } else { "normal" }
    return box(text(font: node.fonts, style: style, said.replace(regex("^\\s+|\\s+$"), "\u{a0}")))
  }
  if node.name == "mtext" or node.name == "ms" { return text(said) }
  if node.name == "mn" { return upright(said) }
  if node.name == "mo" { return if alone { letter(said) } else { math.op(said) } }
  let variant = node.at("attributes", default: (:)).at("mathvariant", default: none)
  if not alone { return if variant == none or variant == "normal" { math.op(said) } else { math.italic(said) } }
  if variant == "normal" { upright(said) }
  else if variant == "bold" { math.bold(upright(said)) }
  else if variant == "double-struck" { math.bb(said) }
  else if variant == "script" { math.cal(said) }
  else if variant == "fraktur" { math.frak(said) }
  else { letter(said) }
}

#let set-formula(node) = {
  if node.name in ("mi", "mn", "mo", "mtext", "ms") { return set-token(node) }
  let parts = node.children.map(set-formula)
  let row = if parts.len() == 0 { [] } else { parts.join() }
  let first = node.children.at(0, default: none)
  if node.name == "mfrac" {
    let bar = node.at("attributes", default: (:)).at("linethickness", default: "1")
    if bar.starts-with("0") { math.mat(delim: none, (parts.at(0),), (parts.at(1),)) } else { math.frac(..parts) }
  }
  else if node.name == "msqrt" { math.sqrt(row) }
  else if node.name == "mroot" { math.root(parts.at(1), parts.at(0)) }
  else if node.name == "msub" { math.attach(parts.at(0), b: parts.at(1)) }
  else if node.name == "msup" { math.attach(parts.at(0), t: parts.at(1)) }
  else if node.name == "msubsup" { math.attach(parts.at(0), b: parts.at(1), t: parts.at(2)) }
  else if node.name == "munder" {
    if is-sign(node.children.at(1), lines) { math.underline(parts.at(0)) } else { math.attach(math.limits(parts.at(0)), b: parts.at(1)) }
  }
  else if node.name == "mover" {
    let over = node.children.at(1)
    if is-sign(over, lines) { math.overline(parts.at(0)) }
    else if is-sign(over, accents) { math.accent(parts.at(0), letters-of(over)) }
    else { math.attach(math.limits(parts.at(0)), t: parts.at(1)) }
  }
  else if node.name == "munderover" { math.attach(math.limits(parts.at(0)), b: parts.at(1), t: parts.at(2)) }
  else if node.name == "mmultiscripts" {
    let before = node.children.position(child => child.name == "mprescripts")
    let after = parts.slice(1, if before == none { parts.len() } else { before })
    let pre = if before == none { () } else { parts.slice(before + 1) }
    math.attach(
      parts.at(0, default: []),
      b: after.at(0, default: none),
      t: after.at(1, default: none),
      bl: pre.at(0, default: none),
      tl: pre.at(1, default: none),
    )
  }
  else if node.name == "mtable" {
    let rows = node.children.map(line => if line.name == "mtr" { line.children.map(set-formula) } else { (set-formula(line),) })
    let columns = calc.max(1, ..rows.map(line => line.len()))
    math.mat(delim: none, ..rows.map(line => line + ([],) * (columns - line.len())))
  }
  else if node.name == "mspace" { h(0.25em) }
  else if node.name == "mphantom" { hide(row) }
  else if node.name == "mrow" and node.children.len() > 1 and is-sign(first, fences) and is-sign(node.children.last(), fences) { math.lr(row) }
  else { row }
}
