package plantings

import (
	"fmt"
	"net/http"
	"slices"
	"strings"

	"dewcount/core/crop"
	"dewcount/farm/book"
	"dewcount/farm/look"
	"dewcount/say"
	"dewcount/web/draw"
	"dewcount/web/page"

	"github.com/labstack/echo/v5"
)

// A plantingsView lists what is growing, was and will be.
type plantingsView struct {
	Find           page.FindView
	Growing, Ended []plantingLine
}

type plantingLine struct {
	ID, Variety, Crop, Bed, Started, State string
	Plants                                 int
	Spread                                 draw.SpreadView
	Pick                                   string
}

func (s view) plantings(c *echo.Context, snap *say.Snapshot) error {
	v := plantingsView{Find: page.NewFind(c, "/plantings", "row, variety, crop, what it does", snap.Book.Beds)}
	for i, p := range snap.Model.Plantings {
		line := plantingLine{ID: p.ID, Variety: p.Variety, Crop: p.Growth.Profile.Name, Bed: snap.Book.BedOf(p.ID),
			Started: snap.Date(p.Growth.Started), Plants: p.Growth.Plants, State: state(snap, i)}
		if len(snap.Forecast.PickDays) > 0 {
			spread := snap.Forecast.Plantings[i].ByPick[0][crop.Market]
			line.Spread = draw.NewSpreadView(spread, spread.Bound(0.9)*1.04, 0)
			line.Pick = snap.Date(snap.Forecast.PickDays[0])
		}
		if !v.Find.Takes(line.Bed, line.ID, line.Variety, line.Crop, line.State) {
			continue
		}
		if snap.Over(i) {
			v.Ended = append(v.Ended, line)
		} else {
			v.Growing = append(v.Growing, line)
		}
	}
	byID := func(a, b plantingLine) int { return strings.Compare(a.ID, b.ID) }
	slices.SortFunc(v.Growing, byID)
	slices.SortFunc(v.Ended, byID)
	return s.Show(c, http.StatusOK, "plantings", "/plantings", "Plantings", snap, v)
}

// state says where a planting stands in its life.
func state(snap *say.Snapshot, i int) string {
	switch stage, stems := snap.Stage(i); stage {
	case look.Killed:
		return "killed by frost"
	case look.PulledOut:
		return "pulled out on " + snap.Date(snap.Model.Plantings[i].Ended)
	case look.ToStart:
		if snap.Model.Plantings[i].Growth.Started == snap.View.Today {
			return "to be started today"
		}
		return "to be started"
	case look.InBud:
		return fmt.Sprintf("likely %s in bud or bloom", say.Stems(stems))
	case look.Spent:
		return "nothing left to come: pull it out"
	case look.InNursery:
		return "in the nursery"
	case look.Resting:
		return "done until it shoots again"
	default:
		return "growing, no buds yet"
	}
}

// A plantingView answers for one row: when, how many, and from what that is known.
type plantingView struct {
	Warning, CropID, Waits         string
	ID, Variety, Crop, About, Next string
	Ladder                         []draw.RungView
	Standing, Window               string
	Life                           draw.LifeView
	Picks                          []pickLine
	HasUses                        bool
	Change                         *changeView
	Story                          []storyLine
	Why                            string
}

type pickLine struct {
	Spoken string
	Spread draw.SpreadView
	Uses   []string
}

func (s view) planting(c *echo.Context, snap *say.Snapshot) error {
	i := snap.Index(c.Param("planting"))
	if i < 0 {
		return book.ErrNoSuchRecord
	}
	v := newPlanting(snap, i)
	if did := page.ReadDone(c.QueryParam("done")); did != nil && (did.Kind == book.Counts.Name || did.Kind == book.Cuts.Name) {
		if r, stands := snap.Book.Record(book.KindNamed(did.Kind), did.ID); stands && r.Field("planting") == v.ID {
			before, err := s.Farm.Without(snap.Snapshot, book.KindNamed(did.Kind), did.ID)
			if err != nil {
				return err
			}
			v.Change = newChange(&say.Snapshot{Snapshot: before, Locale: snap.Locale}, snap, i, did.Kind, did.ID)
		}
	}
	return s.Show(c, http.StatusOK, "planting", "/plantings", v.ID+" "+v.Variety, snap, v)
}

