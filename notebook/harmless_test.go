package notebook

import "testing"

// FuzzHarmless: what is written comes back, and no spreadsheet takes it for a formula.
func FuzzHarmless(f *testing.F) {
	for _, field := range []string{"", "=1+1", "-3.5", "+4", "-", "@SUM(A1)", "'=x", "''=x", "'plain", "-2e5", "-Zinnia", "ZC1", "--1", "=", "'"} {
		f.Add(field)
	}
	f.Fuzz(func(t *testing.T, field string) {
		written := harmless(field)
		if back := harmful(written); back != field {
			t.Errorf("%q is written as %q and comes back as %q", field, written, back)
		}
		if written != "" && (written[0] == '=' || written[0] == '@' || (written[0] == '+' || written[0] == '-') && !plainNumber.MatchString(written)) {
			t.Errorf("%q is written as %q, which a spreadsheet runs", field, written)
		}
	})
}
