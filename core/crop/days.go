package crop

// How far a variety's own days can be from its crop's: what is beyond is of another crop.
const (
	quickestVariety = 0.6
	slowestVariety  = 1.6
)

// OfDays returns the crop as a variety of it has it whose packet says other days from its usual start to the first cut than the middle of TypicalDays, 1 or
// more: its way to the bud is shorter or longer by as much of the whole way, in degree-days, as the packet's days are of the table's. All else is the crop's.
func (p *Profile) OfDays(days int) *Profile {
	middle := float64(p.TypicalDays[0]+p.TypicalDays[1]) / 2
	if days <= 0 || middle == 0 {
		return p
	}
	share := min(slowestVariety, max(quickestVariety, float64(days)/middle))
	way := p.EmergeCd + p.BudCd
	for k := range p.Cut[Market].From {
		way += p.RungsCd[k]
	}
	const leastBud = 0.3 // of the crop's own way to the bud
	own := *p
	own.BudCd = max(leastBud*p.BudCd, p.BudCd+(share-1)*way)
	for i, d := range p.TypicalDays {
		own.TypicalDays[i] = int(share*float64(d) + 0.5)
	}
	return &own
}
