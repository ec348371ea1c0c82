package cutting

import "dewcount/core/crop"

// A Depth is what cutting low or high on the stem costs and brings.
type Depth struct {
	CM       float64 // usual length of the stems that are cut so, in a season's later flushes too
	Shoots   float64 // that follow a cut, at full vigour
	NextDays float64 // until the first of these stand on the first rung of the market
}

// A Where is where to cut a crop.
type Where struct {
	Pulled    bool // with its bulb, for length; nothing follows
	Ground    bool // as low as it goes: nothing follows from the stem
	Ends      bool // nor would it before the season ends, though the crop comes again
	CM        float64
	Low, High Depth // where stems follow
}

// SeasonDays is after how many days of today's warmth nobody waits for the next stems: autumn has come. A guess.
const SeasonDays = 100

// pulledCM is what pulling a bulb with its stem brings, in cm: ten to fifteen, as growers say.
const pulledCM = 12

// WhereOf returns where to cut stems of a crop at so much warmth in °Cd a day; first tells whether they are the first of the plants, which
// are shorter. A stem that nothing follows is cut at the ground, and a bulb of one stem is pulled.
func WhereOf(p *crop.Profile, market crop.Window, first bool, cdADay float64) Where {
	w := Where{CM: p.Stem.LaterCM}
	if first {
		w.CM = p.Stem.FirstCM
	}
	if p.Yield.Habit != crop.Again {
		w.Pulled = p.Life == crop.BulbLife && p.Yield.Habit == crop.Single
		w.Ground = !w.Pulled
		if w.Pulled {
			w.CM += pulledCM
		}
		return w
	}
	toMarket := 0.0
	for _, cd := range p.RungsCd[:market.From] {
		toMarket += cd
	}
	s := Stem{Crop: p}
	days := Days{CdADay: cdADay}
	w.Low = Depth{p.Stem.LaterCM, p.Yield.ShootsPerCut, s.in(p.Yield.RegrowCd+toMarket, days)}
	if w.Low.NextDays > SeasonDays {
		return Where{CM: w.CM, Ground: true, Ends: true}
	}
	w.High = Depth{crop.HighCutShorter * p.Stem.LaterCM, crop.HighCutMore * p.Yield.ShootsPerCut, s.in(crop.HighCutSooner*p.Yield.RegrowCd+toMarket, days)}
	return w
}

// Stands tells whether a stem in the middle of a rung still stands within a window after so many days of so much warmth in °Cd.
func Stands(p *crop.Profile, w crop.Window, rung crop.Rung, days, cdADay float64) bool {
	s := Stem{Crop: p, Rung: rung}
	return rung <= w.To && s.in(s.wayTo(w.To+1), Days{CdADay: cdADay}) >= days
}
