package say

import (
	"fmt"

	"dewcount/core/crop"
	"dewcount/core/day"
	"dewcount/core/forecast"
	"dewcount/farm/book"
)

// WhyNow says which counts and cuts a planting's forecast rests on, and what a late pinch has spared.
func WhyNow(snap *Snapshot, i int) string {
	p := snap.Model.Plantings[i]
	counts, cuts := 0, 0
	var last book.Count
	for _, c := range snap.Book.Counts {
		if c.Planting == p.ID {
			counts++
			if last.CountedAt.IsZero() || c.CountedAt.Instant(0) > last.CountedAt.Instant(0) {
				last = c
			}
		}
	}
	for _, c := range snap.Book.Cuts {
		if c.Planting == p.ID {
			cuts++
		}
	}
	words := "not counted yet: reckoned from its start on " + snap.Date(p.Growth.Started) + ", the weather since, and what other rows of the crop did"
	if p.Growth.Started.After(snap.View.Today) {
		words = "not started yet: reckoned from " + snap.Date(p.Growth.Started) + " on, with what other rows of the crop did"
	}
	if counts > 0 {
		words = fmt.Sprintf("%s, the last on %s: %s on %d of %d plants", Number(counts, "count"), snap.Date(last.CountedAt.Day()),
			Stems(last.Total()), last.PlantsCount, p.Growth.Plants)
	}
	if cuts > 0 {
		words += "; " + Number(cuts, "cut")
	}
	if spared := snap.Stand.Standing(i).Spared; spared >= fewSpared && !p.Growth.Pinched.After(snap.View.Today) {
		words += fmt.Sprintf("; about %.0f in 100 plants had a bud when it was pinched on %s, and flower unpinched", 100*spared, snap.Date(p.Growth.Pinched))
	}
	return words
}

// fewSpared is the share of plants spared by a pinch from which it is worth a word.
const fewSpared = 0.05

// Rests says what weather the forecast rests on.
func Rests(snap *Snapshot) string {
	o := snap.Model.Outlook
	words := "No weather is on record: the season is taken to be usual for this latitude and height."
	if o.Usual != nil {
		words = "No weather is on record: the season is taken to be that of the climate in the settings."
	}
	if n := len(o.Observed); n > 0 {
		words = fmt.Sprintf("Weather on record up to %s", snap.Date(o.Observed[n-1].Day))
		if m := len(o.Issued); m > 0 {
			words += fmt.Sprintf(", the forecast up to %s", snap.Date(o.Issued[m-1].Day))
		}
		words += fmt.Sprintf(", then %d weathers that are possible here.", snap.Model.Members)
	}
	if snap.Stand.Bridged > 0 {
		words += fmt.Sprintf(" %s missing since the first sowing and bridged by what is usual: load them to be surer.", Number(snap.Stand.Bridged, "day"))
	}
	return words
}

// Waits says that a planting must not be cut on a day, empty where it may.
func (snap *Snapshot) Waits(planting string, on day.Day) string {
	spray, until, waits := snap.Book.Waiting(planting, on)
	if !waits {
		return ""
	}
	return fmt.Sprintf("Do not cut %s before %s: sprayed with %s on %s, %d days of waiting by its label.", planting, snap.Date(until), spray.Product, snap.Date(spray.SprayedAt.Day()), spray.WaitDays)
}

func Strain(l forecast.Learned) string {
	if !l.Strained {
		return ""
	}
	return "Its records contradict each other: were the counts and cuts of another row written down here, or a branch counted several times? Look at them below its dates and correct what is wrong."
}

// NextCut says when the first stems of planting i are likely, and how many; where none are, when most may be.
func NextCut(snap *Snapshot, i int) string {
	most, on := 0, day.Day{}
	for j, d := range snap.Forecast.PickDays {
		next := snap.Forecast.Plantings[i].ByPick[j][crop.Market]
		if next.Likely() > 0 {
			return fmt.Sprintf("%s: %s.", snap.Date(d), Bounds(next.Sure(), next.Likely(), next.AtBest()))
		}
		if next.AtBest() > most {
			most, on = next.AtBest(), d
		}
	}
	if most > 0 {
		return fmt.Sprintf("Likely nothing to cut in the next five weeks; at best %s on %s.", Stems(most), snap.Date(on))
	}
	return "Nothing to cut in the next five weeks."
}
