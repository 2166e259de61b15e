// What all papers share: the typeface, a line of mathematics, pictures, room to write.
// Everything that people wrote comes as data and is never read as mark-up.

#let data = json(bytes(sys.inputs.data))
#let look = data.look
#let inks = look.inks
#let typeface = ("Andika", "Andika Extended", "Andika Cyrillic", "Libertinus Serif")
#let paper = (a4: (width: 210mm, height: 297mm), letter: (width: 215.9mm, height: 279.4mm)).at(look.paper)
#let margin = (x: 14mm, top: 13mm, bottom: 15mm)
// What is left of a page for what stands on it.
#let region = (width: paper.width - 2 * margin.x, height: paper.height - margin.top - margin.bottom)
#let quiet = rgb("#3c4850")
#let rule = rgb("#55656f")

// Large print has no letter under 18 pt.
#let size(points) = if look.large { calc.max(18pt, points * 1.25pt) } else { points * 1pt }
#let smallest-fraction = size(11)

// The class's own spacing, wider for those who read more easily so.
#let spaced(body) = {
  set text(tracking: if look.wide { 0.06em } else { 0pt }, spacing: if look.wide { 160% } else { 100% })
  set par(leading: if look.wide { 1em } else { 0.55em }, spacing: if look.wide { 1.2em } else { 0.7em })
  body
}

#let document-of(title, body) = {
  set document(title: title)
  set page(
    width: paper.width, height: paper.height, margin: margin,
    footer: context align(right, text(size: 9pt)[#counter(page).display() of #counter(page).final().first()]),
  )
  set text(font: typeface, size: size(11.5), lang: "en", fill: rgb("#14191d"), hyphenate: false)
  show math.equation: set text(font: typeface)
  show heading: set text(weight: 700)
  show heading: set block(above: 0pt, below: 0pt)
  set image(fit: "contain")
  spaced(body)
}

// A line of mathematics ------------------------------------------------------------------------------------------

// A box that pupils write in, as high as a digit.
#let blank = box(width: 1.05em, height: 1.05em, baseline: 0.22em, stroke: (thickness: 0.8pt, paint: rule))
#let gap = box(width: 1.3em, height: 0.9em, baseline: 0.15em, stroke: (bottom: 0.9pt))

#let characters(chars) = if chars == "_" { gap } else {
  chars.split("▢").intersperse(blank).join()
}

#let ink(role) = if role == "" { rgb("#14191d") } else { rgb(inks.at(role)) }

#let fraction(piece) = context {
  let em = text.size.to-absolute()
  // Only a teacher's notes have smaller letters, and smaller fractions with them.
  let digits = if em < 11pt { 0.86 * em } else { calc.max(smallest-fraction, 0.8 * em) }
  let top = text(size: digits, characters(piece.top))
  let bottom = text(size: digits, characters(piece.bottom))
  let wide = calc.max(measure(top).width, measure(bottom).width) + 0.24 * digits
  // A line counts what stands in it as lower than it is, by so much: else lines would stand into each other.
  let slack = (0.7 * par.leading).to-absolute() + 0.6pt
  box(
    inset: (x: 0.1em, y: slack), baseline: 50% - 0.36em,
    stack(
      dir: ttb, spacing: 0.14 * digits + 0.6pt,
      box(width: wide, align(center, top)),
      line(length: wide, stroke: (thickness: calc.max(0.9pt, digits / 14), paint: ink(piece.role))),
      box(width: wide, align(center, bottom)),
    ),
  )
}

#let piece-of(piece) = {
  set text(fill: ink(piece.role))
  if piece.drawing != "" {
    box(baseline: 30%, image(bytes(piece.drawing), format: "svg", alt: piece.text))
  } else if piece.kind == "fraction" {
    fraction(piece)
  } else if piece.kind == "operator" {
    h(0.25em) + characters(piece.text) + h(0.25em)
  } else if piece.kind == "power" {
    super(typographic: false, size: 0.7em, characters(piece.text))
  } else if piece.kind == "recurring" {
    box(stroke: (top: 0.9pt + ink(piece.role)), outset: (top: 0.12em), characters(piece.text))
  } else {
    characters(piece.text)
  }
}

#let run-of(run) = {
  let set-out = run.pieces.map(piece-of).join()
  if run.said == "" or run.pieces.first().drawing != "" { set-out } else {
    math.equation(block: false, alt: run.said, box(set-out))
  }
}

#let looks = (
  line: body => block(spacing: 0.55em, text(size: size(15), body)),
  jotting: body => block(spacing: 0.4em, inset: (left: 6mm), text(size: size(12), fill: quiet, body)),
  story: body => block(spacing: 0.7em, text(size: size(13), { set par(leading: 0.8em); body })),
  sentence: body => block(spacing: 0.7em, text(size: size(13), body)),
  answer: body => block(spacing: 0.7em, text(size: size(13), body)),
  said: body => block(spacing: 0.6em, text(size: size(12), body)),
)
#let inline(one) = one.runs.map(run-of).join()
#let written(one) = (looks.at(one.style))(inline(one))

