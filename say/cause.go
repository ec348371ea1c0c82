package say

import (
	"fmt"
	"math"
	"strings"

	"dewcount/farm/look"
)

// Cause says what moved a forecast since yesterday.
func (l Locale) Cause(c look.Cause) string {
	switch c.Kind {
	case look.Counts:
		return fmt.Sprintf("%s's count of %s", c.On.Weekday(), strings.Join(c.Rows, ", "))
	case look.Cuts:
		return fmt.Sprintf("%s's cut of %d from %s", c.On.Weekday(), c.Stems, strings.Join(c.Rows, ", "))
	}
	const little = 0.5 // °C
	words := "Yesterday was as warm as expected"
	if math.Abs(c.Was) >= little {
		words = "Yesterday was " + l.warmer(c.Was) + " than expected"
	}
	if math.Abs(c.Ahead) >= little {
		return words + ", and the next days look " + l.warmer(c.Ahead) + " than they did"
	}
	return words + ", and the next days look much as they did"
}

// warmer writes a difference of temperatures.
func (l Locale) warmer(by float64) string {
	if by > 0 {
		return l.degrees(by) + " warmer"
	}
	return l.degrees(by) + " colder"
}

// degrees writes how large a difference of temperatures is.
func (l Locale) degrees(by float64) string {
	if l.Imperial {
		by *= 9. / 5
	}
	return fmt.Sprintf("%.1f %s", math.Abs(by), l.Name(Celsius))
}
