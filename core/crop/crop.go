// Package crop describes the kinds of flowers as the computation sees them: what warmth and light do to them, how they branch
// and come again, and on which rungs of the bud ladder their stems are cut.
//
// Temperatures are °C, thermal times °Cd above the base, shares 0 to 1.
package crop

import (
	"math"
	"slices"

	"dewcount/core/climate"
)

// A Habit is how a plant gives its stems.
type Habit string

// The habits of the crop table.
const (
	Single    Habit = "single"    // one stem a plant
	Branching Habit = "branching" // one flush of several
	Again     Habit = "again"     // cut and come again
	Fixed     Habit = "fixed"     // a set number a year
)

// A Method is how a planting is started.
type Method string

// The methods of the crop table.
const (
	Direct      Method = "direct"      // sown where it flowers
	Tray        Method = "tray"        // raised under cover, then planted out
	Tuber       Method = "tuber"       // set as a tuber, or started in a pot under cover
	Bulb        Method = "bulb"        // set as a bulb
	Corm        Method = "corm"        // set as a corm
	Cutting     Method = "cutting"     // set as a rooted cutting, or rooted under cover
	Division    Method = "division"    // set as a piece of an established plant
	Established Method = "established" // it stood there before
)

// Sown tells whether a planting so started begins as a seed.
func (m Method) Sown() bool { return m == Direct || m == Tray }

// A Life is how long a plant lives, and as what.
type Life string

// The lives of the crop table.
const (
	TenderAnnual    Life = "tender-annual"
	HalfHardyAnnual Life = "half-hardy-annual"
	HardyAnnual     Life = "hardy-annual"
	Biennial        Life = "biennial"
	BulbLife        Life = "bulb"
	CormLife        Life = "corm"
	TuberLife       Life = "tuber"
	Perennial       Life = "perennial"
	CuttingLife     Life = "cutting"
	Shrub           Life = "shrub"
)

// A Profile is one crop's starting values for a grower who has no records yet.
type Profile struct {
	ID, Name, Form     string
	Ladder             string // the bud ladder that its stems are told by: its form's, or one of its own
	Botanical          string // genus first
	Life               Life
	FrostKillC         float64 // air temperature that kills the top growth
	Overwinters        bool    // survives a usual winter outdoors
	ChillDays          int     // days with a mean of at most 9 °C that are needed before it moves on; 0 for none
	Starts             []Method
	PreferredStart     Method
	SoilMinC, SoilOptC float64 // least warmth of the soil for seed, and that of the seed bed under cover; the optimum where nothing is sown
	Germination        Germination
	Nursery            Nursery
	SowEveryDays       [2]int     // usual days between successions by the calendar; zero where there are none
	SpacingCM          float64    // between plants
	HeightCM           [2]float64 // as grown for cutting
	Support            string     // "none", "net" or "stake"
	Response           climate.Response
	EmergeCd, BudCd    float64
	RungsCd            [Rungs - 1]float64
	SpreadCV           float64
	Daylength          Daylength
	Pinch              Pinch
	Yield              Yield
	Stem               Stem
	Cut                map[Use]Window
	CutTests           map[Use][]Test
	Schools            []School
	InWater            InWater
	Vase               Vase
	Store              Store
	Condition          []Conditioning // the default first
	BucketStems        int            // that a ten-litre bucket holds without crushing
	Hazards            []string       // cautions for people
	Feeding            Feeding        // as its care says
	Beetles            bool           // eat its flowers where they are about
	SeedsAbout         bool           // comes up by itself where it was left to seed, as next year's weed
	SeedHeads          bool           // its seed heads are a crop as well
	TypicalDays        [2]int
}

// A Germination is how seed comes up; all zero where nothing is sown.
type Germination struct {
	Days    [2]float64
	Light   string // "needs-light", "needs-dark" or "either"
	DepthMM float64
	Rate    float64 // of seeds that come up, 0 to 1
}

// A Nursery is how a crop is raised under cover; zero weeks where it never is.
type Nursery struct {
	EarliestWeeks, LatestWeeks float64   // a good age for planting out
	RootBound                  RootBound // what staying longer does
	Night, Day                 float64   // °C after emergence
	HardenDays                 int       // to get used to being outdoors
	OffHeat                    bool      // off the heat and into the light as soon as it is up, or it draws up
}

// A RootBound is what becomes of a seedling that is kept too long.
type RootBound string

// The ways of the crop table.
const (
	Stunts    RootBound = "stunts" // for good
	Slows     RootBound = "slows"
	Tolerates RootBound = "tolerates"
)

// A Daylength is what hours of light do to the way to the bud.
type Daylength struct {
	Kind      string // "neutral", "short" or "long"
	CriticalH float64
	Slowest   float64 // the rate on the wrong side, 0 to 1
	WidthH    float64
}

// Rate returns the multiplier (Slowest to 1) on the way to the bud at a photoperiod in hours: a straight ramp, WidthH wide and
// centred on CriticalH.
func (d Daylength) Rate(photoperiodH float64) float64 {
	if d.Kind == "neutral" || d.WidthH == 0 {
		return 1
	}
	ramp := (photoperiodH-d.CriticalH)/d.WidthH + 0.5
	if d.Kind == "short" {
		ramp = 1 - ramp
	}
	return d.Slowest + (1-d.Slowest)*min(1, max(0, ramp))
}

