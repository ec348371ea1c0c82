package rounds

import (
	"fmt"
	"strings"

	"dewcount/core/day"
)

// A Sentence is a reason in words. Its dates, measures and chances are still to be written as whoever reads it has them: its parts are strings, day.Day,
// Celsius, CM, MM and Chance.
type Sentence []any

// A measure in a sentence, written to the whole unit.
type (
	Celsius float64
	CM      float64
	MM      float64
)

// A Chance in a sentence, 0 to 1.
type Chance float64

// String writes the sentence in metric units.
func (s Sentence) String() string {
	var out strings.Builder
	for _, part := range s {
		switch v := part.(type) {
		case day.Day:
			out.WriteString(v.Spoken())
		case Celsius:
			fmt.Fprintf(&out, "%.0f °C", float64(v))
		case CM:
			fmt.Fprintf(&out, "%.0f cm", float64(v))
		case MM:
			fmt.Fprintf(&out, "%.0f mm", float64(v))
		case Chance:
			fmt.Fprintf(&out, "%.0f %%", 100*float64(v))
		default:
			fmt.Fprint(&out, v)
		}
	}
	return out.String()
}
