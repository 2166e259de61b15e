// A handout. A part is a grid of examples, pairs, slips, cards, pieces to cut out, the key, or the teacher's copy.

#import "common.typ": *

#let mm-space = look.space * 1mm
#let between = 5mm

#let title-of(part, more) = heading(level: 1, text(size: size(15), {
  part.title
  if part.letter != "" {
    h(2.5mm)
    box(stroke: 1.2pt, radius: 2pt, outset: (y: 1.4mm), inset: (x: 1.6mm), text(size: size(12), part.letter))
  }
  more
}))

// The title, for whom and when, a line for the name; on the first page of a part.
#let header-of(part) = block(width: 100%, below: 5mm, {
  title-of(part, [])
  let facts = (look.class_name, look.date, if look.minutes > 0 { str(look.minutes) + " minutes" } else { "" }).filter(one => one != "")
  if facts.len() > 0 { block(above: 2.5mm, below: 0pt, text(size: size(11), facts.join(" · "))) }
  if look.name_line {
    let line(width) = box(width: width, height: 0.9em, stroke: (bottom: 0.8pt))
    block(above: 4.5mm, below: 0pt, text(size: size(11.5), [Name #line(62mm) #h(4mm) Date #line(32mm)]))
  }
})

#let head-of(head) = block(width: 100%, above: 0pt, below: 2.5mm, grid(
  columns: (auto, 1fr, auto), column-gutter: 2.5mm, align: (horizon, horizon + left, top + right),
  strong(text(size: size(12), str(head.number))),
  {
    set text(size: size(16))
    if head.problem != none { inline(head.problem, scale: scale-beside(16)) }
    if head.label != "" { text(size: size(11), [ ] + head.label) }
  },
  text(size: size(9.5), fill: quiet, head.marks),
))

// An example with so much room to work in.
#let example-of(example, room, width) = {
  head-of(example.head)
  place-blocks(example.blocks, width)
  if example.room and room > 0mm { squares(room) }
  place-blocks(example.after, width)
}
// The same where it is longer than a page: no line is left alone on the next.
#let long-example(example, room, width) = {
  // With fewer squares, and as wide as the page, it may fit on one.
  let bare = measure(block(width: width, example-of(example, 0mm, width))).height
  let left = region.height - bare - 30mm
  if left > 0mm {
    block(breakable: false, width: width, above: 0pt, below: 0pt, example-of(example, calc.min(left, room), width))
  } else {
    block(sticky: true, head-of(example.head))
    let all = example.blocks
    for (i, one) in all.enumerate() {
      block(breakable: one.block == "boxes", sticky: i == all.len() - 2 and one.block != "boxes", place-blocks((one,), width))
    }
    block(breakable: false, width: 100%, {
      if example.room and room > 0mm { squares(room) }
      place-blocks(example.after, width)
    })
  }
}


// Examples in which nothing is left to do, one under the other in their columns, as many as fit.
#let flow-part(part, width, header) = {
  header-of(part)
  columns(part.columns, gutter: 8mm, for (i, one) in part.examples.enumerate() {
    if i > 0 { v(between, weak: true) }
    if measure(block(width: width, example-of(one, 0mm, width))).height > region.height - header - 4mm {
      long-example(one, 0mm, width)
    } else {
      block(breakable: false, above: 0pt, below: 0pt, example-of(one, 0mm, width))
    }
  })
}

// Rows of examples, as many on a page as fit and are wanted; what is left of a page is shared out as squares.
#let grid-part(part) = context {
  let columns = part.columns
  // Where as many as fit are wanted, each has room for a few lines.
  let least = if look.fill { if part.per_page == 0 { 45mm } else { 20mm } } else { mm-space }
  let width = (region.width - (columns - 1) * 8mm) / columns
  let header = measure(block(width: region.width, header-of(part))).height + 5mm
  if part.per_page == 0 and not part.examples.any(one => one.room) { return flow-part(part, width, header) }
  let height-of(example, room) = measure(block(width: width, example-of(example, room, width))).height
  let rows = part.examples.chunks(columns)
  let heights = rows.map(row => calc.max(..row.map(one => height-of(one, least))))
  let most = if part.per_page == 0 { rows.len() } else { calc.max(1, calc.quo(part.per_page, columns)) }
  // Which rows stand on which page.
  let fill-up(most) = {
    let pages = ((),)
    let used = header
    for (i, height) in heights.enumerate() {
      let needed = height + if pages.last().len() > 0 { between } else { 0mm }
      if pages.last().len() > 0 and (pages.last().len() >= most or used + needed > region.height) {
        pages.push(())
        used = 0mm
        needed = height
      }
      pages.last().push(i)
      used += needed
    }
    pages
  }
  let pages = fill-up(most)
  // Where pupils write: the same number of pages, filled alike.
  let even = fill-up(calc.min(most, calc.ceil(rows.len() / pages.len())))
  if even.len() == pages.len() and part.examples.any(one => one.room) { pages = even }
  for (p, page) in pages.enumerate() {
    if p > 0 { pagebreak(weak: true) } else { header-of(part) }
    let room = region.height - if p == 0 { header } else { 0mm } - between * (page.len() - 1)
    let spare = room - page.map(i => heights.at(i)).sum()
    let open = page.filter(i => rows.at(i).any(one => one.room))
    let extra = if look.fill and open.len() > 0 { calc.max(0mm, (spare - 1mm) / open.len()) } else { 0mm }
    for (n, i) in page.enumerate() {
      if n > 0 { v(between, weak: true) }
      let row = rows.at(i)
      if heights.at(i) > region.height - header - 4mm {
        for one in row { long-example(one, least, region.width) }
      } else {
        let goal = heights.at(i) + if i in open { extra } else { 0mm }
        block(breakable: false, above: 0pt, below: 0pt, grid(
          columns: (width,) * columns, column-gutter: 8mm,
          ..row.map(one => example-of(one, if look.fill and one.room { least + goal - height-of(one, least) } else { least }, width)),
        ))
      }
    }
  }
}

