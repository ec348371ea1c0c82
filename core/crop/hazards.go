package crop

import (
	"slices"
	"strings"
)

// touch are the words by which the table's cautions for hands and skin are known; scald those for hot water.
var touch = []string{"skin", "sap", "gloves", "sore", "rash", "eyes"}

const scald = "scald"

// Handling returns the cautions for who cuts the crop and carries it: they stand where the row is cut.
func (p *Profile) Handling() []string {
	return slices.DeleteFunc(slices.Clone(p.Hazards), func(h string) bool {
		h = strings.ToLower(h)
		return strings.Contains(h, scald) || !slices.ContainsFunc(touch, func(word string) bool { return strings.Contains(h, word) })
	})
}

// home are words of the cautions that a customer has to know: what is harmful to who eats it, to pets, skin and cloth.
var home = []string{"eat", "cats", "skin", "rash", "cloth", "hands sore"}

// AtHome returns the cautions that a customer has to know.
func (p *Profile) AtHome() []string {
	return slices.DeleteFunc(slices.Clone(p.Hazards), func(h string) bool {
		h = strings.ToLower(h)
		return strings.Contains(h, scald) || strings.Contains(h, "sow") || !slices.ContainsFunc(home, func(word string) bool { return strings.Contains(h, word) })
	})
}

// Scalding returns the cautions for who pours hot water: they stand where it is poured.
func (p *Profile) Scalding() []string {
	return slices.DeleteFunc(slices.Clone(p.Hazards), func(h string) bool { return !strings.Contains(h, scald) })
}
