package farm

import (
	"fmt"
	"slices"

	"dewcount/core/crop"
	"dewcount/core/day"
)

// An Appointment is something that a season has on a day: for calendars.
type Appointment struct {
	ID    string // the same as long as it is the same thing, whatever its day
	On    day.Day
	What  string
	Where string // the bed, empty for none
	Note  string
}

// Appointments returns what the season has on its days: sowings, plantings out, pinches, market days and orders, in order.
func (s *Season) Appointments() []Appointment {
	var all []Appointment
	add := func(a Appointment) {
		if !a.On.IsZero() && !a.On.Before(s.From) && a.On.Before(s.Until) {
			all = append(all, a)
		}
	}
	raisings := make(map[string]SeedSowing)
	for _, l := range s.Seeds() {
		for _, w := range l.Sowings {
			raisings[w.Planting.ID] = w
		}
	}
	starts := map[crop.Method]string{crop.Direct: "Sow", crop.Tray: "Sow in trays", crop.Tuber: "Start tubers", crop.Bulb: "Set bulbs", crop.Corm: "Set corms", crop.Cutting: "Start cuttings", crop.Division: "Set divisions"}
	for _, p := range s.Book.Plantings {
		name := p.ID + " " + p.Variety
		if p.Method == crop.Established {
			continue
		}
		note := fmt.Sprintf("%d plants", p.Plants)
		w := raisings[p.ID]
		if w.Seeds > 0 {
			note += fmt.Sprintf(", %d seeds", w.Seeds)
		}
		if w.Trays > 0 {
			note += fmt.Sprintf(" in %d trays of %s", w.Trays, w.Tray.ID)
		}
		if p.Squares != "" {
			note += ", squares " + p.Squares
		}
		add(Appointment{"start " + p.ID, p.StartedOn, starts[p.Method] + " " + name, p.Bed, note})
		out := p.PlantedOutOn
		if w.Raising != nil {
			out = w.Raising.Out
			note = "on a dull or wet day"
			if !w.Raising.Latest.IsZero() {
				note += ", no later than " + w.Raising.Latest.Spoken()
			}
			if len(w.Raising.Harden) > 0 {
				add(Appointment{"harden " + p.ID, w.Raising.Harden[0].Day, "Begin to harden off " + name, "", "out by day, in by night, a little longer each day"})
			}
		}
		add(Appointment{"out " + p.ID, out, "Plant out " + name, p.Bed, note})
		share := ""
		if part := p.PinchedPart(); part > 0 && part < 1 {
			share = fmt.Sprintf("%.0f in 100 of the plants", 100*part)
		}
		add(Appointment{"pinch " + p.ID, p.PinchedOn, "Pinch " + name, p.Bed, share})
	}
	for _, o := range s.Book.Orders {
		for _, on := range o.Between(s.From, s.Until.Add(-1)) {
			add(Appointment{"order " + o.ID + " " + on.String(), on, o.ID, "", o.Note})
		}
	}
	slices.SortFunc(all, func(a, b Appointment) int {
		if c := a.On.Compare(b.On); c != 0 {
			return c
		}
		return compareText(a.ID, b.ID)
	})
	return all
}