// Pictures -------------------------------------------------------------------------------------------------------

// Labels are 20 units high in a picture: this makes them 9.6 pt on paper, and 18 pt in large print.
#let unit = if look.large { 0.9pt } else { 0.48pt }

#let arrow(down) = pdf.artifact(box(inset: 2mm, text(size: 15pt, if down [↓] else { rotate(-90deg, reflow: true)[↓] })))

#let drawn(svg, alt, width) = image(bytes(svg), format: "svg", width: width, alt: alt)

// A picture with both states beside each other where they fit, else under each other. What is seen in both is said once.
#let picture(one) = layout(region => {
  let wanted = if one.width > 0 { one.width * 1mm } else { one.units * if one.style == "shade" { 0.85pt } else { unit } }
  let width = calc.min(wanted, region.width)
  let first = drawn(one.states.first(), one.alt, width)
  if one.states.len() == 1 { return block(spacing: 2mm, first) }
  let second = pdf.artifact(drawn(one.states.last(), one.alt, width))
  if 2 * width + 11mm <= region.width {
    block(spacing: 2mm, breakable: false, grid(columns: 3, align: horizon, first, arrow(false), second))
  } else {
    block(spacing: 2mm, breakable: false, stack(dir: ttb, first, align(center, arrow(true)), second))
  }
})

// Room to write --------------------------------------------------------------------------------------------------

#let squares(height) = block(
  width: 100%, height: height, above: 2mm, below: 2mm,
  fill: tiling(size: (5mm, 5mm), {
    place(line(length: 5mm, stroke: 0.4pt + rgb("#9fb3bd")))
    place(line(angle: 90deg, length: 5mm, stroke: 0.4pt + rgb("#9fb3bd")))
  }),
  stroke: (right: 0.4pt + rgb("#9fb3bd"), bottom: 0.4pt + rgb("#9fb3bd")),
)
#let dashed = (paint: rule, thickness: 0.9pt, dash: "dashed")
#let rooms = (
  fill: said => block(width: 100%, height: 11mm, spacing: 2.6mm, stroke: dashed),
  draw: said => block(width: 100%, height: 24mm, spacing: 2mm, inset: 2mm, stroke: dashed, text(size: size(9.5), fill: quiet, said)),
  sentence: said => block(spacing: 3mm, text(size: size(13))[#said #box(width: 1fr, height: 1.1em, stroke: (bottom: 0.8pt))]),
  reason: said => block(spacing: 3mm, text(size: size(12))[#said #box(width: 1fr, height: 1.3em, stroke: (bottom: 0.8pt))]),
  estimate: said => block(spacing: 2mm, text(size: size(13))[#said #box(width: 28mm, height: 9mm, baseline: 3mm, stroke: 0.9pt + rule)]),
)
#let tick = box(width: 4mm, height: 4mm, baseline: 0.6mm, stroke: 1pt)

// Blocks ---------------------------------------------------------------------------------------------------------

#let place-blocks(blocks) = blocks.map(one => {
  if one.block == "written" { written(one) }
  else if one.block == "picture" { picture(one) }
  else if one.block == "room" { (rooms.at(one.style))(one.said) }
  else if one.block == "pause" {
    block(width: 100%, spacing: 2mm, inset: (top: 1.5mm), stroke: (top: (thickness: 1pt, dash: "dashed")), strong[Try it yourself first.])
  }
  else if one.block == "table" {
    block(spacing: 2mm, table(
      columns: 2, stroke: 0.6pt, inset: (x: 3mm, y: 1.2mm),
      ..one.rows.map(((name, cell)) => (table.cell[#name], table.cell(inline(cell)))).flatten(),
    ))
  }
  else if one.block == "ticks" {
    block(spacing: 2mm, one.options.map(((label, said)) => box(inset: (right: 8mm), {
      tick
      h(1.5mm)
      if label != "" { strong(label) + h(1.5mm) }
      text(size: size(13), inline(said))
    })).join())
  }
  else if one.block == "boxes" {
    let cell(box) = {
      text(size: size(11), {
        strong(if box.number > 0 { str(box.number) + ". " + box.title } else { box.title })
        if box.answer != "" { [ ] + box.answer }
      })
      place-blocks(box.blocks)
    }
    block(spacing: 2mm, grid(
      columns: if one.questions { (1fr,) } else { (1fr, 1fr) }, stroke: 0.8pt, inset: 2mm, ..one.cells.map(cell),
    ))
  }
}).join()
