package postharvest

import "dewcount/core/crop"

// A Card is what somebody has to know who takes stems of some crops home.
type Card struct {
	Days     [2]float64 // at 20 °C: the low of the crop that fades first, the high of the one that lasts longest
	First    *crop.Profile
	Opening  []*crop.Profile // go on opening in water
	Deep     bool            // stems that drink much are among them
	NoFruit  bool            // ripe fruit ages some of them
	Alone    []*crop.Profile // bleed sap: not recut with the others
	Cautions []Caution
}

// A Caution is what is harmful about stems of a crop at home.
type Caution struct {
	Crop  *crop.Profile
	Words string
}

// deepCM is from which depth of the conditioning water on stems drink much.
const deepCM = 20.0

// CardOf returns the card of crops, none of them twice. The zero card for none.
func CardOf(crops []*crop.Profile) Card {
	var c Card
	for _, p := range crops {
		if c.First == nil || p.Vase.Days[0] < c.First.Vase.Days[0] {
			c.First = p
		}
		c.Days[1] = max(c.Days[1], p.Vase.Days[1])
		if p.InWater.Opens == "yes" {
			c.Opening = append(c.Opening, p)
		}
		c.Deep = c.Deep || p.Condition[0].DepthCM >= deepCM
		c.NoFruit = c.NoFruit || p.Store.Ethylene
		if p.Store.Apart == "sap" {
			c.Alone = append(c.Alone, p)
		}
		for _, h := range p.AtHome() {
			c.Cautions = append(c.Cautions, Caution{p, h})
		}
	}
	if c.First != nil {
		c.Days[0] = c.First.Vase.Days[0]
	}
	return c
}
