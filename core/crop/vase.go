package crop

import "slices"

// A Test is one by which a stem in the hand is judged beside its rung.
type Test string

// The tests of the crop table: what holds of a stem that passes.
const (
	StiffNeck   Test = "stiff-neck"   // it holds its head when it is wagged
	FirmBacks   Test = "firm-backs"   // the outer petals are firm from behind
	NoShed      Test = "no-shed"      // nothing drops when it is shaken
	NoPollen    Test = "no-pollen"    // none shows
	CentreTight Test = "centre-tight" // even and closed
	ColourTrue  Test = "colour-true"  // that of the variety, not green and not faded
)

// Tests are all there are, in the order in which a hand makes them.
var Tests = [...]Test{StiffNeck, FirmBacks, NoShed, CentreTight, NoPollen, ColourTrue}

// Judged returns the tests that a stem has to pass for a use, in the order in which they are made.
func (p *Profile) Judged(u Use) []Test {
	var asked []Test
	for _, t := range Tests {
		if slices.Contains(p.CutTests[u], t) {
			asked = append(asked, t)
		}
	}
	return asked
}

// InWater is how a crop goes on opening once it is cut.
type InWater struct {
	Opens       string  // "no", "some" or "yes"
	DaysPerRung float64 // at 20 °C, of one that opens; 0 where none does
	To          Rung    // the furthest that it comes
}

// A Vase is how long stems last in water: days at 20 °C from the best rung, and by what factor ten degrees more shorten them.
type Vase struct {
	Days [2]float64 // low, high
	Q10  float64
}

// A Store is how stems are kept.
type Store struct {
	TempC       [2]float64 // best, low to high
	ChillBelowC float64    // below it cold hurts; -Inf where none does
	MaxDays     float64
	DryOK       bool
	Ethylene    bool   // ages fast near ripe fruit and rotting stems
	Apart       string // "no", "fouls-water" or "sap": wants a bucket of its own
	Upright     bool   // bends when it is laid down
}

// A Conditioning is one way to condition stems after the cut.
type Conditioning struct {
	ID      string     // "cool", "warm" or "hot"
	WaterC  [2]float64 // °C
	DepthCM float64
	Hours   [2]float64 // least, best
}

// Conditioned returns the way to condition the crop with an id, its first where there is none of it.
func (p *Profile) Conditioned(id string) Conditioning {
	for _, c := range p.Condition {
		if c.ID == id {
			return c
		}
	}
	return p.Condition[0]
}
