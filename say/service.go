package say

import (
	"fmt"
	"math"
)

// Service says how the farm's weather service has erred, and that forecasts reckon with it; nothing where hardly any of its days have come.
func Service(snap *Snapshot) string {
	s := snap.Model.Outlook.Service()
	if !s.Known() {
		return ""
	}
	const little = 0.05 // °C
	beside := func(by float64) string {
		if math.Abs(by) < little {
			return "as it says"
		}
		return snap.warmer(by) + " than it says"
	}
	nights, days := beside(s.NightsC()), beside(s.DaysC())
	expected := "nights are expected " + nights + " and days " + days
	if nights == days {
		expected = "nights and days are expected " + days
	}
	return fmt.Sprintf("By %d days that were forecast and have come, the weather forecast errs by about %s for the next day and %s a week ahead; %s. What is foretold here reckons with that.",
		s.Days, snap.degrees(s.ErrsC(1)), snap.degrees(s.ErrsC(7)), expected)
}
