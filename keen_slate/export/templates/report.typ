// Tables with a line of words before each, on one page: in the largest of the sizes in which all fits.

#import "common.typ": *

#let cell(one) = if type(one) == str { one } else { inline(one) }

#let body(points) = {
  set text(size: points * 1pt)
  block(below: 0.6em, heading(level: 1, text(size: 1.7em, data.title)))
  block(below: 0.8em, data.said)
  for one in data.tables {
    block(above: 1.1em, below: 0.5em, heading(level: 2, text(size: 1.15em, one.heading)))
    if one.said != "" { block(spacing: 0.5em, one.said) }
    if one.rows.len() > 0 {
      table(
        columns: one.head.len(), stroke: (x, y) => (bottom: if y == 0 { 0.9pt } else { 0.5pt + rgb("#8496a0") }),
        inset: (x: 1mm, y: 0.28em), align: left,
        table.header(..one.head.map(cell)),
        ..one.rows.flatten().map(cell),
      )
    }
  }
}

#document-of(data.title, context {
  let fits = data.sizes.filter(points => measure(block(width: region.width, body(points))).height <= region.height)
  body(if fits.len() > 0 { fits.first() } else { data.sizes.last() })
})
