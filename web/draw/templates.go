package draw

import "embed"

// Templates are the parts of pages that write drawings.
//
//go:embed templates/*.html
var Templates embed.FS