// Something that is kept on one page where one is long enough.
#let kept-whole(below, body) = context {
  let high = measure(block(width: region.width, body)).height
  block(width: 100%, above: 0pt, below: below, breakable: high > region.height - 40mm, body)
}

// A worked example, and beside it one like it.
#let pairs-part(part) = {
  let half = (region.width - 8mm) / 2
  header-of(part)
  for pair in part.pairs {
    kept-whole(7mm, grid(
      columns: (1fr, 1fr), column-gutter: 8mm, row-gutter: 2mm,
      text(size: size(10), fill: quiet)[Worked for you], text(size: size(10), fill: quiet)[Your turn],
      example-of(pair.given, 0mm, half),
      example-of(pair.yours, 0mm, half),
    ))
  }
}

// Three slips on a page, with lines to cut along.
#let slips-part(part) = context {
  let width = region.width
  let columns = if part.examples.len() > 1 { 2 } else { 1 }
  let slip(room) = {
    header-of(part)
    grid(
      columns: (1fr,) * columns, column-gutter: 8mm, row-gutter: 3mm,
      ..part.examples.map(one => example-of(one, room, (width - (columns - 1) * 8mm) / columns)),
    )
  }
  let rows = calc.ceil(part.examples.len() / columns)
  let third = (region.height - 2 * 6mm) / 3
  let bare = measure(block(width: width, slip(0mm))).height
  let room = calc.max(12mm, (third - bare - 4mm) / rows - 4mm)
  let count = if bare + rows * 16mm > third { 1 } else { 3 }
  for i in range(count) {
    if i > 0 { block(width: 100%, height: 6mm, above: 0pt, below: 0pt, align(horizon, line(length: 100%, stroke: (dash: "dashed", thickness: 0.6pt, paint: rule)))) }
    block(width: 100%, height: if count == 3 { third } else { auto }, above: 0pt, below: 0pt, breakable: count == 1, slip(room))
  }
}

// Cards of a bookmark's width, as many as a page holds.
#let cards-part(part) = context {
  let width = region.width / 3
  let card = block(width: width, inset: 5mm, {
    block(below: 3mm, strong(text(size: size(13), part.title)))
    block(below: 4mm, width: 100%, height: 8mm, stroke: (bottom: 0.8pt), text(size: size(9.5))[The problem:])
    for (i, (asks, answered)) in part.questions.enumerate() {
      block(below: 2.6mm, {
        set text(size: size(11))
        strong(str(i + 1)) + [ ] + asks
        block(above: 1.4mm, below: 0pt, inset: (left: 4mm), if answered [#tick #h(1mm) yes #h(5mm) #tick #h(1mm) no] else [#tick #h(1mm) done])
      })
    }
  })
  let high = measure(card).height
  let rows = calc.max(1, calc.floor((region.height - 1mm) / high))
  heading(level: 1, text(size: 0.1pt, part.title))
  place(top, grid(columns: (width,) * 3, rows: (high,) * rows, stroke: (dash: "dashed", thickness: 0.6pt, paint: rule), ..(card,) * (3 * rows)))
}

// Strips under each other, closer where they then stay on one page, else as many on each; then circles in pairs.
#let cut-outs-part(part) = context {
  let head = {
    title-of((title: part.title, letter: ""), text(size: size(12))[: to cut out])
    v(4mm)
  }
  let width = region.width
  let strip(one) = block(breakable: false, spacing: 0pt, width: width, drawn(one.states.first(), one.alt, 100%))
  let strips = part.strips.map(strip)
  let high = strips.map(one => measure(one).height).fold(0pt, calc.max)
  let free = region.height - measure(block(width: width, head)).height
  let on-a-page(gap) = calc.max(1, calc.floor((free + gap) / (high + gap)))
  let gap = (4.5mm, 3.5mm, 2.5mm).find(one => strips.len() <= on-a-page(one))
  if gap == none { gap = 4.5mm }
  let pages = calc.ceil(strips.len() / on-a-page(gap))
  let each = calc.ceil(strips.len() / calc.max(1, pages))
  head
  for (i, one) in strips.enumerate() {
    if i > 0 { if calc.rem(i, each) == 0 { pagebreak() } else { v(gap) } }
    one
  }
  pagebreak(weak: true)
  grid(columns: (1fr, 1fr), row-gutter: 6mm, ..part.circles.map(one => align(center, drawn(one.states.first(), one.alt, 84mm))))
}