// LightRate returns what a day does to the way to the bud, as Daylength.Rate has it. Perennials that bloom in autumn want the long days before the short ones
// (long-short-day plants: Thomas & Vince-Prue 1997, Photoperiodism in Plants, 2nd ed.): while days lengthen, short ones do nothing for them. It is taken to hold for
// all of them.
func (p *Profile) LightRate(photoperiodH float64, lengthening bool) float64 {
	if d := p.Daylength; lengthening && p.Life == Perennial && d.Kind == "short" {
		return d.Slowest
	}
	return p.Daylength.Rate(photoperiodH)
}

// A Pinch is what taking out the tip does; all zero where the crop is never pinched.
type Pinch struct {
	Policy      string  // "always", "optional" or "never"
	AtCM        float64 // the height at which it is done, in cm; 0 where the table gives none
	DelayCd     float64
	StemsFactor float64 // stems of the first flush, pinched ÷ plain
}

// A Yield is how many stems a plant gives; the last three are zero where the crop does not come again.
type Yield struct {
	Habit                   Habit
	FirstStems, SeasonStems float64
	FloweringCd             float64
	RegrowCd, ShootsPerCut  float64
}

// OneStem tells whether a plant of the crop gives one stem and no more.
func (p *Profile) OneStem() bool { return p.Yield.Habit == Single }

// A Stem is how long stems are when they are cut, in cm: the first of a season and later ones on average, and how they differ.
type Stem struct{ FirstCM, LaterCM, SDCM float64 }

// What cutting high, above the side buds, changes: how soon a plant has buds again and how many shoots follow, as the crop table's notes
// give them, and what it leaves of the later stems' length. That is a guess, the table gives no number.
const (
	HighCutSooner  = 0.85
	HighCutMore    = 1.12
	HighCutShorter = 0.8
)

// LongEnough returns the share of a planting's stems (0 to 1) that are at least so long in cm, when a part of them (0 to 1) is of the
// first flush: lengths are normal about their mean.
func (s Stem) LongEnough(cm, firstPart float64, keepBuds bool) float64 {
	later := s.LaterCM
	if keepBuds {
		later *= HighCutShorter
	}
	share := func(mean float64) float64 { return math.Erfc((cm-mean)/(s.SDCM*math.Sqrt2)) / 2 }
	return firstPart*share(s.FirstCM) + (1-firstPart)*share(later)
}

// A School is one opinion on the rungs to cut on, where growers disagree.
type School struct {
	ID     string
	Window Window
	Why    string
}

// Window returns the rungs on which stems are cut for a use, and whether the crop has that use. A school chosen on the farm
// replaces the window of Market; an empty one leaves the table's.
func (p *Profile) Window(u Use, school string) (Window, bool) {
	if u == Market {
		for _, s := range p.Schools {
			if s.ID == school {
				return s.Window, true
			}
		}
	}
	w, ok := p.Cut[u]
	return w, ok
}

// Lasts tells whether a planting so started flowers year after year: perennials and shrubs, and what was established, divided or
// set as a bulb that stays in the ground. Bulbs of one stem are pulled with it.
func (p *Profile) Lasts(m Method) bool {
	switch {
	case m == Established || m == Division || p.Life == Perennial || p.Life == Shrub:
		return true
	default:
		return p.Life == BulbLife && p.Overwinters && p.Yield.Habit == Fixed
	}
}

// Steered tells whether the crop is flowered under cover by lamps and blackout: it buds on short days alone and never
// stands through a winter.
func (p *Profile) Steered() bool {
	return p.Life == CuttingLife && !p.Overwinters && p.Daylength.Kind == "short" && p.Daylength.Slowest == 0
}

// HasStart tells whether the crop can be started by a method.
func (p *Profile) HasStart(m Method) bool { return slices.Contains(p.Starts, m) }

// OnRungCd returns the thermal time in °Cd from the tight bud to the coming of each rung, and to the end of none: the last
// entry is that of Spent.
func (p *Profile) OnRungCd() [Rungs]float64 {
	var reached [Rungs]float64
	for i, cd := range p.RungsCd {
		reached[i+1] = reached[i] + cd
	}
	return reached
}

// MostStems returns the most stems of one flush that so many plants could carry, pinched or not: twice what the table expects,
// since no record should be refused that could be true. A plant of one stem has no second one unless it is pinched.
func (p *Profile) MostStems(plants int, pinchedShare float64) float64 {
	if p.Yield.Habit == Single {
		if p.Pinch.StemsFactor <= 1 {
			pinchedShare = 0
		}
		return float64(plants) * (1 - pinchedShare + pinchedShare*2*p.Pinch.StemsFactor)
	}
	first := p.Yield.FirstStems
	if p.Yield.Habit != Again {
		first = max(first, p.Yield.SeasonStems)
	}
	factor := 1.0
	if p.Pinch.StemsFactor > 0 {
		factor += pinchedShare * (p.Pinch.StemsFactor - 1)
	}
	return 2 * float64(plants) * first * factor
}

// What a vase needs, in cm: less stem, or a plant so low, is a bedding form; of a dahlia a cutting form is higher.
const (
	vaseStemCM   = 40
	lowPlantCM   = 40
	lowDahliaCM  = 90
	dahliaPrefix = "dahlia-"
)

// TooLow tells whether a variety of the crop is too low for cutting, by the height of its plants and the length of its stems in cm; 0 where
// one is not known. What the crop itself does not reach is not asked of a variety.
func (p *Profile) TooLow(heightCM, stemCM float64) bool {
	low := float64(lowPlantCM)
	if len(p.ID) > len(dahliaPrefix) && p.ID[:len(dahliaPrefix)] == dahliaPrefix {
		low = lowDahliaCM
	}
	low = min(low, p.HeightCM[0])
	stem := min(vaseStemCM, p.Stem.LaterCM)
	return heightCM > 0 && heightCM < low || stemCM > 0 && stemCM < stem
}
