package say

import (
	"dewcount/core/crop"
)

var LifeWords = map[crop.Life]string{crop.TenderAnnual: "tender annual", crop.HalfHardyAnnual: "half-hardy annual", crop.HardyAnnual: "hardy annual", crop.Biennial: "biennial",
	crop.BulbLife: "bulb", crop.CormLife: "corm", crop.TuberLife: "tuber", crop.Perennial: "perennial", crop.CuttingLife: "from cuttings", crop.Shrub: "shrub"}

var HabitWords = map[crop.Habit]string{crop.Single: "one stem a plant", crop.Branching: "one flush of several stems", crop.Again: "cut and come again", crop.Fixed: "so many stems a year"}

// TestWords says how a stem is judged.
func TestWords(tests []string) []string {
	words := map[string]string{"stiff-neck": "the neck holds when it is wagged", "firm-backs": "the backs are firm", "no-shed": "no petal drops when it is shaken", "no-pollen": "no pollen shows",
		"centre-tight": "the centre is tight", "colour-true": "the colour is true"}
	var said []string
	for _, t := range tests {
		said = append(said, words[t])
	}
	return said
}
