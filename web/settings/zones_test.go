package settings

import (
	"math"
	"testing"
	"time"
	_ "time/tzdata"
)

// Each zone of the list is one that clocks know, and its city lies where its hours would have it, give or take the whims of governments.
func TestZones(t *testing.T) {
	known := 0
	for _, z := range zones() {
		if _, err := time.LoadLocation(z.name); err == nil {
			known++
		}
		if math.Abs(z.latitude) > 90 || math.Abs(z.longitude) > 180 || z.latitude == 0 && z.longitude == 0 {
			t.Errorf("%s lies at %v, %v", z.name, z.latitude, z.longitude)
		}
	}
	if known < len(zones())-5 || known < 400 { // a machine's own tables may be older than the list
		t.Errorf("of %d zones %d are known", len(zones()), known)
	}
	if z, ok := zoneOf("zurich"); !ok || z.name != "Europe/Zurich" || math.Abs(z.latitude-47.38) > 0.01 || math.Abs(z.longitude-8.53) > 0.01 {
		t.Errorf("Zurich: %+v", z)
	}
	if z, ok := zoneOf("New York"); !ok || z.name != "America/New_York" || z.longitude > -73 {
		t.Errorf("New York: %+v", z)
	}
	if _, ok := zoneOf("Nowhere"); ok {
		t.Error("Nowhere is a zone")
	}
	typed := map[string]string{"timezone": "hobart", "elevation_m": "40"}
	place := byClimate(func(name string) string { return typed[name] }, true)
	if again := byClimate(func(name string) string { return typed[name] }, false); again("latitude") != "" {
		t.Errorf("a farm that lay somewhere is moved to %s", again("latitude"))
	}
	unsaid := map[string]string{"timezone": "hobart"}
	if place := byClimate(func(name string) string { return unsaid[name] }, true); place("elevation_m") != usualHeightM {
		t.Errorf("a new farm of which nobody says how high it lies lies at %q m", place("elevation_m"))
	}
	if later := byClimate(func(name string) string { return unsaid[name] }, false); later("elevation_m") != "" {
		t.Error("a height that was emptied later is filled in")
	}
	if place("timezone") != "Australia/Hobart" || place("latitude") != "-42.88" || place("elevation_m") != "40" {
		t.Errorf("a farm near Hobart lies at %s, %s in %s", place("latitude"), place("longitude"), place("timezone"))
	}
}
