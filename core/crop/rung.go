package crop

import (
	"fmt"
	"strings"
)

// A Rung is a step of the bud ladder, from a tight bud to a spent head.
type Rung int8

// The eight rungs; Rungs is their number.
const (
	Tight Rung = iota
	Colour
	Lifting
	Third
	Half
	Open
	Over
	Spent
	Rungs int = iota
)

var rungIDs = [Rungs]string{"tight", "colour", "lifting", "third", "half", "open", "over", "spent"}

var rungWords = [Rungs]string{
	"bud visible, green and hard",
	"colour shows, still closed",
	"first petals or florets loosen",
	"about a third open",
	"half to three quarters open",
	"fully open and fresh",
	"going over: backs soft, petals drop",
	"finished: the head points or dries",
}

// ParseRung reads a rung by its id ("half") or number ("4"). Its error tells a person what to write.
func ParseRung(s string) (Rung, error) {
	for i, id := range rungIDs {
		if s == id || len(s) == 1 && int(s[0]-'0') == i {
			return Rung(i), nil
		}
	}
	return 0, fmt.Errorf("%q is no rung: write one of %s", s, strings.Join(rungIDs[:], " "))
}

// String returns the rung's id.
func (r Rung) String() string { return rungIDs[r] }

// Words describe the rung in general, as a grower would.
func (r Rung) Words() string { return rungWords[r] }

// A Window is the rungs on which a stem is cut, both ends included.
type Window struct{ From, To Rung }

// Holds tells whether a stem on rung r is to be cut.
func (w Window) Holds(r Rung) bool { return w.From <= r && r <= w.To }

// String writes the window as growers say it: "half to open".
func (w Window) String() string {
	if w.From == w.To {
		return w.From.String()
	}
	return w.From.String() + " to " + w.To.String()
}

// A Use is what a stem is cut for.
type Use int8

// The uses; Uses is their number.
const (
	Market Use = iota
	Event
	Florist
	Drying
	Uses int = iota
)

var useIDs = [Uses]string{"market", "event", "florist", "drying"}

// ParseUse reads a use by its id. Its error tells a person what to write.
func ParseUse(s string) (Use, error) {
	for i, id := range useIDs {
		if s == id {
			return Use(i), nil
		}
	}
	return 0, fmt.Errorf("%q is no use: write one of %s", s, strings.Join(useIDs[:], " "))
}

// String returns the use's id.
func (u Use) String() string { return useIDs[u] }
