// Drawings, each on a page of its own size.
#let data = json(bytes(sys.inputs.data))
#set page(width: auto, height: auto, margin: 0pt, fill: none)
#for one in data.drawings { page(image(bytes(one.svg), format: "svg", width: one.width * 1mm)) }
