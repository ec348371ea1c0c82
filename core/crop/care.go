package crop

// A Feeding is how a crop is fed.
type Feeding int

// The ways of feeding.
const (
	NoFeed     Feeding = iota // lean: leaves would cost flowers
	SpringFeed                // once, when it has rooted
	WeeksFeed                 // every three weeks, low in nitrogen
)

// LargeHeads tells whether side buds are taken off for one large flower a stem: of heads that are worth it, and of plants that are not sown every year.
func (p *Profile) LargeHeads() bool {
	return (p.Form == "double-daisy" || p.Form == "ruffle") && p.Life != TenderAnnual && p.Life != HardyAnnual
}
