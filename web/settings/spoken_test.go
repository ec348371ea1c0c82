package settings

import "testing"

// Places and days are read as people write them; what is none stays as it was typed.
func TestPlacesAndDaysAsPeopleWriteThem(t *testing.T) {
	for typed, want := range map[string]string{"46.9": "46.9", "46,9": "46.9", "46°54'N": "46.9", "46° 54' 0\" N": "46.9", "7°12′E": "7.2", "1°30'W": "-1.5", "-43.5": "-43.5", "43.5 S": "-43.5", "−43.5": "-43.5",
		"-1°30'": "-1.5", "north": "north", "": "", "46.9 or so": "46.9 or so", "46°54'N 7°12'E": "46°54'N 7°12'E"} {
		if got := coordinate(typed); got != want {
			t.Errorf("%q is read as %q, not %q", typed, got, want)
		}
	}
	for typed, want := range map[string]string{"12 May": "05-12", "may 12": "05-12", "14 October": "10-14", "14 oct": "10-14", "05-12": "05-12", "12.5.": "05-12", "2. März": "2. März", "31 June": "31 June", "": ""} {
		if got := dayOfYear(typed); got != want {
			t.Errorf("%q is read as %q, not %q", typed, got, want)
		}
	}
	if got := spokenDay("05-12") + spokenDay("soon"); got != "12 Maysoon" {
		t.Errorf("shown is %q", got)
	}
	if at := places.FindAllString("46.9, 7.2", -1); len(at) != 2 || coordinate(at[0]) != "46.9" || coordinate(at[1]) != "7.2" {
		t.Errorf("both at once are %q", at)
	}
}
