package season

import (
	"strings"
	"testing"

	"dewcount/farm/plans"
)

func TestWhatTwentyYearsSay(t *testing.T) {
	years := make([]plans.PossibleYear, 20)
	years[0], years[1] = plans.PossibleYear{Short: 5, Worst: "zinnia-tall", Late: 9, Part: 0.7}, plans.PossibleYear{Short: 1}
	if got := possibleVerdict(plans.Possible{Years: years, Wanted: 12}); got != "In 18 of 20 years nothing is short. Of 12 times that a week's orders want a crop, 0 are short on the mean, and 5 in the worst year." {
		t.Errorf("%s", got)
	}
	for y, want := range map[plans.PossibleYear]string{years[0]: "9 days late, and 70 in 100", {Part: 1, Late: -6}: "6 days early", {Part: 1, Late: 1}: "too little of it in any year", {Part: 0}: "none comes", {Part: 0.5, Late: 0}: ": 50 in 100", {Part: 1, Late: 5}: ": 5 days late"} {
		if got := why(y); !strings.Contains(got, want) {
			t.Errorf("%+v: %s, want %s", y, got, want)
		}
	}
	if possibleVerdict(plans.Possible{Years: years}) != "" {
		t.Error("where nothing is wanted something is said")
	}
}
