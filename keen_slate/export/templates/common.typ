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

// The class's own spacing, wider for those who read more easily so.
#let leading = if look.wide { 1em } else { 0.55em }
#let spaced(body) = {
  set text(tracking: if look.wide { 0.06em } else { 0pt }, spacing: if look.wide { 160% } else { 100% })
  set par(leading: leading, spacing: if look.wide { 1.2em } else { 0.7em })
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

// How much lower than it is a line counts what stands in it: else lines would stand into each other.
#let slack = 0.7 * leading + 0.6pt

// Andika's digits are 0.586 em wide, all of them: measuring each fraction would take as long as all the rest.
#let width-of(chars) = (chars.clusters().len() + 0.8 * chars.matches("▢").len()) * 0.586em

// A fraction whose digits are *scale* times as high as those beside it.
#let fraction(piece, scale) = box(inset: (x: 0.1em, y: slack), baseline: 50% - 0.36em, {
  set text(size: scale * 1em)
  let wide = calc.max(width-of(piece.top), width-of(piece.bottom)) + 0.24em
  stack(
    dir: ttb, spacing: 0.14em + 0.6pt,
    box(width: wide, align(center, characters(piece.top))),
    line(length: wide, stroke: (thickness: 0.4pt + 0.05em, paint: ink(piece.role))),
    box(width: wide, align(center, characters(piece.bottom))),
  )
})

#let piece-of(piece, scale) = {
  set text(fill: ink(piece.role))
  if piece.drawing != "" {
    box(baseline: 30%, image(bytes(piece.drawing), format: "svg", alt: piece.text))
  } else if piece.kind == "fraction" {
    fraction(piece, scale)
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

#let run-of(run, scale) = {
  let set-out = run.pieces.map(one => piece-of(one, scale)).join()
  if run.said == "" or run.pieces.first().drawing != "" { set-out } else {
    math.equation(block: false, alt: run.said, box(set-out))
  }
}

// How each kind of line stands on paper, and in what size.
#let looks = (
  line: (15, body => block(spacing: 0.7em, body)),
  jotting: (12, body => block(spacing: 0.5em, inset: (left: 6mm), text(fill: quiet, body))),
  story: (13, body => block(spacing: 0.8em, { set par(leading: 0.8em); body })),
  sentence: (13, body => block(spacing: 0.8em, body)),
  answer: (13, body => block(spacing: 0.8em, body)),
  said: (12, body => block(spacing: 0.6em, body)),
)
// No digit of a pupil's fraction is under 11 pt, in large print under 18 pt: next to small letters it is nearly as high as they are.
#let scale-beside(points) = calc.max(0.8, (if look.large { 18pt } else { 11pt }) / size(points))
#let inline(one, scale: 0.8) = one.runs.map(run => run-of(run, scale)).join()
#let written(one) = {
  let (points, look-of) = looks.at(one.style)
  text(size: size(points), look-of(inline(one, scale: scale-beside(points))))
}

// Pictures -------------------------------------------------------------------------------------------------------

// Labels are 20 units high in a picture: this makes them 9.6 pt on paper, and 18 pt in large print.
#let unit = if look.large { 0.9pt } else { 0.48pt }

#let arrow(down) = pdf.artifact(box(inset: 2mm, text(size: 15pt, if down [↓] else { rotate(-90deg, reflow: true)[↓] })))

#let drawn(svg, alt, width) = image(bytes(svg), format: "svg", width: width, alt: alt)

// A picture in so much *room*, both states beside each other where they fit, else under each other. What is seen in both is said once.
#let picture(one, room) = {
  let wanted = if one.width > 0 { one.width * 1mm } else { one.units * if one.style == "shade" { 0.85pt } else { unit } }
  let shape = one.units / one.high
  let one-high = region.height * if one.states.len() == 1 { 0.9 } else { 0.43 }
  let width = calc.min(wanted, room, one-high * shape)
  let first = drawn(one.states.first(), one.alt, width)
  if one.states.len() == 1 { return block(spacing: 2mm, first) }
  let second = pdf.artifact(drawn(one.states.last(), one.alt, width))
  let beside = 2 * width + 11mm <= room
  block(spacing: 2mm, breakable: false, stack(dir: if beside { ltr } else { ttb }, first, arrow(not beside), second))
}

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

#let place-blocks(blocks, room) = blocks.map(one => {
  if one.block == "written" { written(one) }
  else if one.block == "picture" { picture(one, room) }
  else if one.block == "room" { (rooms.at(one.style))(one.said) }
  else if one.block == "pause" {
    block(width: 100%, spacing: 2mm, inset: (top: 1.5mm), stroke: (top: (thickness: 1pt, dash: "dashed")), strong[Try it yourself first.])
  }
  else if one.block == "table" {
    block(spacing: 2mm, table(
      columns: 2, stroke: 0.6pt, inset: (x: 3mm, y: 1.2mm),
      ..one.rows.map(((name, cell)) => (table.cell[#name], table.cell(inline(cell, scale: scale-beside(11.5))))).flatten(),
    ))
  }
  else if one.block == "ticks" {
    block(spacing: 2mm, one.options.map(((label, said)) => box(inset: (right: 8mm), {
      tick
      h(1.5mm)
      if label != "" { strong(label) + h(1.5mm) }
      text(size: size(13), inline(said, scale: scale-beside(13)))
    })).join())
  }
  else if one.block == "boxes" { context {
    // Two beside each other where the longest of the usual words has room in each.
    let single = one.questions or measure(text(size: size(13), "denominators.")).width + 5mm > room / 2
    let cell(box) = grid.cell(breakable: false, {
      text(size: size(11), {
        strong(if box.number > 0 { str(box.number) + ". " + box.title } else { box.title })
        if box.answer != "" { [ ] + box.answer }
      })
      place-blocks(box.blocks, if single { room - 4mm } else { room / 2 - 4mm })
    })
    block(spacing: 2mm, grid(
      columns: if single { (1fr,) } else { (1fr, 1fr) }, stroke: 0.8pt, inset: 2mm, ..one.cells.map(cell),
    ))
  } }
}).join()