// The usual key: two columns, a line for each step with its points, what pupils may write below; an entry goes on in the next column.
#let short-key(part) = {
  set text(size: 10pt, tracking: 0pt, spacing: 100%)
  set par(leading: 0.5em, spacing: 0.55em)
  title-of(part, [: key])
  block(above: 2mm, below: 3mm, text(size: 8.5pt, fill: quiet)[On the right of each line its marks.])
  let half = (region.width - 8mm) / 2
  columns(2, gutter: 8mm, for entry in part.entries {
    block(width: 100%, above: 0pt, below: 3.5mm, {
      block(sticky: true, below: 1.2mm, text(size: 11.5pt, {
        strong(str(entry.number)) + h(2mm)
        if entry.problem != none { inline(entry.problem) }
      }))
      place-blocks(entry.before, half)
      for row in entry.rows {
        block(breakable: false, above: 0.9mm, below: 0.9mm, width: 100%, grid(
          columns: (1fr, auto), column-gutter: 2mm, align: (left + horizon, right + horizon),
          text(size: 10.5pt, inline(row.line)), text(size: 8.5pt, fill: quiet, str(row.points)),
        ))
      }
      for (title, lines) in entry.notes {
        block(above: 1.4mm, below: 0.7mm, sticky: true, strong(text(size: 8.5pt, title)))
        for one in lines { block(breakable: false, spacing: 1mm, text(size: 9pt, inline(one, scale: 0.86))) }
      }
    })
  })
}

// The long key: lines with what is done in them and their points.
#let key-part(part) = if not part.long { short-key(part) } else {
  set text(size: 11pt, tracking: 0pt, spacing: 100%)
  set par(leading: 0.55em, spacing: 0.7em)
  title-of(part, [: key])
  v(4mm)
  for entry in part.entries {
    // Only an entry of many lines can be longer than a page; measuring each would take too long.
    let lines = entry.rows.len() + entry.before.len() + entry.notes.map(((_, lines)) => lines.len()).sum(default: 0)
    let keep = if lines > 10 { kept-whole } else { (below, body) => block(width: 100%, breakable: false, above: 0pt, below: below, body) }
    keep(6mm, {
      block(below: 2mm, text(size: 13pt, {
        strong(str(entry.number)) + h(2.5mm)
        if entry.problem != none { inline(entry.problem) }
      }))
      place-blocks(entry.before, region.width)
      table(
        columns: (42%, 1fr, auto), stroke: (x, y) => if y > 0 { (bottom: 0.4pt + rgb("#c5d0d5")) }, inset: (x: 1.5mm, y: 1mm),
        align: (left + horizon, left + horizon, right + horizon),
        table.header(..([Line], [What is done], [Marks]).map(one => text(size: 9.5pt, fill: quiet, one))),
        ..entry.rows.map(row => (
          text(size: 12.5pt, inline(row.line)), text(size: 10.5pt, inline(row.said, scale: 0.86)), str(row.points),
        )).flatten(),
      )
      for (title, lines) in entry.notes {
        block(above: 2mm, below: 1mm, strong(text(size: 10pt, title)))
        for one in lines { block(spacing: 1.8mm, text(size: 10.5pt, inline(one, scale: 0.86))) }
      }
    })
  }
}

// The teacher's copy: what pupils have, with the key in a slim margin.
#let copy-part(part) = {
  title-of(part, [: teacher's copy])
  v(4mm)
  for example in part.examples {
    kept-whole(5mm, grid(
      columns: (1fr, 56mm), column-gutter: 4mm,
      example-of(example, 0mm, region.width - 60mm),
      block(width: 100%, inset: (left: 3mm), stroke: (left: 1pt + rule), {
        set text(size: 10pt)
        for one in example.aside { block(spacing: 1.8mm, text(size: if one.style == "said" { 9.5pt } else { 12pt }, inline(one, scale: 0.86))) }
      }),
    ))
  }
}

#let parts = (
  grid: grid-part, pairs: pairs-part, slips: slips-part, cards: cards-part, cut-outs: cut-outs-part, key: key-part, copy: copy-part,
)

#document-of(data.title, if data.parts.len() == 0 {
  title-of((title: data.title, letter: ""), [])
  v(4mm)
  [None of these examples has anything for this kind of page.]
} else { for (i, part) in data.parts.enumerate() {
  if i > 0 { pagebreak(weak: true) }
  (parts.at(part.part))(part)
} })
