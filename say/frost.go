package say

import (
	"fmt"

	"dewcount/core/day"
)

// FrostWords says when frost comes and when it ends here, and how far that can be trusted.
func FrostWords(snap *Snapshot) string {
	frosts := snap.FrostDates(snap.View.Today)
	first, last := frosts.First, frosts.Last
	words := "By the weathers that are possible here "
	if place, err := snap.Book.Place(); err == nil && place.LastFrost != "" && place.FirstFrost != "" {
		words = "As you have written it down, "
	}
	switch {
	case first.IsZero() && last.IsZero():
		return words + "there is hardly any frost."
	case first.IsZero():
		return words + "one spring in ten still has frost after " + snap.DayOfYear(last) + "."
	case last.IsZero():
		return words + "one autumn in ten has frost before " + snap.DayOfYear(first) + "."
	}
	return words + fmt.Sprintf("one autumn in ten has frost before %s, and one spring in ten still has some after %s.", snap.DayOfYear(first), snap.DayOfYear(last))
}

// SoilWords says when the soil will be warm enough for a crop, empty where it is or nothing is sown.
func SoilWords(snap *Snapshot, soilMinC float64, from day.Day) string {
	warm, ok := snap.Stand.SoilWarm(soilMinC)
	if !ok || !warm.After(from) {
		return ""
	}
	return fmt.Sprintf("Too cold to sow here before about %s: this crop wants soil of %s.", snap.Date(warm), snap.Celsius(soilMinC))
}
