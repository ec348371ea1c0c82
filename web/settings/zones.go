package settings

import (
	_ "embed"
	"strconv"
	"strings"
	"sync"
)

// zoneTable is the city of each time zone with its latitude and longitude in degrees, after the table of the time zone database, which is in the public domain.
//
//go:embed zones.tsv
var zoneTable string

// A zone is a time zone with where its city lies.
type zone struct {
	name                string
	latitude, longitude float64
}

var zones = sync.OnceValue(func() []zone {
	var all []zone
	for line := range strings.Lines(zoneTable) {
		parts := strings.Split(strings.TrimSpace(line), "\t")
		latitude, _ := strconv.ParseFloat(parts[1], 64) // the table is ours, and a test reads it
		longitude, _ := strconv.ParseFloat(parts[2], 64)
		all = append(all, zone{parts[0], latitude, longitude})
	}
	return all
})

// zoneOf finds a time zone by its name, or by its city's alone.
func zoneOf(typed string) (zone, bool) {
	typed = strings.ReplaceAll(strings.TrimSpace(typed), " ", "_")
	for _, z := range zones() {
		if strings.EqualFold(z.name, typed) || strings.EqualFold(z.name[strings.LastIndex(z.name, "/")+1:], typed) {
			return z, true
		}
	}
	return zone{}, false
}

func zoneNames() []string {
	var names []string
	for _, z := range zones() {
		names = append(names, z.name)
	}
	return names
}
