package web

import (
	"fmt"
	"strings"

	"github.com/skip2/go-qrcode"
)

// A qrView is a QR code as one path on a square of so many units, with the quiet edge that readers need.
type qrView struct {
	Size int
	Path string
}

// newQR returns the code of an address, readable with a seventh of it spoiled: stakes stand in mud.
func newQR(address string) (qrView, error) {
	code, err := qrcode.New(address, qrcode.Medium)
	if err != nil {
		return qrView{}, fmt.Errorf("QR code of %d letters: %w", len(address), err)
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
	return qrView{len(bits), path.String()}, nil
}
