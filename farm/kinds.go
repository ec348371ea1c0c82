package farm

import "slices"

// A Kind is one sort of record: a file of the notebook, a table of the database, the names of its fields in both.
type Kind struct {
	Name    string
	Columns []string
	Key     []string // columns that tell one record from another
	Needed  []string // columns that a notebook file must have; the others may be missing
}

// The kinds of records, in the order in which each only speaks of those before it.
var (
	Settings    = Kind{"farm", []string{"key", "value"}, []string{"key"}, []string{"key", "value"}}
	Weather     = Kind{"weather", []string{"date", "tmin_c", "tmax_c", "rain_mm", "issued_on"}, []string{"date", "issued_on"}, []string{"date", "tmin_c", "tmax_c"}}
	Beds        = Kind{"beds", []string{"bed", "length_m", "width_m", "bearing_deg", "zone", "cover", "exposure", "sun_h"}, []string{"bed"}, []string{"bed"}}
	Trays       = Kind{"trays", []string{"tray", "cells", "length_cm", "width_cm"}, []string{"tray"}, []string{"tray", "cells"}}
	Varieties   = Kind{"varieties", []string{"variety", "crop", "colour", "role", "height_cm", "spacing_cm", "stem_cm", "germination", "seeds_in_stock", "seeds_a_packet"}, []string{"variety"}, []string{"variety", "crop"}}
	Plantings   = Kind{"plantings", []string{"planting", "variety", "bed", "method", "started_on", "planted_out_on", "pinched_on", "pinched_share", "plants", "cut_style", "ended_on", "squares", "tray", "succession"}, []string{"planting"}, []string{"planting", "variety", "method", "started_on", "plants"}}
	Events      = Kind{"events", []string{"planting", "event", "on", "id"}, []string{"id"}, []string{"planting", "event", "on"}}
	Counts      = Kind{"counts", []string{"counted_at", "planting", "plants_counted", "rung", "stems", "firm", "counter", "id"}, []string{"id"}, []string{"counted_at", "planting", "plants_counted", "rung", "stems"}}
	Cuts        = Kind{"cuts", []string{"cut_at", "planting", "stems", "culled", "cull_reason", "length_cm", "left", "seconds", "id"}, []string{"id"}, []string{"cut_at", "planting", "stems"}}
	Scoutings   = Kind{"scouting", []string{"planting", "on", "cause", "stems", "spoiled", "done", "note", "id"}, []string{"id"}, []string{"planting", "on", "cause", "stems"}}
	Sprays      = Kind{"sprays", []string{"planting", "sprayed_at", "product", "wait_days", "entry_h", "note", "id"}, []string{"id"}, []string{"planting", "sprayed_at", "product", "wait_days", "entry_h"}}
	Jobs        = Kind{"jobs", []string{"job", "planting", "task", "state", "on", "person"}, []string{"job"}, []string{"job", "planting", "task", "state"}}
	Schools     = Kind{"schools", []string{"crop", "question", "school"}, []string{"crop", "question"}, []string{"crop", "question", "school"}}
	Orders      = Kind{"orders", []string{"order", "kind", "due_on", "repeats", "until", "customer", "note"}, []string{"order"}, []string{"order", "kind", "due_on"}}
	OrderLines  = Kind{"order_lines", []string{"order", "line", "recipe", "quantity", "variety", "crop", "role", "colour", "stems", "use", "min_length_cm", "priority"}, []string{"order", "line"}, []string{"order", "line"}}
	RecipeLines = Kind{"recipes", []string{"recipe", "role", "crop", "colour", "stems", "min_length_cm", "rung"}, []string{"recipe", "role", "crop", "colour", "rung"}, []string{"recipe", "stems"}}
	ExtraPicks  = Kind{"extra_picks", []string{"date"}, []string{"date"}, []string{"date"}}
	Makers      = Kind{"made", []string{"kind", "id", "at", "by"}, []string{"kind", "id", "at"}, []string{"kind", "id", "at", "by"}}
	History     = Kind{"history", []string{"kind", "id", "content", "ended", "ended_at", "ended_by"}, nil, []string{"kind", "id", "content", "ended", "ended_at", "ended_by"}}
)

// Kinds returns the kinds that hold what stands now, in the order above. Own crops are beside them: their file is JSON.
func Kinds() []*Kind {
	return []*Kind{&Settings, &Weather, &Beds, &Trays, &Varieties, &Plantings, &Events, &Counts, &Cuts, &Scoutings, &Sprays, &Jobs, &Schools, &Orders, &OrderLines,
		&RecipeLines, &ExtraPicks, &Makers}
}

// KindNamed returns the kind of a name, nil if there is none.
func KindNamed(name string) *Kind {
	i := slices.IndexFunc(Kinds(), func(k *Kind) bool { return k.Name == name })
	if i < 0 {
		return nil
	}
	return Kinds()[i]
}

// A Record is one record of a kind as text, a row for each line of its notebook file. All kinds but Counts have one row.
type Record struct {
	Kind *Kind
	Rows [][]string
}

// ID returns the record's key columns, parted by a bar: what tells it from the others of its kind.
func (r Record) ID() string {
	id := ""
	for i, key := range r.Kind.Key {
		if i > 0 {
			id += "|"
		}
		id += r.Field(key)
	}
	return id
}

// Field returns a column of the record's first row.
func (r Record) Field(column string) string {
	return r.Rows[0][slices.Index(r.Kind.Columns, column)]
}

// Equal tells whether two records say the same.
func (r Record) Equal(o Record) bool {
	return r.Kind == o.Kind && slices.EqualFunc(r.Rows, o.Rows, slices.Equal[[]string])
}
