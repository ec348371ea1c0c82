package book

import (
	"fmt"

	"dewcount/croptable"
)

// A Change is what is kept at once, or not at all.
type Change struct {
	Add      []Record          // new ones; the same content under the same key is skipped
	Correct  []Record          // take the place of those that stand under their keys
	Withdraw []Record          // only their keys count
	OwnCrops []croptable.Entry // new ones
	SetCrops []croptable.Entry // new ones, or in the place of those of the same id
	DropCrop string            // the own crop that is taken away, empty for none
	History  []Version
	Stamp    string // when, UTC
	Who      string
}

// IsEmpty tells that there is nothing to keep.
func (c *Change) IsEmpty() bool {
	return len(c.Add)+len(c.Correct)+len(c.Withdraw)+len(c.OwnCrops)+len(c.SetCrops)+len(c.History) == 0 && c.DropCrop == ""
}

// HasCrops tells whether the change is of own crops too.
func (c *Change) HasCrops() bool { return len(c.OwnCrops)+len(c.SetCrops) > 0 || c.DropCrop != "" }

// A Conflict is a record that cannot be kept because of what stands under its key.
type Conflict struct {
	Record Record
	There  bool // something else stands there; otherwise nothing does
}

// Error says what to do.
func (c *Conflict) Error() string {
	if c.There {
		return fmt.Sprintf("%s %q is on record already and says something else: correct that one, or choose another name",
			c.Record.Kind.Singular, c.Record.ID())
	}
	return fmt.Sprintf("%s %q is no longer on record: somebody has withdrawn it, look at the page anew", c.Record.Kind.Singular, c.Record.ID())
}