func newPlanting(snap *say.Snapshot, i int) plantingView {
	p := snap.Model.Plantings[i]
	record, _ := snap.Book.Planting(p.ID)
	standing := snap.Stand.Standing(i)
	v := plantingView{ID: p.ID, Variety: p.Variety, Crop: p.Growth.Profile.Name, CropID: p.Growth.Profile.ID, About: about(record, snap.Locale),
		Ladder: draw.LadderOf(p.Growth.Profile.Ladder, standing.Rungs, p.Growth.Market), Window: p.Growth.Market.String(), Why: say.WhyNow(snap, i),
		Standing: say.Bounds(int(standing.Sure+0.5), int(standing.Likely+0.5), int(standing.AtBest+0.5)),
		Life:     draw.NewLife(snap, i), Story: story(snap, p.ID)}
	v.Waits = snap.Waits(p.ID, snap.View.Today)
	cells := snap.Forecast.Plantings[i].ByPick
	most := 1.0
	for j := range cells {
		most = max(most, cells[j][crop.Market].Bound(0.9))
	}
	if p.Growth.Method == crop.Direct && !p.Growth.Started.Before(snap.View.Today) {
		v.Warning = say.SoilWords(snap, p.Growth.Profile.SoilMinC, p.Growth.Started)
	}
	if v.Warning == "" {
		v.Warning = say.DoubtWords(snap, i)
	}
	if learned, ok := snap.Stand.Learned(i); ok && v.Warning == "" {
		v.Warning = say.Strain(learned)
	}
	v.Next = say.NextCut(snap, i)
	for j, d := range snap.Forecast.PickDays {
		spread := cells[j][crop.Market]
		line := pickLine{Spoken: snap.Date(d), Spread: draw.NewSpreadView(spread, most, 0)}
		for u := crop.Event; int(u) < crop.Uses; u++ {
			if p.HasUse[u] && p.Windows[u] != p.Growth.Market {
				other := cells[j][u]
				line.Uses = append(line.Uses, fmt.Sprintf("%s %s: %s", u, p.Windows[u], say.Bounds(other.Sure(), other.Likely(), other.AtBest())))
			}
		}
		v.Picks = append(v.Picks, line)
		v.HasUses = v.HasUses || len(line.Uses) > 0
	}
	return v
}

// about says how a planting was started.
func about(p book.Planting, locale say.Locale) string {
	words := map[crop.Method]string{crop.Direct: "sown where it grows", crop.Tray: "sown in trays", crop.Tuber: "tubers started", crop.Bulb: "bulbs set",
		crop.Corm: "corms set", crop.Cutting: "cuttings started", crop.Division: "divisions set", crop.Established: "established, on record since"}[p.Method]
	text := fmt.Sprintf("%d plants, %s on %s", p.Plants, words, locale.Date(p.StartedOn))
	if p.Method == crop.Established {
		text = fmt.Sprintf("%d plants, %s %s", p.Plants, words, locale.Date(p.StartedOn))
	}
	if p.Bed != "" {
		text += ", " + say.InBed(p.Bed)
	}
	if !p.PlantedOutOn.IsZero() {
		text += ", planted out on " + locale.Date(p.PlantedOutOn)
	}
	if !p.PinchedOn.IsZero() {
		part := ""
		if share := p.PinchedPart(); share < 1 {
			part = fmt.Sprintf(" (%.0f %% of them)", 100*share)
		}
		text += ", pinched on " + locale.Date(p.PinchedOn) + part
	}
	if !p.EndedOn.IsZero() {
		text += ", pulled out on " + locale.Date(p.EndedOn)
	}
	return text + "."
}
