package ladder

import "dewcount/core/crop"

// A mark is a shape of the product's own ladder, laid out on half the units of the others.
type mark struct {
	light bool // a light line or disc on ink
	path  string
}

// anyBud draws the ladder that stands for all forms: the mark of the product.
func anyBud(p *pen, k crop.Rung) {
	p.text.WriteString(`<g transform="translate(0 -4) scale(2)">`)
	for _, m := range buds[k] {
		if m.light {
			p.slit(m.path)
		} else {
			p.ink(m.path)
		}
	}
	p.text.WriteString("</g>")
}

var buds = [crop.Rungs][]mark{
	crop.Tight:   {{false, "M15 40V26h2v14z"}, {false, "M10 20a6 6 0 1 0 12 0a6 6 0 1 0 -12 0z"}, {false, "M8.5 22.5q7.5 6 15 0l-3 6.5h-9z"}},
	crop.Colour:  {{false, "M15 40V26h2v14z"}, {false, "M16 5c5.5 5 7.5 12 5.5 19q-5.5 4-11 0C8.5 17 10.5 10 16 5z"}, {true, "M16 6.5V15M12.8 10.5 16 15l3.200-4.5"}},
	crop.Lifting: {{false, "M15 40V26h2v14z"}, {false, "M16 5c3.5 5 4.5 13 3.5 21h-7C11.5 18 12.5 10 16 5z"}, {false, "M10.8 26.5C4.5 23 2.5 15.5 4.5 9c4.5 3.5 6.8 9.5 6.300 17.5zM21.200 26.5c6.300-3.5 8.300-11 6.300-17.5-4.5 3.5-6.8 9.5-6.300 17.5z"}},
	crop.Third:   {{false, "M15 40V26h2v14z"}, {false, "M7 8l4.5 5L16 6l4.5 7L25 8c1.5 10-2 17-7 20h-4C9 25 5.5 18 7 8z"}},
	crop.Half:    {{false, "M15 40V26h2v14z"}, {false, "M2.5 11l6.5 3.5L12 7l4 6.5L20 7l3 7.5 6.5-3.5c.5 9.5-5 16-10.5 17h-6C7.5 27 2 20.5 2.5 11z"}, {true, "M12 14.5V21M20 14.5V21"}},
	crop.Open:    {{false, "M15 40V24h2v16z"}, {false, "M1 19q-.5-5 4-6-2-5.5 3-7 1.5-5 6-3.5 2-2.5 4 0 4.5-1.5 6 3.5 5 1.5 3 7 4.5 1 4 6-1 5-6 5-3 4-9 4t-9-4q-5 0-6-5z"}, {true, "M11.5 15a4.5 4.5 0 1 0 9 0a4.5 4.5 0 1 0 -9 0z"}},
	crop.Over:    {{false, "M15 40V14h2v26z"}, {false, "M16 8c8.5 0 13.5 6 14.5 18-4-1.5-5.5-4.5-6.5-8-.5 5-1.5 8-3.5 10.5-1.5-3-2.5-6.5-2.5-9.5h-4c0 3-1 6.5-2.5 9.5C9.5 26 8.5 23 8 18c-1 3.5-2.5 6.5-6.5 8C2.5 14 7.5 8 16 8z"}, {false, "M24 33q4-3 7 0-3 4-7 0z"}},
	crop.Spent:   {{false, "M15 40V22h2v18z"}, {false, "M16 3l5 17.5q-5 4-10 0z"}, {false, "M11 23l-6 8.5 8.5-5zM21 23l6 8.5-8.5-5z"}},
}
