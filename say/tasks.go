package say

import "dewcount/core/rounds"

var TaskWords = map[rounds.Task]string{rounds.Sow: "Sow", rounds.OffHeat: "Take off the heat", rounds.PotOn: "Pot on", rounds.Harden: "Begin to harden off", rounds.PlantOut: "Plant out",
	rounds.Thin: "Thin", rounds.ThinMore: "Thin to the final distance", rounds.Water: "Water", rounds.Net: "Net or stake", rounds.RaiseNet: "Raise the net", rounds.Pinch: "Pinch",
	rounds.Strip: "Strip low leaves", rounds.Feed: "Feed", rounds.Disbud: "Disbud", rounds.Bag: "Bag buds", rounds.Scout: "Look for pests", rounds.Count: "Count", rounds.Cut: "Cut",
	rounds.Deadhead: "Deadhead", rounds.Frost: "Cut before frost", rounds.PullOut: "Pull out and cover", rounds.Lift: "Lift", rounds.Cover: "Cover for winter"}

// cautions stand once where the work is done.
var Cautions = map[rounds.Task]string{
	rounds.Cut: "Knives: cut away from yourself. A full bucket weighs as much as 15 kg.", rounds.Water: "In the heat: hat, water, shade.",
}
