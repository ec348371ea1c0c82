package parts

import (
	"fmt"
	"strings"

	"github.com/skip2/go-qrcode"
)

// A QrView is a QR code as one path on a square of so many units, with the quiet edge that readers need.
type QrView struct {
	Label string // what it is the code of, in words
	Size  int
	Path  string
}

// NewQR returns the code of an address, with words for those who cannot see it, readable with a seventh of it spoiled: stakes stand in mud.
func NewQR(address, label string) (QrView, error) {
	code, err := qrcode.New(address, qrcode.Medium)
	if err != nil {
		return QrView{}, fmt.Errorf("QR code of %d letters: %w", len(address), err)
	}
	bits := code.Bitmap()
	var path strings.Builder
	for y, row := range bits {
		for x := 0; x < len(row); x++ {
			from := x
			for x < len(row) && row[x] {
				x++
			}
			if x > from {
				fmt.Fprintf(&path, "M%d %dh%dv1h-%dz", from, y, x-from, x-from)
			}
		}
	}
	return QrView{label, len(bits), path.String()}, nil
}
